package io.mivrel.start;

import io.mivrel.FileSurvey;
import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.Books;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Kind;
import io.mivrel.shape.FanOut;
import io.mivrel.survey.Facts;
import io.mivrel.survey.Survey;
import io.mivrel.text.Nearest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The beginning of a company folder: takes raw files, asks only what they do not tell, and writes settings that work: books,
 * layouts, a coding table, deliveries and run sheets. A folder that is there already gets what is new; nothing is
 * overwritten. For one thread.
 *
 * <pre>{@code
 * Beginning beginning = new Beginning(Path.of("foundry")).take(Path.of("download-2027-03.csv"));
 * for (Asked asked = beginning.next(); asked != null; asked = beginning.next()) {
 *     beginning.answer(asked.about(), ask(asked));
 * }
 * Beginning.Written written = beginning.write();
 * }</pre>
 */
public final class Beginning {
    /** The answer that asks for the small chart that ships. */
    public static final String SMALL = "small";

    private static final String COMPANY = "company";
    private static final String CURRENCY = "currency";
    private static final String CHART = "chart";
    private static final String TYPES = "types";
    private static final String RATES = "rates";
    private static final String TAX_ACCOUNT = "tax account";
    private static final String DELIVER = "deliver";
    private static final String UNCODED = "uncoded";
    private static final String ACCOUNT = "account";
    private static final String SAME = "same";
    private static final String HOLD = "hold";
    private static final int SAMPLE_ROWS = 3;
    private static final int MOST_LIKELY = 15;
    private static final Pattern MONEY = Pattern.compile(
            "(?i)bank|banque|banco|banca|giro|card\\b|karte|carte|current account|checking|sparkasse|kasse");
    private final Path folder;
    private final List<RawFiles> groups = new ArrayList<>();
    private final Map<String, String> answers = new LinkedHashMap<>();
    private final Map<String, String> answeredAhead = new LinkedHashMap<>();
    private final Map<String, String> usuals = new LinkedHashMap<>();
    private final @Nullable Books books;
    private @Nullable ChartExport chart;
    /** Lines of chart.csv once they are known, where the folder has no books yet. */
    private List<String> chartRows = List.of();

    private String chartName = "";
    private final List<String> aside = new ArrayList<>();

    /** Begins a folder, or goes on with one whose books are read; throws with what is wrong in them. */
    public Beginning(Path folder) throws SettingsException {
        this.folder = folder;
        this.books =
                Files.exists(folder.resolve("books/books.yaml")) ? BooksFolder.read(folder.resolve("books")) : null;
    }

    /**
     * What was written.
     *
     * @param files all files
     * @param runSheets those to run
     * @param told what was taken without asking, and what is worth a look
     */
    public record Written(List<Path> files, List<Path> runSheets, List<String> told) {}

    /** Takes a raw file, or a chart that another program exported. */
    public Beginning take(Path file) throws IOException {
        FileSurvey survey = FileSurvey.of(file);
        ChartExport found = isNoMovements(survey) ? ChartExport.of(survey) : null;
        if (found != null && (books != null || chart != null)) {
            aside.add(file.getFileName() + ": a chart, not read: the books have one already");
            return this;
        }
        if (found != null) {
            useChart(file, found);
            return this;
        }
        for (RawFiles group : groups) {
            if (group.survey.form().equals(survey.form())) {
                group.files.add(file);
                return this;
            }
        }
        RawFiles fresh = new RawFiles(file, survey);
        if (books != null) {
            fresh.look(books.currency());
        }
        known(fresh);
        String wanted = fresh.slug;
        for (int n = 2; isTaken(fresh.slug); n++) {
            fresh.slug = wanted + "-" + n;
        }
        groups.add(fresh);
        return this;
    }

    private boolean isTaken(String slug) {
        return groups.stream().anyMatch(g -> g.slug.equals(slug))
                || Files.exists(folder.resolve("layouts/" + slug + ".yaml"))
                || Files.exists(folder.resolve(slug + ".yaml"));
    }

    // A layout that reads it, or one that would with other titles.
    private void known(RawFiles fresh) throws IOException {
        Path layouts = folder.resolve("layouts");
        if (books == null || !Files.isDirectory(layouts)) {
            return;
        }
        List<Path> all;
        try (Stream<Path> inside = Files.list(layouts)) {
            all = inside.filter(l -> l.toString().endsWith(".yaml")).sorted().toList();
        }
        for (Path layout : all) {
            try {
                FileSurvey.Likeness likeness = fresh.survey.like(layout, 0);
                boolean mends = fresh.likeness == null && likeness.onlyTitles();
                if (likeness.isKind() && (likeness.isLike() || mends)) {
                    fresh.like = layout;
                    fresh.likeness = likeness;
                }
            } catch (SettingsException toldWhenItIsRun) {
                // A layout that is wrong fits nothing.
            }
        }
    }

    private static boolean isNoMovements(FileSurvey survey) {
        return survey.survey().pattern() == null
                && !survey.survey().facts().kind().isStatement();
    }

    /** Takes a chart that another program exported. */
    public Beginning takeChart(Path file) throws IOException, WrongAnswerException {
        ChartExport found = ChartExport.of(FileSurvey.of(file));
        if (found == null) {
            throw new WrongAnswerException(
                    file + ": no row has titles for a code and a name of accounts, such as" + " 'Account' and 'Name'");
        }
        useChart(file, found);
        return this;
    }

    private void useChart(Path file, ChartExport found) throws IOException {
        if (!found.twice().isEmpty()) {
            throw new IOException(
                    file + ": these account codes stand twice in the chart: " + String.join(", ", found.twice()));
        }
        chart = found;
        chartName = file.getFileName().toString();
        answers.put(CHART, file.toString());
    }

    /** What was found out about the files: what they are, and by what arithmetic that is proved. */
    public List<String> reading() {
        List<String> lines = new ArrayList<>();
        for (RawFiles group : groups) {
            Survey survey = group.survey.survey();
            String more = group.files.size() == 1 ? "" : " and " + (group.files.size() - 1) + " more of its form";
            lines.add(group.files.get(0).getFileName() + more + ": "
                    + survey.facts().words() + ", " + survey.dataRows()
                    + (survey.dataRows() == 1 ? " row" : " rows")
                    + (survey.gives() == null ? "" : " of " + survey.gives().name()));
            survey.proofs()
                    .forEach(proof -> lines.add((proof.holds() ? "  proved: " : "  not proved: ") + proof.words()));
        }
        lines.addAll(aside);
        if (chart != null) {
            lines.add(chartName + ": a chart of " + chart.entries.size() + " accounts");
        }
        return lines;
    }

    /** Gives an answer before it is asked for; it is looked at when it is. */
    public Beginning ahead(String about, String answer) {
        answeredAhead.put(about.strip(), answer.strip());
        return this;
    }

    /** Answers that were given ahead and never asked for. */
    public Set<String> unasked() {
        return answeredAhead.keySet();
    }

    /** Questions that were answered by what is usual, with the answer. */
    public Map<String, String> taken() {
        return usuals;
    }

    /** The next question that has no answer yet, after those that were answered ahead; {@code null} when all are. */
    public @Nullable Asked next() throws IOException, WrongAnswerException {
        Asked asked = open();
        while (asked != null && answeredAhead.containsKey(asked.about())) {
            answer(asked, Objects.requireNonNull(answeredAhead.remove(asked.about())));
            asked = open();
        }
        return asked;
    }

    /** Takes what is usual for an answer; false when there is nothing usual. */
    public boolean takeUsual(Asked asked) throws IOException, WrongAnswerException {
        if (asked.usual() == null) {
            return false;
        }
        answer(asked, asked.usual());
        usuals.put(asked.about(), asked.usual());
        return true;
    }

    /** Answers a question; throws when it cannot be the answer, and then it is still open. */
    public void answer(Asked asked, String answer) throws IOException, WrongAnswerException {
        String text = answer.strip();
        if (text.isEmpty()) {
            throw new WrongAnswerException("'" + asked.about() + "' needs an answer");
        }
        String about = asked.about().substring(asked.about().indexOf(": ") + 1).strip();
        if (!asked.choices().isEmpty()) {
            for (String one : about.equals(DELIVER) ? text.split("[, ]+") : new String[] {text}) {
                requireAmong(one, asked.choices());
            }
        }
        switch (about) {
            case CURRENCY -> currency(text);
            case CHART -> chart(text);
            case RATES -> Objects.requireNonNull(InvoiceFacts.of(group(asked))).rates(text);
            case TYPES -> chartRows = Objects.requireNonNull(chart).rows(text);
            case "gives" -> group(asked).look(Kinds.ofRecords(text).orElseThrow());
            case "sheet" -> group(asked).look(text);
            default -> {
                // Nothing else can be said of it before the settings are read as a whole.
            }
        }
        answers.put(asked.about(), text);
    }

    private static void requireAmong(String text, List<String> choices) throws WrongAnswerException {
        List<String> words =
                choices.stream().map(c -> c.replaceFirst("\t.*", "")).toList();
        if (!words.contains(text)) {
            String near = Nearest.one(text, words);
            String all = String.join(", ", words.subList(0, Math.min(12, words.size())));
            throw new WrongAnswerException("'" + text + "' is not among " + all
                    + (words.size() > 12 ? " and " + (words.size() - 12) + " more" : "")
                    + (near == null ? "" : "; '" + near + "'?"));
        }
    }

    private void currency(String code) throws IOException, WrongAnswerException {
        Currency currency;
        try {
            currency = Currency.getInstance(code);
        } catch (IllegalArgumentException unknown) {
            throw new WrongAnswerException("'" + code + "' is no currency code of ISO 4217, such as GBP or EUR");
        }
        for (RawFiles group : groups) {
            group.look(currency);
        }
    }

    private void chart(String text) throws IOException, WrongAnswerException {
        if (!text.equals(SMALL)) {
            Path file = Path.of(text);
            if (!Files.isRegularFile(file)) {
                throw new WrongAnswerException("'" + text + "' is no file, and not '" + SMALL + "'");
            }
            takeChart(file);
        }
    }

    private RawFiles group(Asked asked) {
        return groups.stream()
                .filter(g -> asked.about().startsWith(prefix(g)))
                .findFirst()
                .orElseThrow();
    }

    // One form of files needs no names for its questions.
    private String prefix(RawFiles group) {
        return groups.size() == 1 ? "" : group.slug + ": ";
    }

    private @Nullable Asked open() throws IOException {
        Asked ofBooks = books == null ? aboutBooks() : null;
        if (ofBooks != null) {
            return ofBooks;
        }
        for (RawFiles group : groups) {
            Asked asked = about(group);
            if (asked != null) {
                return asked;
            }
        }
        return null;
    }

    private @Nullable Asked aboutBooks() {
        if (!answers.containsKey(COMPANY)) {
            return Asked.of(COMPANY, "What is the company called?");
        }
        if (!answers.containsKey(CURRENCY)) {
            String stated = groups.stream()
                    .map(g -> g.survey.survey().facts())
                    .filter(Facts::currencyStated)
                    .map(facts -> facts.currency().getCurrencyCode())
                    .findFirst()
                    .orElse(null);
            return Asked.of(CURRENCY, "In which currency are its books kept? (such as GBP, EUR, USD)")
                    .usually(stated);
        }
        if (!answers.containsKey(CHART)) {
            return Asked.of(CHART, "A file with its chart of accounts? Or '" + SMALL + "' for the common accounts")
                    .usually(SMALL);
        }
        if (chart != null && chartRows.isEmpty()) {
            return aboutTypes(chart);
        }
        if (chart == null && chartRows.isEmpty()) {
            chartRows = Shelf.resource("books/chart-common.csv").lines().skip(1).toList();
        }
        return null;
    }

    private @Nullable String homeCurrency() {
        return books != null ? books.currency().getCurrencyCode() : answers.get(CURRENCY);
    }

    private @Nullable Asked aboutTypes(ChartExport export) {
        if (export.untyped) {
            return Asked.of(
                    TYPES,
                    "The chart tells no types. Which codes are what? Such as 1000-1999: asset, 2000-2999: liability,"
                            + " 3000-3999: equity, 4000-4999: income, 5000-8999: expense");
        }
        Set<String> unknown = export.unknownTypes();
        if (!unknown.isEmpty()) {
            return Asked.of(
                    TYPES,
                    "What is each of these in the chart: " + String.join(", ", unknown)
                            + "? Write asset, liability, equity, income or expense behind a colon: "
                            + unknown.iterator().next() + ": expense, ...");
        }
        try {
            chartRows = export.rows("");
            return null;
        } catch (WrongAnswerException allWordsAreKnown) {
            throw new IllegalStateException(allWordsAreKnown);
        }
    }

    private @Nullable Asked about(RawFiles group) throws IOException {
        String prefix = prefix(group);
        String name = group.files.get(0).getFileName().toString();
        FileSurvey.Likeness likeness = group.likeness;
        if (likeness != null && !answers.containsKey(prefix + SAME)) {
            return Asked.of(
                            prefix + SAME,
                            name + ": is it a later file of what "
                                    + Objects.requireNonNull(group.like).getFileName()
                                    + " was made for"
                                    + (likeness.mended().isEmpty() ? "?" : ", with its columns changed as told above?"))
                    .choosing(List.of("yes", "no"))
                    .showing(
                            likeness.mended().isEmpty()
                                    ? List.of()
                                    : likeness.text().lines().toList());
        }
        if (isSame(group)) {
            return null;
        }
        for (Survey.Question question : group.survey.survey().questions()) {
            if (!answers.containsKey(prefix + question.about())
                    && !question.about().equals("accounts")) {
                return ofSurvey(group, question, prefix, name);
            }
        }
        for (FanOut.Amount line : group.survey.survey().fanOut()) {
            String about = prefix + Survey.accountOf(line);
            if (!answers.containsKey(about)) {
                List<String> codes = new ArrayList<>(accounts(false));
                codes.add(Survey.NOT_POSTED + "\tnot posted");
                return Asked.of(about, name + ": which account is a " + line.side() + " of '" + line.column() + "'?")
                        .choosing(codes);
            }
        }
        for (String number : group.survey.accountNumbers()) {
            boolean byNumber = group.survey.survey().question(ACCOUNT) == null;
            if (byNumber && !isKnown(number) && !answers.containsKey(prefix + ACCOUNT + " " + number)) {
                return Asked.of(prefix + ACCOUNT + " " + number, name + ": which account is the bank's " + number + "?")
                        .choosing(accounts(true));
            }
        }
        Asked ofTax = aboutTax(group, prefix, name);
        if (ofTax != null) {
            return ofTax;
        }
        Kind gives = group.gives();
        if (gives == null) {
            throw new IOException(name + ": what its rows are could not be found out; see: mivrel survey " + name);
        }
        if (!group.survey.survey().hasAmounts()) {
            throw new IOException(name + ": no column of amounts was found; see: mivrel survey " + name
                    + ", and --currency where its amounts have other decimals than two");
        }
        if (!answers.containsKey(prefix + DELIVER)) {
            return deliveries(group, gives);
        }
        if (gives.isOfAccount() && isCoded(group) && !answers.containsKey(prefix + UNCODED)) {
            List<String> choices = new ArrayList<>(List.of(HOLD + "\tuntil the coding table decides"));
            choices.addAll(accounts(false));
            return Asked.of(
                            prefix + UNCODED,
                            "What becomes of lines that no entry of the coding table decides? '" + HOLD
                                    + "', or a suspense account")
                    .choosing(choices)
                    .usually(HOLD);
        }
        return null;
    }

    // What the tax codes of invoices are, where neither the books nor the figures tell.
    private @Nullable Asked aboutTax(RawFiles group, String prefix, String name) throws IOException {
        InvoiceFacts facts = InvoiceFacts.of(group);
        if (facts == null || books != null) {
            return null;
        }
        if (!facts.unknownRates().isEmpty() && !answers.containsKey(prefix + RATES)) {
            return Asked.of(
                    prefix + RATES,
                    name + ": how many per cent is each of these tax codes: "
                            + String.join(", ", facts.unknownRates()) + "? Write "
                            + facts.unknownRates().iterator().next() + ": 20, ...");
        }
        boolean taxed = !facts.taxCodes().isEmpty() && taxAccount() == null;
        return taxed && !answers.containsKey(TAX_ACCOUNT)
                ? Asked.of(TAX_ACCOUNT, "To which account is tax on sales and purchases posted?")
                        .choosing(accounts(false))
                : null;
    }

    // The one of the chart that is there for tax, or the one that was named.
    @Nullable
    String taxAccount() {
        return chartRows.stream()
                .map(CompanyFiles::cells)
                .filter(c -> c.get(3).equals("tax"))
                .map(c -> c.get(0))
                .findFirst()
                .orElse(answers.get(TAX_ACCOUNT));
    }

    /** True for a later file of a form that the folder knows. */
    boolean isSame(RawFiles group) {
        return "yes".equals(answers.get(prefix(group) + SAME));
    }

    private Asked ofSurvey(RawFiles group, Survey.Question question, String prefix, String name) throws IOException {
        String about = prefix + question.about();
        Asked asked = Asked.of(about, name + ": " + question.words());
        return switch (question.about()) {
            case ACCOUNT -> {
                List<String> money = accounts(true);
                Set<String> numbers = group.survey.accountNumbers();
                String known = numbers.size() == 1 ? codeOf(numbers.iterator().next()) : null;
                yield Asked.of(about, name + ": which account of the chart is this one?")
                        .choosing(accounts(false))
                        .showing((money.isEmpty() ? likely() : money)
                                .stream().map(m -> m.replace("\t", "  ")).toList())
                        .usually(known);
            }
            case "gives" -> asked.choosing(Kinds.ALL.stream().map(Kind::name).toList());
            case "signs" -> asked.choosing(List.of("as written", "reversed"));
            case "credits" -> asked.choosing(List.of("positive", "negative"));
            case "encoding" -> asked.usually(group.survey.survey().facts().encoding());
            case "sheet" ->
                asked.choosing(group.survey.survey().facts().parts())
                        .usually(group.survey.survey().facts().part());
            default -> asked;
        };
    }

    // With what they are called; those for money alone, or all.
    private List<String> accounts(boolean money) {
        if (books != null) {
            return books.accounts().stream()
                    .filter(a -> !money || a.holdsMoney())
                    .map(a -> a.code() + "\t" + a.name())
                    .toList();
        }
        return chartRows.stream()
                .map(CompanyFiles::cells)
                .filter(c -> !money || c.get(3).equals("bank") || c.get(3).equals("card"))
                .map(c -> c.get(0) + "\t" + c.get(1))
                .toList();
    }

    // Accounts whose names sound like money in a bank or on a card: to choose from, never taken without asking.
    private List<String> likely() {
        Stream<String> held = books != null
                ? books.accounts().stream()
                        .filter(a -> a.type() == AccountType.ASSET || a.type() == AccountType.LIABILITY)
                        .map(a -> a.code() + "\t" + a.name())
                : chartRows.stream()
                        .map(CompanyFiles::cells)
                        .filter(c -> c.get(2).equals("asset") || c.get(2).equals("liability"))
                        .map(c -> c.get(0) + "\t" + c.get(1));
        return held.filter(a -> MONEY.matcher(a).find()).limit(MOST_LIKELY).toList();
    }

    /** An account that anything may be posted to; for trials. */
    String anyAccount() {
        if (books != null) {
            return books.accounts().stream()
                    .filter(a -> a.type() == AccountType.EXPENSE && a.status() == AccountStatus.OPEN)
                    .map(Account::code)
                    .findFirst()
                    .orElse(books.accountCodes().iterator().next());
        }
        return chartRows.stream()
                .map(CompanyFiles::cells)
                .filter(c -> c.get(2).equals("expense") && c.get(4).isEmpty())
                .findFirst()
                .orElse(CompanyFiles.cells(chartRows.get(0)))
                .get(0);
    }

    private boolean isKnown(String number) {
        return codeOf(number) != null;
    }

    private @Nullable String codeOf(String number) {
        return books == null
                ? null
                : books.accounts().stream()
                        .filter(a -> a.holdsMoney() && a.hasNumber(number, null))
                        .map(Account::code)
                        .findFirst()
                        .orElse(null);
    }

    private boolean isCoded(RawFiles group) {
        return shapes(group).stream().anyMatch(s -> s.takes().equals("journals"));
    }

    private List<Shelf.Shape> shapes(RawFiles group) {
        return Arrays.stream(Objects.requireNonNull(answers.get(prefix(group) + DELIVER))
                        .split("[, ]+"))
                .map(name -> Shelf.shape(name).orElseThrow())
                .toList();
    }

    private Asked deliveries(RawFiles group, Kind gives) {
        List<String> choices = new ArrayList<>();
        List<String> samples = new ArrayList<>();
        for (Shelf.Shape shape : Shelf.shapes()) {
            // Without rates, foreign amounts are no journals in the currency of the books.
            boolean journals = shape.takes().equals("journals") && group.foreign(homeCurrency()) == null;
            boolean fits = shape.takes().equals(gives.documents()) || journals;
            if (fits) {
                choices.add(shape.name() + "\t" + shape.about());
                samples.add(shape.name() + "   " + shape.about());
                sample(group, shape).forEach(line -> samples.add("    " + line));
            }
        }
        return Asked.of(
                        prefix(group) + DELIVER,
                        group.files.get(0).getFileName() + ": as what is it delivered? (one name, or several)")
                .choosing(choices)
                .showing(samples)
                .usually(choices.get(0).replaceFirst("\t.*", ""));
    }

    // The first rows of the user's own data in this shape; empty when there are none yet.
    private List<String> sample(RawFiles group, Shelf.Shape shape) {
        Path trial = null;
        try {
            trial = Files.createTempDirectory("mivrel-sample");
            CompanyFiles files = new CompanyFiles();
            Map<String, String> tried = new LinkedHashMap<>(answers);
            tried.put(prefix(group) + DELIVER, shape.name());
            tried.put(prefix(group) + UNCODED, anyAccount());
            new CompanyWriter(this, tried, files).trial(group);
            files.writeTo(trial);
            Outcome outcome = Mivrel.open(trial.resolve(group.slug + ".yaml"))
                    .first(SAMPLE_ROWS)
                    .run();
            List<String> lines = new ArrayList<>();
            for (var delivered : outcome.report().deliveries()) {
                for (var file : delivered.files()) {
                    Files.readAllLines(Path.of(file.name())).stream()
                            .limit(SAMPLE_ROWS + 1L)
                            .forEach(lines::add);
                }
            }
            return lines;
        } catch (IOException | SettingsException | RuntimeException noSample) {
            return List.of();
        } finally {
            CompanyFiles.delete(trial);
        }
    }

    /** Writes everything; only when no question is open. */
    public Written write() throws IOException, SettingsException, WrongAnswerException {
        Asked open = next();
        if (open != null) {
            throw new WrongAnswerException("'" + open.about() + "' is not answered: " + open.words());
        }
        CompanyFiles files = new CompanyFiles();
        CompanyWriter writer = new CompanyWriter(this, answers, files);
        writer.all();
        List<Path> written = files.writeTo(folder);
        List<Path> sheets = new ArrayList<>();
        for (RawFiles group : groups) {
            sheets.addAll(isSame(group) ? sheetsOf(group) : List.of(folder.resolve(group.slug + ".yaml")));
        }
        return new Written(written, sheets, writer.told());
    }

    // The run sheets that name the layout.
    private List<Path> sheetsOf(RawFiles group) throws IOException {
        String layout = "layouts/" + Objects.requireNonNull(group.like).getFileName();
        List<Path> found = new ArrayList<>();
        try (Stream<Path> inside = Files.list(folder)) {
            for (Path file :
                    inside.filter(f -> f.toString().endsWith(".yaml")).sorted().toList()) {
                if (Files.readString(file).contains(layout)) {
                    found.add(file);
                }
            }
        }
        return found;
    }

    Path folder() {
        return folder;
    }

    List<RawFiles> groups() {
        return groups;
    }

    @Nullable
    Books books() {
        return books;
    }

    List<String> chartRows() {
        return chartRows;
    }

    String chartName() {
        return chartName;
    }

    @Nullable
    ChartExport chart() {
        return chart;
    }

    String prefixOf(RawFiles group) {
        return prefix(group);
    }

    List<Shelf.Shape> shapesOf(RawFiles group) {
        return shapes(group);
    }
}
