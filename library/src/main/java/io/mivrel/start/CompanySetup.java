package io.mivrel.start;

import io.mivrel.Company;
import io.mivrel.FileSurvey;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Kind;
import io.mivrel.survey.Answers;
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
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The beginning of a company folder: takes raw files, asks only what they do not tell, and writes settings that work: books,
 * layouts, a coding table, deliveries and run sheets. A folder that is there already gets what is new; nothing is
 * overwritten. For one thread.
 *
 * <pre>{@code
 * CompanySetup beginning = new CompanySetup(Path.of("foundry")).take(Path.of("download-2027-03.csv"));
 * for (StartQuestion asked = beginning.next(); asked != null; asked = beginning.next()) {
 *     beginning.answer(asked.about(), ask(asked));
 * }
 * CompanySetup.Written written = beginning.write();
 * }</pre>
 */
public final class CompanySetup {
    /** The answer that asks for the small chart that ships. */
    public static final String SMALL = "small";

    private final Path folder;
    private final List<RawFiles> groups = new ArrayList<>();
    private final Map<String, String> answers = new LinkedHashMap<>();
    private final Map<String, String> answeredAhead = new LinkedHashMap<>();
    private final Map<String, String> usuals = new LinkedHashMap<>();
    private final StartBooks books;
    private final FileQuestions ofFiles;
    private final List<String> aside = new ArrayList<>();
    private @Nullable DeliveryFromTemplate template;
    /** The run sheets that it may be for, where there are no raw files; {@code null} until they are asked for. */
    private @Nullable TemplateSheets sheets;
    /** What the template asked last. */
    private @Nullable StartQuestion ofTemplate;

    /** Begins a folder, or goes on with one whose books are read; throws with what is wrong in them. */
    public CompanySetup(Path folder) throws SettingsException {
        this.folder = folder;
        Path there = folder.resolve("books");
        this.books =
                new StartBooks(Files.exists(there.resolve("books.yaml")) ? BooksFolder.read(there) : null, answers);
        this.ofFiles = new FileQuestions(this, books, answers);
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
    public CompanySetup take(Path file) throws IOException {
        FileSurvey survey = FileSurvey.of(file);
        ChartExport found = isNoMovements(survey) ? ChartExport.of(survey) : null;
        if (found != null && (books.there() != null || books.chart() != null)) {
            aside.add(file.getFileName() + ": a chart, not read: the books have one already");
            return this;
        }
        if (found != null) {
            books.use(file, found);
            return this;
        }
        for (RawFiles group : groups) {
            if (group.survey.form().equals(survey.form())) {
                group.files.add(file);
                return this;
            }
        }
        RawFiles fresh = new RawFiles(file, survey);
        if (books.there() != null) {
            fresh.look(books.there().currency());
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
        if (books.there() == null || !Files.isDirectory(layouts)) {
            return;
        }
        List<Path> all;
        try (Stream<Path> inside = Files.list(layouts)) {
            all = inside.filter(l -> l.toString().endsWith(".yaml")).sorted().toList();
        }
        for (Path layout : all) {
            try {
                FileSurvey.LayoutMatch likeness = fresh.survey.like(layout, 0);
                boolean mends = fresh.likeness == null && likeness.onlyTitles();
                if (likeness.isKind() && (likeness.isLike() || mends)) {
                    fresh.like = layout;
                    fresh.likeness = likeness;
                }
            } catch (SettingsException toldWhenItIsRun) {
                // A layout that is wrong fits nothing.
            }
        }
        if (fresh.like == null) {
            changed(fresh);
        }
    }

    // One that is called like the files of a run sheet, whose layouts do not read it: its form may have changed.
    private void changed(RawFiles fresh) throws IOException {
        String name = String.valueOf(fresh.files.get(0).getFileName());
        for (Path sheet : Company.in(folder).runSheets()) {
            try {
                for (RunSheet.Entry entry : RunSheet.read(sheet, null, true).intake()) {
                    Path layout = folder.resolve(entry.layoutFile());
                    boolean same = RunSheet.matches(name, entry.names())
                            && entry.layout().gives() == fresh.gives()
                            && Files.isRegularFile(layout);
                    if (same && fresh.like == null) {
                        fresh.like = layout;
                        fresh.isChanged = true;
                        fresh.account = entry.layout().account();
                        boolean signed = entry.layout()
                                .fields()
                                .containsKey(entry.layout().gives().amount());
                        fresh.signs = signed ? entry.layout().signs().word() : null;
                    }
                }
            } catch (SettingsException toldWhenItIsRun) {
                // A run sheet that is wrong says nothing.
            }
        }
    }

    private static boolean isNoMovements(FileSurvey survey) {
        return survey.survey().pattern() == null
                && !survey.survey().facts().kind().isStatement();
    }

    /** Takes a chart that another program exported. */
    public CompanySetup takeChart(Path file) throws IOException, WrongAnswerException {
        books.use(file);
        return this;
    }

    /** Takes a receiver's template, or a file that it took before: the documents are delivered in its form. */
    public CompanySetup takeTemplate(Path file) throws IOException {
        template = DeliveryFromTemplate.of(file);
        return this;
    }

    /** The template that was taken; {@code null} for none. */
    @Nullable
    DeliveryFromTemplate template() {
        return template;
    }

    /** The next question of the template about documents of some kinds; {@code null} when it has none. */
    @Nullable
    StartQuestion openOfTemplate() {
        ofTemplate = Objects.requireNonNull(template).next();
        return ofTemplate;
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
        if (template != null) {
            lines.addAll(template.reading());
        }
        if (books.chart() != null) {
            lines.add(
                    books.chartName() + ": a chart of " + books.chart().entries.size() + " accounts");
        }
        return lines;
    }

    /** Gives an answer before it is asked for; it is looked at when it is. */
    public CompanySetup ahead(String about, String answer) {
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

    // What a person says of how a file is read counts, whether the survey would ask it or not.
    private void readAsSaid() throws IOException, WrongAnswerException {
        for (RawFiles group : groups) {
            for (String about : Answers.readBy()) {
                String key = prefixOf(group) + about;
                boolean open = group.survey.survey().question(about) != null;
                if (answeredAhead.containsKey(key) && !open && !about.equals(StartBooks.CURRENCY)) {
                    answer(StartQuestion.of(key, ""), Objects.requireNonNull(answeredAhead.remove(key)));
                }
            }
        }
    }

    /** The next question that has no answer yet, after those that were answered ahead; {@code null} when all are. */
    public @Nullable StartQuestion next() throws IOException, WrongAnswerException {
        readAsSaid();
        StartQuestion asked = open();
        while (asked != null && answeredAhead.containsKey(asked.about())) {
            answer(asked, Objects.requireNonNull(answeredAhead.remove(asked.about())));
            asked = open();
        }
        return asked;
    }

    /** Takes what is usual for an answer; false when there is nothing usual. */
    public boolean takeUsual(StartQuestion asked) throws IOException, WrongAnswerException {
        if (asked.usual() == null) {
            return false;
        }
        answer(asked, asked.usual());
        usuals.put(asked.about(), asked.usual());
        return true;
    }

    /** Answers a question; throws when it cannot be the answer, and then it is still open. */
    public void answer(StartQuestion asked, String answer) throws IOException, WrongAnswerException {
        String text = answer.strip();
        if (text.isEmpty()) {
            throw new WrongAnswerException("'" + asked.about() + "' needs an answer");
        }
        if (template != null && ofTemplate != null && asked.about().equals(ofTemplate.about())) {
            template.answer(asked, text);
            return;
        }
        String about = asked.about().substring(asked.about().indexOf(": ") + 1).strip();
        if (!asked.choices().isEmpty()) {
            for (String one : about.equals(FileQuestions.DELIVER) ? text.split("[, ]+") : new String[] {text}) {
                requireAmong(one, asked.choices());
            }
        }
        switch (about) {
            case StartBooks.CURRENCY -> currency(text);
            case StartBooks.CHART -> books.chart(text);
            case FileQuestions.RATES ->
                Objects.requireNonNull(InvoiceFacts.of(group(asked))).rates(text);
            case StartBooks.TYPES -> books.types(text);
            default -> {
                if (Answers.readBy().contains(about)) {
                    if (about.equals("gives") && Kinds.ofRecords(text).isEmpty()) {
                        requireAmong(text, Kinds.ALL.stream().map(Kind::name).toList());
                    }
                    group(asked).look(about, text);
                }
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
            throw new WrongAnswerException("'" + code + "' is not a currency code of ISO 4217, such as GBP or EUR");
        }
        for (RawFiles group : groups) {
            group.look(currency);
        }
    }

    private RawFiles group(StartQuestion asked) {
        return groups.stream()
                .filter(g -> asked.about().startsWith(prefixOf(g)))
                .findFirst()
                .orElseThrow();
    }

    /** What stands before the questions about files of a form; one form alone needs no names. */
    String prefixOf(RawFiles group) {
        return groups.size() == 1 ? "" : group.slug + ": ";
    }

    private @Nullable StartQuestion open() throws IOException {
        StartQuestion ofBooks = books.open(groups);
        if (ofBooks != null) {
            return ofBooks;
        }
        for (RawFiles group : groups) {
            StartQuestion asked = ofFiles.open(group);
            if (asked != null) {
                return asked;
            }
        }
        return template != null && groups.isEmpty() ? openOfSheets() : null;
    }

    // A template for documents that the folder's run sheets deliver already.
    private @Nullable StartQuestion openOfSheets() throws IOException {
        if (sheets == null) {
            sheets = TemplateSheets.of(folder, Objects.requireNonNull(template));
        }
        StartQuestion asked = sheets.open(answers.get(TemplateSheets.SHEET));
        return asked != null ? asked : openOfTemplate();
    }

    /** Writes everything; only when no question is open. */
    public Written write() throws IOException, SettingsException, WrongAnswerException {
        StartQuestion open = next();
        if (open != null) {
            throw new WrongAnswerException("'" + open.about() + "' is not answered: " + open.words());
        }
        CompanyFiles files = new CompanyFiles();
        CompanyWriter writer = new CompanyWriter(this, answers, files);
        writer.all();
        if (sheets != null) {
            writer.told().addAll(sheets.write(Objects.requireNonNull(template).shape(), files));
        }
        List<Path> written = files.writeTo(folder);
        List<Path> toRun = new ArrayList<>();
        if (sheets != null) {
            toRun.add(sheets.chosen());
        }
        for (RawFiles group : groups) {
            toRun.addAll(isSame(group) ? sheetsOf(group) : List.of(folder.resolve(group.slug + ".yaml")));
        }
        return new Written(written, toRun, writer.told());
    }

    // The run sheets that name the layout.
    List<Path> sheetsOf(RawFiles group) throws IOException {
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

    /** True for a later file of a form that the folder knows. */
    boolean isSame(RawFiles group) {
        return "yes".equals(answers.get(prefixOf(group) + FileQuestions.SAME));
    }

    /** As what the documents of files of a form are delivered. */
    List<Shelf.Shape> shapesOf(RawFiles group) {
        return Arrays.stream(Objects.requireNonNull(answers.get(prefixOf(group) + FileQuestions.DELIVER))
                        .split("[, ]+"))
                .map(name -> template != null && name.equals(template.name())
                        ? template.shape()
                        : Shelf.shape(name).orElseThrow())
                .toList();
    }

    Path folder() {
        return folder;
    }

    List<RawFiles> groups() {
        return groups;
    }

    StartBooks books() {
        return books;
    }
}
