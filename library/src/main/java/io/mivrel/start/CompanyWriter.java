package io.mivrel.start;

import static io.mivrel.files.settings.Quoted.quoted;

import io.mivrel.FileSurvey;
import io.mivrel.Mivrel;
import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsSchema;
import io.mivrel.model.FieldType;
import io.mivrel.run.UncodedGroups;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Writes the settings of a company by the answers that were given. */
final class CompanyWriter {
    private final CompanySetup begun;
    private final Map<String, String> answers;
    private final CompanyFiles files;
    private final List<String> told = new ArrayList<>();

    CompanyWriter(CompanySetup begun, Map<String, String> answers, CompanyFiles files) {
        this.begun = begun;
        this.answers = answers;
        this.files = files;
    }

    /** What is worth a look. */
    List<String> told() {
        return told;
    }

    /** Everything of every form of files. */
    void all() throws IOException, SettingsException {
        if (begun.books().there() == null) {
            books();
            SettingsSchema.all().forEach((name, text) -> files.put(SettingsSchema.FOLDER + "/" + name, text));
        } else {
            currencies();
        }
        for (RawFiles group : begun.groups()) {
            if (begun.isSame(group)) {
                another(group);
            } else {
                group(group);
            }
        }
    }

    // A later file of a form that is known, perhaps with other titles.
    private void another(RawFiles group) throws IOException {
        List<String> named = intake(group, "");
        if (group.isChanged) {
            beside(group, named.get(0));
            return;
        }
        Path layout = Objects.requireNonNull(group.like);
        FileSurvey.LayoutMatch likeness = Objects.requireNonNull(group.likeness);
        if (!likeness.mended().isEmpty()) {
            files.mend("layouts/" + layout.getFileName(), likeness.mended());
            told.add("layouts/" + layout.getFileName() + " reads both forms now; as it was: layouts/earlier");
        }
    }

    // A layout beside the one that reads the earlier form, named beside it in each run sheet.
    private void beside(RawFiles group, String named) throws IOException {
        layout(group);
        String old = "layouts/" + Objects.requireNonNull(group.like).getFileName();
        String fresh = "layouts/" + group.slug + ".yaml";
        for (Path sheet : begun.sheetsOf(group)) {
            List<String> lines = new ArrayList<>();
            for (String line : Files.readAllLines(sheet)) {
                // One layout, or a list of some.
                lines.add(line.replaceFirst(
                        "layout: *\\[?([^\\]}]*" + Pattern.quote(old) + "[^\\]}]*)]?",
                        Matcher.quoteReplacement("layout: [") + "$1, " + Matcher.quoteReplacement(fresh + "]")));
            }
            files.mend(String.valueOf(sheet.getFileName()), String.join("\n", lines) + "\n");
            told.add(sheet.getFileName()
                    + " reads both forms now, each file by the layout that reads it; as it was: earlier/"
                    + sheet.getFileName());
        }
        if (begun.sheetsOf(group).isEmpty()) {
            told.add("name it in a run sheet: {files: " + quoted(named) + ", layout: " + fresh + "}");
        }
    }

    /** Only what a trial of one form of files needs. */
    void trial(RawFiles group) throws IOException, SettingsException {
        books();
        layout(group);
        Shelf.Shape shape =
                Shelf.shape(Objects.requireNonNull(answer(group, "deliver"))).orElseThrow();
        files.put("deliveries/" + shape.name() + ".yaml", shape.text());
        files.put(
                group.slug + ".yaml",
                "run: Sample\nbooks: books\nintake: [{files: "
                        + quoted(group.files.get(0).toAbsolutePath().toString())
                        + ", layout: layouts/" + group.slug + ".yaml}]\n"
                        + (shape.takes().equals("journals") && isOfAccount(group)
                                ? "coding: {table: coding.csv, uncoded: "
                                        + quoted(Objects.requireNonNull(answer(group, "uncoded"))) + "}\n"
                                : "")
                        + "deliver: [{as: deliveries/" + shape.name() + ".yaml, to: out}]\n");
        files.put("coding.csv", CODING_TITLES);
    }

    private static final String CODING_TITLES = "entry,direction,words,from,to,account,tax code,party,narrative\n";

    private @Nullable String answer(RawFiles group, String about) {
        return answers.get(begun.prefixOf(group) + about);
    }

    private static boolean isOfAccount(RawFiles group) {
        return group.gives() != null && group.gives().isOfAccount();
    }

    private void books() throws IOException {
        Books there = begun.books().there();
        if (there != null) {
            copyBooks();
            return;
        }
        files.put(
                "books/books.yaml",
                SettingsSchema.line("books", 1)
                        + "# The company, and the currency that its books are kept in (ISO 4217).\nbooks: "
                        + quoted(Objects.requireNonNull(answers.get("company"))) + "\ncurrency: "
                        + answers.get("currency") + "\n");
        StringBuilder chart = new StringBuilder("code,name,type,use,status,tax code,number,currency\n");
        Map<String, String> numbers = new LinkedHashMap<>();
        Map<String, String> uses = new LinkedHashMap<>();
        for (RawFiles group : begun.groups()) {
            bankAccounts(group, numbers, uses);
        }
        Map<String, String> foreign = foreign();
        String tax = answers.get("tax account");
        for (String line : begun.books().chartRows()) {
            List<String> cells = new ArrayList<>(CompanyFiles.cells(line));
            String code = cells.get(0);
            if (foreign.containsKey(code)) {
                cells.set(7, foreign.get(code));
            }
            if (uses.containsKey(code)) {
                boolean card = cells.get(2).equals("liability");
                cells.set(3, card ? "card" : "bank");
                cells.set(6, numbers.getOrDefault(code, cells.get(6)));
            } else if (code.equals(tax)) {
                cells.set(3, "tax");
            }
            chart.append(CompanyFiles.csv(cells.toArray(String[]::new))).append('\n');
        }
        files.put("books/chart.csv", chart.toString());
        String parties = Shelf.resource("books/parties-blank.csv");
        String taxCodes = Shelf.resource("books/tax-codes-blank.csv");
        for (RawFiles group : begun.groups()) {
            InvoiceFacts facts = InvoiceFacts.of(group);
            if (facts != null) {
                taxCodes = facts.taxCodesFile(begun.books().taxAccount());
                parties = facts.partiesFile(kinds(group));
                told.add("from " + group.files.get(0).getFileName() + ": " + facts.partyCount()
                        + " customers and suppliers in books/parties.csv, "
                        + facts.taxCodes().size()
                        + " tax codes in books/tax-codes.csv; read them");
            }
        }
        files.put("books/parties.csv", parties);
        files.put("books/tax-codes.csv", taxCodes);
        files.put("books/periods.csv", Shelf.resource("books/periods-blank.csv"));
        ChartExport export = begun.books().chart();
        if (export != null) {
            told.add("from " + begun.books().chartName() + ": " + export.entries.size() + " accounts in books/chart.csv"
                    + (export.leftOut == 0 ? "" : "; " + export.leftOut + " rows that are not accounts were left out"));
        }
    }

    // A trial needs books to read, and those that are there must not be touched.
    private void copyBooks() throws IOException {
        for (String name : List.of("books.yaml", "chart.csv", "tax-codes.csv", "parties.csv", "periods.csv")) {
            Path file = begun.folder().resolve("books").resolve(name);
            if (Files.exists(file)) {
                files.put("books/" + name, Files.readAllBytes(file));
            }
        }
    }

    private Map<String, String> kinds(RawFiles group) {
        Map<String, String> kinds = new LinkedHashMap<>();
        String said = answer(group, "kind");
        for (String pair :
                said == null ? new String[0] : said.replaceAll("[{}]", "").split(",")) {
            String[] parts = pair.split(":", 2);
            kinds.put(parts[0].strip(), parts.length < 2 ? "" : parts[1].strip());
        }
        return kinds;
    }

    // Accounts that are kept in another currency than the books, as their files say.
    private Map<String, String> foreign() {
        Map<String, String> foreign = new LinkedHashMap<>();
        for (RawFiles group : begun.groups()) {
            String currency = group.foreign(begun.books().currency());
            String code = answer(group, "account");
            if (currency != null && code != null && !currency.equals(foreign.put(code, currency))) {
                told.add(group.files.get(0).getFileName() + ": the account " + code + " is kept in " + currency
                        + ", says the file; so it stands in books/chart.csv");
            }
        }
        return foreign;
    }

    // The same in books that exist, where the account has no currency yet; the chart as it was is kept.
    private void currencies() throws IOException {
        Map<String, String> foreign = new LinkedHashMap<>();
        for (RawFiles group : begun.groups()) {
            String currency = group.foreign(begun.books().currency());
            String code = answer(group, "account");
            Account account = code == null
                    ? null
                    : Objects.requireNonNull(begun.books().there()).account(code);
            if (currency != null && account != null && account.currency() == null) {
                foreign.put(account.code(), currency);
            }
        }
        if (foreign.isEmpty()) {
            return;
        }
        String chart = Files.readString(begun.folder().resolve("books/chart.csv"));
        List<List<String>> rows = new ArrayList<>();
        chart.lines().forEach(line -> rows.add(new ArrayList<>(CompanyFiles.cells(line))));
        int code = rows.get(0).indexOf("code");
        foreign.forEach((account, currency) -> {
            List<List<String>> own = rows.stream()
                    .filter(row ->
                            code >= 0 && row.size() > code && row.get(code).equals(account))
                    .toList();
            if (own.size() == 1 && isWritable(chart, rows)) {
                put(rows, own.get(0), currency);
                told.add("the account " + account + " is kept in " + currency
                        + ", says the file; so it stands in books/chart.csv now; as it was: books/earlier");
                StringBuilder text = new StringBuilder();
                rows.forEach(row -> text.append(CompanyFiles.csv(row.toArray(String[]::new)))
                        .append('\n'));
                files.mend("books/chart.csv", text.toString());
            } else {
                told.add("the account " + account + " is kept in " + currency
                        + ", says the file; write that under 'currency' in books/chart.csv");
            }
        });
    }

    // Only a chart that comes out as it was, but for its marks of quotation, is written anew.
    private static boolean isWritable(String chart, List<List<String>> rows) {
        return chart.chars().filter(c -> c == '"').count() % 2 == 0
                && chart.lines()
                        .allMatch(line -> line.chars().filter(c -> c == '"').count() % 2 == 0)
                && rows.stream().allMatch(row -> row.size() <= rows.get(0).size());
    }

    private static void put(List<List<String>> rows, List<String> own, String currency) {
        if (!rows.get(0).contains("currency")) {
            rows.get(0).add("currency");
        }
        int place = rows.get(0).indexOf("currency");
        while (own.size() <= place) {
            own.add("");
        }
        own.set(place, currency);
    }

    private void bankAccounts(RawFiles group, Map<String, String> numbers, Map<String, String> uses)
            throws IOException {
        for (String number : group.survey.accountNumbers()) {
            String one = answer(group, "account");
            String code = one == null ? answer(group, "account " + number) : one;
            if (code != null) {
                numbers.merge(code, number, (a, b) -> a + "|" + b);
            }
        }
        for (Map.Entry<String, String> answer : answers.entrySet()) {
            String about = answer.getKey().replaceFirst("^.*: ", "");
            if (about.equals("account") || about.startsWith("account ") && !about.startsWith("account of ")) {
                uses.put(answer.getValue(), "bank");
            }
        }
    }

    private void layout(RawFiles group) {
        String prefix = begun.prefixOf(group);
        Map<String, String> own = new LinkedHashMap<>();
        answers.forEach((about, answer) -> {
            if (about.startsWith(prefix)) {
                own.put(about.substring(prefix.length()), answer);
            }
        });
        // Next month the file is called otherwise.
        String text = group.survey
                .layout(own)
                .replaceFirst("(?m)^layout: .*$", Matcher.quoteReplacement("layout: " + quoted(name(group))));
        files.put("layouts/" + group.slug + ".yaml", SettingsSchema.line("layout", 1) + text);
    }

    private void group(RawFiles group) throws IOException, SettingsException {
        layout(group);
        List<Shelf.Shape> shapes = begun.shapesOf(group);
        for (Shelf.Shape shape : shapes) {
            String name = "deliveries/" + shape.name() + ".yaml";
            if (!Files.exists(begun.folder().resolve(name))) {
                files.put(name, SettingsSchema.line("delivery", 1) + shape.text());
            }
        }
        List<Path> every =
                begun.groups().stream().flatMap(g -> g.files.stream()).toList();
        List<String> intake = intake(group, group.pattern(every));
        StringBuilder sheet = new StringBuilder(SettingsSchema.line("run-sheet", 0));
        String first = intake.get(0);
        String where = first.contains("/") ? first.substring(0, first.lastIndexOf('/')) : "this folder";
        sheet.append("# Each month: put the file into ")
                .append(where)
                .append(", then\n#   mivrel run ")
                .append(group.slug)
                .append(".yaml --for ")
                .append(month(group))
                .append("\nrun: ")
                .append(quoted(title(group)))
                .append("\nbooks: books\nintake:\n");
        intake.forEach(files -> sheet.append("  - {files: ")
                .append(quoted(files))
                .append(", layout: layouts/")
                .append(group.slug)
                .append(".yaml}\n"));
        sheet.append("dates: month                # --for says which; without it, the month that the files are of\n");
        boolean coded =
                isOfAccount(group) && shapes.stream().anyMatch(s -> s.takes().equals("journals"));
        if (coded) {
            sheet.append("coding: {table: coding/")
                    .append(group.slug)
                    .append(".csv, uncoded: ")
                    .append(quoted(Objects.requireNonNull(answer(group, "uncoded"))))
                    .append("}     # or: hold, or the code of a suspense account\n");
            files.put("coding/" + group.slug + ".csv", coding(group));
        }
        sheet.append("deliver:\n");
        shapes.forEach(shape ->
                sheet.append("  - {as: deliveries/").append(shape.name()).append(".yaml, to: out}\n"));
        sheet.append("when blocked: hold documents        # or: hold everything\n");
        files.put(group.slug + ".yaml", sheet.toString());
    }

    // The latest month of its dates; of a file that has none in columns the present one.
    private static YearMonth month(RawFiles group) {
        return group.survey.survey().columns().stream()
                .filter(column ->
                        column.type() == FieldType.DATE && !column.patterns().isEmpty())
                .map(column -> column.days(column.patterns().get(0)))
                .filter(Objects::nonNull)
                .findFirst()
                .map(days -> YearMonth.from(LocalDate.ofEpochDay(days[1])))
                .orElseGet(YearMonth::now);
    }

    private static String title(RawFiles group) {
        return name(group) + " " + RunSheet.MONTH;
    }

    private static String name(RawFiles group) {
        String words = group.slug.replace('-', ' ');
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }

    // Files that lie elsewhere are copied into the inbox, and stay where they are.
    private List<String> intake(RawFiles group, String pattern) throws IOException {
        Path home = begun.folder().toAbsolutePath().normalize();
        List<String> named = new ArrayList<>();
        for (Path file : group.files) {
            Path whole = file.toAbsolutePath().normalize();
            boolean inside = whole.startsWith(home);
            String in = inside
                    ? home.relativize(Objects.requireNonNull(whole.getParent()))
                            .toString()
                            .replace('\\', '/')
                    : "inbox";
            Path there = home.resolve("inbox").resolve(file.getFileName());
            boolean sameBytes = !"no".equals(answer(group, FileQuestions.SAME))
                    && Files.isRegularFile(there)
                    && Files.mismatch(file, there) < 0;
            if (!inside && !sameBytes) {
                files.put("inbox/" + file.getFileName(), Files.readAllBytes(file));
            }
            String name = pattern.isEmpty() ? file.getFileName().toString() : pattern;
            String shown = in.isEmpty() ? name : in + "/" + name;
            if (!named.contains(shown)) {
                named.add(shown);
            }
        }
        return named;
    }

    // A table with the groups of lines that wait for their account, the largest first.
    private String coding(RawFiles group) throws IOException, SettingsException {
        StringBuilder csv = new StringBuilder(CODING_TITLES);
        int n = 0;
        for (UncodedGroups.Group uncoded : uncoded(group)) {
            n++;
            csv.append(CompanyFiles.csv("g" + n, uncoded.direction(), uncoded.words(), "", "", "?", "", "", ""))
                    .append('\n');
        }
        if (n > 0) {
            told.add("coding/" + group.slug + ".csv has " + n + (n == 1 ? " group" : " groups")
                    + " of lines, largest first: put an account code in place of each ?");
        }
        return csv.toString();
    }

    private List<UncodedGroups.Group> uncoded(RawFiles group) throws IOException, SettingsException {
        Path trial = Files.createTempDirectory("mivrel-start");
        try {
            CompanyFiles tried = new CompanyFiles();
            Map<String, String> one = new LinkedHashMap<>(answers);
            one.put(begun.prefixOf(group) + "deliver", "journals-one-amount");
            one.put(begun.prefixOf(group) + "uncoded", "hold");
            new CompanyWriter(begun, one, tried).trial(group);
            tried.writeTo(trial);
            return Mivrel.open(trial.resolve(group.slug + ".yaml")).check().uncoded();
        } finally {
            CompanyFiles.delete(trial);
        }
    }
}
