package io.mivrel;

import io.mivrel.books.Books;
import io.mivrel.checking.Check;
import io.mivrel.coding.CodingTable;
import io.mivrel.corrections.Correction;
import io.mivrel.corrections.Corrections;
import io.mivrel.corrections.Decision;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.files.CodingAdditions;
import io.mivrel.files.CorrectionFiles;
import io.mivrel.files.FolderOutlet;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsProblem;
import io.mivrel.intake.Input;
import io.mivrel.layout.DateWindow;
import io.mivrel.layout.Layout;
import io.mivrel.ledger.Register;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.ledger.RunScope;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.posting.BalanceChanges;
import io.mivrel.posting.EntrySpool;
import io.mivrel.posting.ExportProof;
import io.mivrel.posting.Ledger;
import io.mivrel.rows.FileFormat;
import io.mivrel.run.DeliveryTarget;
import io.mivrel.run.Progress;
import io.mivrel.run.Run;
import io.mivrel.run.RunPlan;
import io.mivrel.text.Nearest;
import io.mivrel.text.Printable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A run, described and ready to go: opened from a run sheet, or told in code. Each call that describes answers this same
 * object. For one thread.
 *
 * <pre>{@code
 * Outcome outcome = Mivrel.open(Path.of("bank.yaml")).run();
 * System.out.println(outcome.summary(SummaryText.Style.PLAIN));
 * }</pre>
 */
public final class Mivrel {
    private static final Pattern COPY =
            Pattern.compile("corrections/(.+?)(?:-posted)?-\\d{4}-\\d{2}-\\d{2}(?:-\\d+)?\\.\\w+");

    /** The version of this library. */
    public static final String VERSION = "0.1.0";

    /** The folder beside a run sheet in which corrected copies of held rows are looked for. */
    public static final String CORRECTIONS = "corrections";

    private final String name;
    private final Books books;
    private final List<Source> sources = new ArrayList<>();
    private final Map<Source, List<Input>> inputsOf = new IdentityHashMap<>();
    private final List<Target> targets = new ArrayList<>();
    private final List<Check> checks = new ArrayList<>();
    private final List<Path> settings = new ArrayList<>();
    private @Nullable CodingTable coding;
    private @Nullable String suspense;
    private DateWindow dates = DateWindow.ALL;
    private boolean holdEverything;
    private List<Correction> said = List.of();
    /** Those of the inputs that were asked for last. */
    private List<Finding> notes = List.of();

    private Corrections corrections = Corrections.none();

    private long first;
    private int documentsKept;
    private @Nullable Path home;
    private @Nullable RegisterPlace register;
    private Clock clock = Clock.systemDefaultZone();
    private Progress progress = Progress.NONE;

    /** {@code path} is null where the program gives the rows itself. */
    record Source(@Nullable Path path, String shown, Layout layout, Input.Opener rows) {}

    record Target(Delivery delivery, Path folder, DeliveryTarget.Earlier earlier) {}

    private Mivrel(String name, Books books) {
        this.name = Objects.requireNonNull(name);
        this.books = Objects.requireNonNull(books);
    }

    /** Loads what a run needs besides its settings, on a thread of its own; for a program that will call {@link #run}. */
    public static void prepare() {
        Register.prepareEngine();
    }

    /**
     * Opens a run sheet. Evidence and register are kept beside it, in {@code evidence} and {@code .mivrel}. Throws with
     * all mistakes of all settings files at once. A run sheet that says {@code dates: month} is of the month that all rows of
     * its files are of; when they are of several, that is a mistake too, and {@link #open(Path, YearMonth)} says which.
     */
    public static Mivrel open(Path runSheet) throws SettingsException {
        RunSheet sheet = RunSheet.read(runSheet);
        Mivrel run = of(sheet, runSheet);
        return sheet.monthly() ? open(runSheet, MonthOfFiles.of(run, runSheet)) : run;
    }

    /** The months that the rows of a run sheet's files are of, whatever dates it names; empty when none has a date. */
    public static List<YearMonth> monthsOf(Path runSheet) throws SettingsException, IOException {
        Mivrel run = of(RunSheet.read(runSheet), runSheet);
        run.dates = DateWindow.ALL;
        return MonthOfFiles.all(run);
    }

    /** The same of one file. */
    static List<YearMonth> monthsOf(Path runSheet, Path file, Layout layout) throws SettingsException, IOException {
        Mivrel run = open(runSheet, null, file, layout);
        run.dates = DateWindow.ALL;
        return MonthOfFiles.all(run);
    }

    /** Opens a run sheet for one file, under its plain name, in place of those that it names. */
    static Mivrel open(Path runSheet, @Nullable YearMonth month, Path file, Layout layout) throws SettingsException {
        return of(
                RunSheet.read(runSheet, month, true),
                runSheet,
                List.of(source(file, String.valueOf(file.getFileName()), layout)));
    }

    /** The same for one month, whatever dates the run sheet names. */
    public static Mivrel open(Path runSheet, YearMonth month) throws SettingsException {
        return of(RunSheet.read(runSheet, Objects.requireNonNull(month)), runSheet);
    }

    /**
     * Opens a run sheet for what needs none of its files, such as {@link LedgerPosting#status}: they need not be there, and no month
     * need be said.
     */
    public static Mivrel withoutFiles(Path runSheet) throws SettingsException {
        RunSheet sheet = RunSheet.read(runSheet, null, true);
        Mivrel run = new Mivrel(sheet.name(), sheet.books());
        run.home = sheet.folder();
        return run;
    }

    private static Mivrel of(RunSheet sheet, Path runSheet) throws SettingsException {
        List<Source> sources = new ArrayList<>();
        for (RunSheet.Source s : sheet.sources()) {
            sources.add(
                    source(s.path(), s.shown(), LayoutChoice.of(s, sheet.books().currency(), runSheet)));
        }
        return of(sheet, runSheet, sources);
    }

    private static Mivrel of(RunSheet sheet, Path runSheet, List<Source> sources) throws SettingsException {
        Mivrel run = new Mivrel(sheet.name(), sheet.books());
        run.sources.addAll(sources);
        sheet.targets().forEach(t -> run.targets.add(new Target(t.delivery(), t.folder(), t.earlier())));
        run.settings.addAll(sheet.settings());
        run.coding = sheet.coding();
        run.suspense = sheet.suspense();
        run.dates = sheet.dates();
        run.holdEverything = sheet.holdEverything();
        run.home = sheet.folder();
        run.takeCorrections(sheet.folder().resolve(CORRECTIONS));
        run.requireWhole(runSheet);
        return run;
    }

    private boolean isOfThisRun(String file) {
        return sources.stream().anyMatch(source -> file.startsWith(source.shown()));
    }

    // The list of accounts in the workbook shows code and name, and people copy both.
    private Correction byCode(Correction one) {
        return books.accounts().stream()
                .filter(account -> account.label().equalsIgnoreCase(one.account()))
                .findFirst()
                .map(account -> one.ofAccount(account.code()))
                .orElse(one);
    }

    // Every copy of held rows that lies there, corrected or not.
    private void takeCorrections(Path folder) throws SettingsException {
        Map<String, FileFormat> forms = new HashMap<>();
        for (Source source : sources) {
            if (source.path() != null) {
                forms.put(
                        source.path().getFileName().toString(), source.layout().format());
            }
        }
        CorrectionFiles.Taken taken = CorrectionFiles.read(folder, forms);
        said = taken.corrections().stream().map(this::byCode).toList();
        notes = taken.notes();
        List<SettingsProblem> problems = new ArrayList<>(taken.problems());
        for (Correction one : said) {
            if (one.account() != null && books.account(one.account()) == null) {
                String near = Nearest.one(one.account(), books.accountCodes());
                problems.add(new SettingsProblem(
                        one.place(),
                        0,
                        0,
                        "'" + one.account() + "' is not in the chart, nor one of "
                                + String.join(", ", Decision.words()),
                        near == null ? "" : "'" + near + "'?"));
            } else if (one.account() != null && coding == null && isOfThisRun(one.file())) {
                // Nothing would be done with it, and it must not seem so.
                problems.add(new SettingsProblem(
                        one.place(),
                        0,
                        0,
                        "an account is chosen only for bank lines of a run with a coding table",
                        "correct the cell with the account instead"));
            }
        }
        if (!problems.isEmpty()) {
            throw new SettingsException(problems);
        }
        settings.addAll(CorrectionFiles.in(folder));
    }

    // What only shows when all settings are together is still a mistake in the run sheet.
    private void requireWhole(Path runSheet) throws SettingsException {
        List<String> gaps = plan(inputs()).build().gaps();
        if (!gaps.isEmpty()) {
            throw new SettingsException(gaps.stream()
                    .map(gap -> new SettingsProblem(runSheet.toString(), 0, 0, gap, ""))
                    .toList());
        }
    }

    /**
     * The entries that people filled in on the sheets of uncoded groups, for the coding table of a run sheet. Throws where it
     * has none.
     */
    public static CodingAdditions codingAdditions(Path runSheet) throws SettingsException {
        RunSheet sheet = RunSheet.read(runSheet, null, true);
        CodingTable table = sheet.coding();
        if (table == null) {
            throw new SettingsException(List.of(new SettingsProblem(
                    runSheet.toString(),
                    0,
                    0,
                    "the run sheet has no coding table",
                    "coding: {table: coding.csv, uncoded: hold}")));
        }
        return CodingAdditions.of(
                sheet.folder().resolve(table.name()), sheet.folder().resolve(CORRECTIONS), sheet.books());
    }

    /** Starts a run told in code. It keeps no evidence and no register unless {@link #keepIn} names a folder. */
    public static Mivrel named(String name, Books books) {
        return new Mivrel(name, books);
    }

    /** Takes in a file. */
    public Mivrel takeIn(Path file, Layout layout) {
        sources.add(source(file, file.toString(), layout));
        return this;
    }

    /**
     * Takes in what a stream holds, read to its end now; {@code name} is what findings call it. The caller closes the stream.
     * The run may be checked and then run, so the copy stays in the temporary folder until the process ends.
     */
    public Mivrel takeIn(String name, InputStream content, Layout layout) throws IOException {
        Path copy = Files.createTempFile("mivrel-", "-input");
        copy.toFile().deleteOnExit();
        Files.copy(content, copy, StandardCopyOption.REPLACE_EXISTING);
        sources.add(source(copy, name, layout));
        return this;
    }

    /** Takes in rows that the program opens itself, as often as the run asks; the evidence has no digest of them. */
    public Mivrel takeIn(String name, Input.Opener rows, Layout layout) {
        sources.add(new Source(null, Printable.of(name), Objects.requireNonNull(layout), Objects.requireNonNull(rows)));
        return this;
    }

    /** Takes in records by the titles of their columns; a title that a record lacks is a blank cell. */
    public Mivrel takeIn(String name, List<Map<String, String>> records, Layout layout) {
        List<Map<String, String>> kept = List.copyOf(records);
        return takeIn(name, () -> new RecordRows(kept, layout.format().dataRow()), layout);
    }

    private static Source source(Path path, String shown, Layout layout) {
        String name = Printable.of(shown);
        return new Source(path, name, layout, SourceFiles.opener(path, name, layout));
    }

    /** Codes bank lines; what no entry decides is held. */
    public Mivrel code(CodingTable table) {
        coding = table;
        return this;
    }

    /** Sends what no entry decides to a suspense account instead of holding it. */
    public Mivrel uncodedTo(String suspenseAccount) {
        suspense = suspenseAccount;
        return this;
    }

    /** Leaves out rows with other dates; both ends are included. */
    public Mivrel dates(LocalDate from, LocalDate to) {
        dates = new DateWindow(from, to);
        return this;
    }

    /** Adds a check of one's own. */
    public Mivrel check(Check check) {
        checks.add(Objects.requireNonNull(check));
        return this;
    }

    /** Adds a delivery into a folder, which is made when missing. */
    public Mivrel deliver(Delivery delivery, Path folder) {
        return deliver(delivery, folder, DeliveryTarget.Earlier.LEFT_OUT);
    }

    /** The same, saying what becomes of documents that went out by another delivery before. */
    public Mivrel deliver(Delivery delivery, Path folder, DeliveryTarget.Earlier earlier) {
        targets.add(new Target(Objects.requireNonNull(delivery), Objects.requireNonNull(folder), earlier));
        return this;
    }

    /** One blocker stops the whole delivery, rather than its document only. */
    public Mivrel holdEverything() {
        holdEverything = true;
        return this;
    }

    /** A pilot: at most this many documents are delivered. */
    public Mivrel first(long documents) {
        if (documents < 1) {
            throw new IllegalArgumentException("a pilot has at least one document, not " + documents);
        }
        first = documents;
        return this;
    }

    /** Has {@link Outcome#documents} answer the first documents one by one, at most so many. */
    public Mivrel keepDocuments(int most) {
        documentsKept = most;
        return this;
    }

    /** Keeps the evidence and the register in this folder. */
    public Mivrel keepIn(Path folder) {
        home = folder;
        return this;
    }

    /** Keeps the register there, rather than in the folder of {@link #keepIn}; a server may be shared by several machines. */
    public Mivrel register(RegisterPlace place) {
        register = place;
        return this;
    }

    /** The clock that names files and evidence; the system's by default. */
    public Mivrel clock(Clock other) {
        clock = Objects.requireNonNull(other);
        return this;
    }

    /** Who hears how far the run is. */
    public Mivrel progress(Progress listener) {
        progress = Objects.requireNonNull(listener);
        return this;
    }

    /** Does everything but deliver, and writes nothing. */
    public Outcome check() throws IOException {
        return new Session(this).check();
    }

    /**
     * Reads, codes, drafts, checks, delivers, reads back and keeps the evidence. Throws {@link IOException} when a file
     * fails; then nothing was delivered.
     */
    public Outcome run() throws IOException {
        return new Session(this).run();
    }

    /** What this run has to do with a ledger: post its clear documents, take them back, prove. The caller closes the ledger. */
    public LedgerPosting postTo(Ledger ledger) {
        return new LedgerPosting(this, ledger);
    }

    /**
     * The proof without a ledger at hand: what this run has cleared, against the trial balances that the ledger exported before
     * and after.
     *
     * @param layout gives journal lines of a trial balance, with a constant for reference and date
     */
    public ExportProof proveByBalances(Path before, Path after, Path layout) throws SettingsException, IOException {
        ExportedBooks exported = new ExportedBooks(layout, books.currency());
        BalanceChanges first = exported.balances(before);
        BalanceChanges last = exported.balances(after);
        try (EntrySpool cleared = cleared()) {
            return ExportProof.ofBalances(cleared, first, last);
        }
    }

    /** The same against a list of entries that the ledger exported; {@code layout} gives its journal lines. */
    public ExportProof proveByEntries(Path list, Path layout) throws SettingsException, IOException {
        ExportedBooks exported = new ExportedBooks(layout, books.currency());
        List<ExportProof.Listed> listed = exported.lines(list);
        try (EntrySpool cleared = cleared()) {
            return ExportProof.ofList(cleared, listed);
        }
    }

    /**
     * The first rows that each delivery has of this run's clear documents, as they stand in its files; nothing is written, and
     * what went out before is among them.
     *
     * @param documents of so many documents at most
     * @param rows so many rows of each file, without titles and other rows that are no data
     */
    public List<DeliverySample> samples(int documents, int rows) throws IOException {
        return samples(targets.stream().map(Target::delivery).toList(), documents, rows);
    }

    /** True when this run's documents can be delivered as such: as they are, or as the journals that they amount to. */
    public boolean canDeliver(Kind kind) {
        return Delivery.named("", kind)
                .buildUnchecked()
                .accepts(plan(inputs()).build().kind());
    }

    /** The same of other deliveries; documents of which no delivery takes the kind are passed over. */
    public List<DeliverySample> samples(List<Delivery> deliveries, int documents, int rows) throws IOException {
        List<DeliverySample.Outlets> outlets = deliveries.stream()
                .map(delivery -> new DeliverySample.Outlets(delivery, slug(), today()))
                .toList();
        RunPlan plan = plan(inputs())
                .targets(outlets.stream().map(DeliverySample.Outlets::target).toList())
                .first(documents)
                .build();
        if (!plan.gaps().isEmpty()) {
            throw new IOException(String.join("; ", plan.gaps()));
        }
        Run.execute(plan, Progress.NONE);
        List<DeliverySample> samples = new ArrayList<>();
        for (DeliverySample.Outlets one : outlets) {
            samples.addAll(one.samples(rows));
        }
        return samples;
    }

    // Whether or not it was delivered before.
    private EntrySpool cleared() throws IOException {
        EntrySpool spool = new EntrySpool();
        boolean done = false;
        try {
            RunPlan plan = plan(inputs()).checkOnly().clearTo(spool).build();
            if (!plan.gaps().isEmpty()) {
                throw new IOException(String.join("; ", plan.gaps()));
            }
            Run.execute(plan, progress);
            done = true;
            return spool;
        } finally {
            if (!done) {
                spool.close();
            }
        }
    }

    /** The checks of one's own, and one more. */
    List<Check> checksAnd(Check more) {
        List<Check> all = new ArrayList<>(checks);
        all.add(more);
        return all;
    }

    /** The bank account that the lines of a file belong to; {@code null} when its kind has none. */
    @Nullable
    String accountOf(String file) {
        for (Input input : inputs()) {
            if (input.name().equals(file)) {
                return input.layout().account();
            }
        }
        return null;
    }

    /** The plan, but for what is remembered. */
    RunPlan.Builder plan(List<Input> inputs) {
        RunPlan.Builder plan = RunPlan.named(name, books)
                .inputs(inputs)
                .coding(coding, suspense)
                .dates(dates)
                .targets(targets.stream().map(this::target).toList())
                .ownChecks(checks)
                .corrections(corrections)
                .keepDocuments(documentsKept)
                .first(first);
        return holdEverything ? plan.holdEverything() : plan;
    }

    List<Input> inputs() {
        List<Input> raw = sources.stream()
                .flatMap(source -> inputsOf.computeIfAbsent(source, this::inputs).stream())
                .toList();
        List<String> names = raw.stream().map(Input::name).toList();
        Corrections ofThese = new Corrections(
                said.stream()
                        .filter(one -> names.contains(one.file()) || !isOfAnotherRun(one.place()))
                        .toList(),
                names,
                notes.stream()
                        .filter(note -> names.contains(note.origin().file())
                                || note.origin().file().startsWith(CORRECTIONS + "/"))
                        .toList(),
                file -> home == null || Files.exists(home.resolve(file)));
        corrections = ofThese;
        return raw.stream()
                .map(input -> {
                    Corrections.Opener corrected = ofThese.correct(input.name(), input.opener()::open);
                    return corrected == null ? input : new Input(input.name(), input.layout(), corrected::open);
                })
                .toList();
    }

    // A copy has the name of the run that handed it out, and that run takes it or names it.
    private boolean isOfAnotherRun(String place) {
        Matcher copy = COPY.matcher(place);
        return copy.lookingAt()
                && !copy.group(1).equals(slug())
                && !copy.group(1).startsWith(slug() + "-");
    }

    // A file of statements of several accounts is one input for each.
    private List<Input> inputs(Source source) {
        Layout layout = source.layout();
        return Layout.BY_NUMBER.equals(layout.account()) && source.rows() instanceof SourceFiles.Opener opener
                ? AccountsOfFile.inputs(source.shown(), opener, layout, books)
                : List.of(new Input(source.shown(), layout, source.rows()));
    }

    private DeliveryTarget target(Target target) {
        String date = today().toString();
        return new DeliveryTarget(
                target.delivery(),
                (sheet, other) -> {
                    String run = other == null ? slug() : slug() + "-" + other.getCurrencyCode();
                    return new FolderOutlet(
                            target.folder(), sheet, (text, part) -> DeliveryFormat.filled(text, run, date, part));
                },
                target.earlier());
    }

    /** What the register needs to know of this run. */
    RunScope scope(RunPlan plan) {
        List<String> accounts = plan.inputs().stream()
                .map(input -> input.layout().account())
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        List<String> deliveries =
                plan.targets().stream().map(target -> target.delivery().name()).toList();
        return new RunScope(name, books.company(), plan.kind(), accounts, deliveries, dates, clock.instant());
    }

    /** Where the register is; {@code null} when none is kept. */
    @Nullable
    RegisterPlace register() {
        return register != null || home == null ? register : registerOf(home);
    }

    /** Where the register of a company's folder is: on a server that the environment names, or in the folder. */
    static RegisterPlace registerOf(Path home) {
        String url = System.getenv("MIVREL_REGISTER_URL");
        return url == null || url.isEmpty()
                ? RegisterPlace.file(home.resolve(".mivrel").resolve("register.db"))
                : RegisterPlace.server(
                        url, System.getenv("MIVREL_REGISTER_USER"), System.getenv("MIVREL_REGISTER_PASSWORD"));
    }

    Instant now() {
        return clock.instant();
    }

    LocalDate today() {
        return LocalDate.now(clock);
    }

    /** The name in small letters for file names: {@code march-bank}. */
    String slug() {
        String slug = name.toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}]+", "-")
                .replaceAll("^-|-$", "");
        return slug.isEmpty() ? "run" : slug.length() > 60 ? slug.substring(0, 60) : slug;
    }

    String name() {
        return name;
    }

    Books books() {
        return books;
    }

    /** Whose books they are. */
    public String company() {
        return books.company();
    }

    @Nullable
    Path home() {
        return home;
    }

    List<Source> sources() {
        return sources;
    }

    List<Target> targets() {
        return targets;
    }

    List<Path> settings() {
        return settings;
    }

    Progress progress() {
        return progress;
    }
}
