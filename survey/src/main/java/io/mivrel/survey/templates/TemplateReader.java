package io.mivrel.survey.templates;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Frame;
import io.mivrel.files.forms.RowForms;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.survey.Answers;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.KnownFormats;
import io.mivrel.survey.files.SurveyFile;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Printable;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Reads a receiver's template, or a file that it took before. */
public final class TemplateReader {
    private static final int HEAD = 1 << 16;
    private static final int MOST_ROWS = 5_000;
    private static final int MOST_COLUMNS = 300;
    private static final Pattern LIMIT = Pattern.compile(
            "(?i)(?:max(?:imum|\\.)?(?: length)?:?|up to|at most|limit) *(\\d{1,4})|(\\d{1,4}) *(?:characters|chars|zeichen)\\b");
    private static final Pattern MUST =
            Pattern.compile("(?i)\\*|\\((?:required|mandatory|pflicht)\\)|^(?:required|mandatory|pflicht)\\b");
    private static final Pattern OPTIONAL =
            Pattern.compile("(?i)\\boptional\\b|\\bleave (?:it )?(?:blank|empty)\\b|\\bnot used\\b|\\bunused\\b");
    private static final Pattern ONE_OF = Pattern.compile("(?i)(?:one of|either|allowed)[: ]+(.+)");
    private static final Pattern DAY_WORDS = Pattern.compile(
            "(?i)\\b(?:(D{1,2}|T{1,2}|J{1,2})([-./ ]?)(M{1,3})\\2(Y{4}|Y{2}|J{4}|J{2}|A{4}|A{2})"
                    + "|(M{1,2})([-./ ]?)(D{1,2})\\6(Y{4}|Y{2})|(Y{4}|J{4}|A{4})([-./ ]?)(M{1,2})\\10(D{1,2}|T{1,2}|J{1,2}))\\b");

    private final Path file;
    private final List<String> notes = new ArrayList<>();

    private TemplateReader(Path file) {
        this.file = file;
    }

    /** Reads one; throws {@link IOException} that says why it cannot be one. */
    public static Template read(Path file) throws IOException {
        return new TemplateReader(file).read();
    }

    private Template read() throws IOException {
        FileProfile facts = new SurveyFile(file, Answers.NONE).facts();
        if (facts.kind().isStatement()) {
            throw new IOException(file + ": is " + facts.words() + ", which is no template of rows and columns");
        }
        boolean workbook = facts.kind() == FileKind.WORKBOOK;
        String head = workbook ? "" : head(facts);
        char separator = separator(head, facts);
        Template.Form form = new Template.Form(
                workbook ? RowForms.WORKBOOK : facts.print() == null ? DeliveryFormat.SEPARATED : RowForms.FIXED,
                separator,
                facts.encoding().isEmpty() ? "UTF-8" : facts.encoding(),
                facts.lineEnds().equals("LF") ? "LF" : "CRLF",
                head.startsWith("\uFEFF"),
                isQuoted(head),
                workbook ? sheet() : "");
        List<List<String>> rows = rows(facts.divided(separator, facts.lineEnds()), form);
        boolean says = head.replace("\uFEFF", "").startsWith("sep=");
        TemplateRows sorted = TemplateRows.of(says ? rows.subList(1, rows.size()) : rows);
        return template(
                sorted,
                form,
                facts,
                says ? head.replace("\uFEFF", "").lines().findFirst().orElse("") : "");
    }

    private String head(FileProfile facts) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            String text = new String(in.readNBytes(HEAD), Charset.forName(facts.encoding()));
            if (text.isBlank()) {
                throw new IOException(file + ": is empty, so it tells nothing of the receiver's form");
            }
            return text;
        }
    }

    // A first line may say it.
    private static char separator(String head, FileProfile facts) {
        Matcher said = Pattern.compile("\\uFEFF?sep=(.)\\R").matcher(head);
        return said.lookingAt() ? said.group(1).charAt(0) : facts.separator();
    }

    private static boolean isQuoted(String head) {
        List<String> lines = head.replace("\uFEFF", "")
                .lines()
                .filter(l -> !l.isBlank() && !l.startsWith("sep="))
                .limit(3)
                .toList();
        return !lines.isEmpty()
                && lines.stream().allMatch(line -> line.matches("\"([^\"]|\"\")*\"([,;\t|]\"([^\"]|\"\")*\")*"));
    }

    // The sheet with the most titles that are known; the others are not delivered.
    private String sheet() throws IOException {
        String best = "";
        int most = -1;
        List<String> all = Workbooks.shown(file);
        for (String name : all) {
            try (RowSource rows = Workbooks.open(file, name)) {
                TemplateRows sorted = TemplateRows.of(all(rows));
                int known = sorted.titles() == null ? 0 : TemplateRows.known(sorted.titles());
                if (known > most) {
                    best = name;
                    most = known;
                }
            }
        }
        String chosen = best;
        List<String> others = all.stream().filter(name -> !name.equals(chosen)).toList();
        if (!others.isEmpty()) {
            notes.add("the sheet '" + chosen + "' is delivered; the template's other sheets are not: "
                    + String.join(", ", others));
        }
        return chosen;
    }

    private List<List<String>> rows(FileProfile facts, Template.Form form) throws IOException {
        try (RowSource rows = form.isWorkbook()
                ? Workbooks.open(file, form.sheet())
                : new SurveyFile(file, Answers.NONE).open(facts)) {
            List<List<String>> all = all(rows);
            // The last cell of fixed-width text is the whole line.
            return facts.print() == null
                    ? all
                    : all.stream()
                            .map(row -> row.subList(0, Math.max(0, row.size() - 1)))
                            .toList();
        }
    }

    private static List<List<String>> all(RowSource source) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        for (Row row = source.next(); row != null && rows.size() < MOST_ROWS; row = source.next()) {
            List<String> cells = new ArrayList<>();
            for (int i = 0; i < Math.min(row.size(), MOST_COLUMNS); i++) {
                cells.add(row.text(i));
            }
            // A workbook passes over rows that are blank.
            while (row.number() > rows.size() + 1 && rows.size() < MOST_ROWS) {
                rows.add(List.of());
            }
            rows.add(cells);
            if (row.size() > MOST_COLUMNS || rows.size() >= MOST_ROWS) {
                throw new IOException("the template has more than " + MOST_COLUMNS + " columns or " + MOST_ROWS
                        + " rows; give a shorter one, with its first rows and its last");
            }
        }
        return rows;
    }

    private Template template(TemplateRows rows, Template.Form form, FileProfile facts, String first)
            throws IOException {
        int width = Stream.of(
                        rows.above(),
                        rows.under(),
                        rows.data(),
                        rows.titles() == null ? List.<List<String>>of() : List.of(rows.titles()))
                .flatMap(List::stream)
                .mapToInt(List::size)
                .max()
                .orElse(0);
        if (rows.titles() != null) {
            width = Math.max(
                    rows.titles().size(),
                    rows.data().stream().mapToInt(List::size).max().orElse(0));
        }
        if (width < 2) {
            throw new IOException(file + ": neither titles nor rows of several columns were found in it");
        }
        List<String> keys = keys(rows, width);
        List<Template.Column> columns = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            columns.add(column(i, keys.get(i), rows, slice(facts, i)));
        }
        List<List<String>> above = new ArrayList<>(rows.above());
        if (!first.isEmpty()) {
            above.add(0, List.of(first));
        }
        List<List<String>> last = rows.last().stream()
                .filter(row -> row.stream().anyMatch(cell -> !cell.isEmpty()))
                .map(row -> sums(row, rows.data(), columns))
                .toList();
        above.stream()
                .flatMap(List::stream)
                .filter(TemplateRows::isFigure)
                .forEach(
                        cell -> notes.add(
                                "'" + cell
                                        + "' above the titles is written as it stands; {date}, {run} and {part} can be filled in there"));
        last.stream()
                .flatMap(List::stream)
                .filter(TemplateRows::isFigure)
                .forEach(
                        cell -> notes.add(
                                "'" + cell
                                        + "' under the data is neither the count of its rows nor the sum of a column; it is written as it stands"));
        return new Template(
                file,
                form,
                rows.titles() != null,
                new Frame(above, rows.under(), last),
                columns,
                rows.data().size(),
                numbers(columns),
                notes);
    }

    private static @Nullable Slice slice(FileProfile facts, int place) {
        return facts.print() == null || place >= facts.print().slices().size()
                ? null
                : facts.print().slices().get(place);
    }

    // What each column is asked by: its title, with its place where that is not its own.
    private static List<String> keys(TemplateRows rows, int width) {
        List<String> keys = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            String title = cell(rows.titles() == null ? List.of() : rows.titles(), i);
            String above = rows.above().isEmpty()
                    ? ""
                    : carried(rows.above().get(rows.above().size() - 1), i);
            String name = title.isEmpty() ? "column " + (i + 1) : title.replaceAll("\\s+", " ");
            if (keys.contains(name)) {
                name = above.isEmpty() ? name : above + " " + name;
                name = keys.contains(name) ? name + " " + (i + 1) : name;
            }
            keys.add(name);
        }
        return keys;
    }

    // A title over several columns stands at the first of them.
    private static String carried(List<String> row, int place) {
        for (int i = Math.min(place, row.size() - 1); i >= 0; i--) {
            if (!row.get(i).isEmpty()) {
                return row.get(i);
            }
        }
        return "";
    }

    private static String cell(List<String> row, int place) {
        return place < row.size() ? row.get(place) : "";
    }

    private static Template.Column column(int place, String name, TemplateRows rows, @Nullable Slice slice) {
        String title = rows.titles() == null ? name : cell(rows.titles(), place);
        String meaning = String.join(
                "; ",
                rows.under().stream()
                        .map(row -> cell(row, place))
                        .filter(c -> !c.isEmpty())
                        .toList());
        List<String> samples = rows.data().stream().map(row -> cell(row, place)).toList();
        List<String> filled = samples.stream().filter(cell -> !cell.isEmpty()).toList();
        List<DatePattern> days = KnownFormats.daysOf(filled);
        DatePattern said = dayWords(title + " " + meaning);
        DatePattern date = days.size() == 1 ? days.get(0) : days.isEmpty() && !filled.isEmpty() ? null : said;
        boolean amounts = days.isEmpty() && !filled.isEmpty() && filled.stream().allMatch(Amounts::isAmount);
        Matcher limit = LIMIT.matcher(title + " " + meaning);
        return new Template.Column(
                title,
                name,
                MUST.matcher(title).find() || MUST.matcher(meaning).find(),
                OPTIONAL.matcher(title + " " + meaning).find(),
                samples,
                words(meaning),
                limit.find() ? Integer.parseInt(limit.group(1) == null ? limit.group(2) : limit.group(1)) : 0,
                date,
                days,
                amounts,
                slice == null ? 0 : slice.to() - slice.from() + 1,
                false);
    }

    // 'one of INV, CRN', 'INV / CRN' or 'D|C': words of capitals or figures alone with marks between them.
    private static List<String> words(String meaning) {
        Matcher said = ONE_OF.matcher(meaning);
        String list = said.find() ? said.group(1) : meaning;
        List<String> words = Arrays.stream(list.split(" *(?:[,/|;]| or ) *"))
                .map(String::strip)
                .toList();
        boolean plain = words.size() > 1
                && words.stream().allMatch(word -> word.matches("[\\p{L}\\p{N}][\\p{L}\\p{N} _-]{0,19}"))
                && (said.reset().find() || words.stream().allMatch(word -> word.matches("[\\p{Lu}\\p{N}_-]{1,12}")))
                && dayWords(meaning) == null;
        return plain ? words : List.of();
    }

    /** The pattern of days that words such as {@code DD/MM/YYYY} or {@code TT.MM.JJJJ} say; {@code null} for none. */
    static @Nullable DatePattern dayWords(String text) {
        Matcher said = DAY_WORDS.matcher(text);
        if (!said.find()) {
            return null;
        }
        String written = said.group();
        String pattern = said.group(5) != null || said.group(9) != null
                ? written.toLowerCase(Locale.ROOT)
                        .replace('m', 'M')
                        .replaceAll(
                                "[yja]{2,4}(?=[^yja]|$)",
                                "u"
                                        .repeat(
                                                said.group(9) != null
                                                        ? 4
                                                        : said.group(8).length()))
                        .replaceAll("[tj]", "d")
                : "d".repeat(said.group(1).length())
                        + said.group(2)
                        + "M".repeat(said.group(3).length())
                        + said.group(2)
                        + "u".repeat(said.group(4).length());
        try {
            return DatePattern.of(pattern, pattern.contains("uuuu") ? 0 : 1970);
        } catch (IllegalArgumentException noPattern) {
            return null;
        }
    }

    // A figure under the data is a count or a sum when arithmetic says so.
    private List<String> sums(List<String> row, List<List<String>> data, List<Template.Column> columns) {
        List<String> filled = new ArrayList<>();
        for (int place = 0; place < row.size(); place++) {
            String cell = row.get(place);
            filled.add(TemplateRows.isFigure(cell) ? figure(cell, place, filled, data, columns) : cell);
        }
        return filled;
    }

    // Of several columns with this sum the one that it stands under, else the first that is not stated yet.
    private String figure(
            String cell, int place, List<String> before, List<List<String>> data, List<Template.Column> columns) {
        if (data.size() < 2) {
            return cell;
        }
        if (cell.equals(Integer.toString(data.size()))) {
            return "{rows}";
        }
        List<Template.Column> fitting =
                columns.stream().filter(column -> isSum(cell, column)).toList();
        if (fitting.isEmpty()) {
            return cell;
        }
        boolean under = place < columns.size() && fitting.contains(columns.get(place));
        Template.Column meant = under
                ? columns.get(place)
                : fitting.stream()
                        .filter(column -> !before.contains(sumOf(column)))
                        .findFirst()
                        .orElse(fitting.get(0));
        if (!under && fitting.size() > 1) {
            notes.add("'" + cell + "' under the data is the sum of "
                    + fitting.stream().map(Template.Column::title).collect(Collectors.joining(" and of "))
                    + " alike; it is taken for that of " + meant.title() + ": look at 'last rows' of the delivery");
        }
        return sumOf(meant);
    }

    private static String sumOf(Template.Column column) {
        return "{sum of " + column.title() + "}";
    }

    private static boolean isSum(String cell, Template.Column column) {
        BigDecimal meant = Amounts.value(cell);
        BigDecimal sum = column.amounts() && meant != null ? Amounts.sum(column.samples()) : null;
        return sum != null
                && meant != null
                && sum.compareTo(meant) == 0
                && (sum.signum() != 0 || cell.matches(".*[.,]\\d\\d.*"));
    }

    // The one form that all amounts of all columns are in; null when none tells.
    private @Nullable AmountFormat numbers(List<Template.Column> columns) {
        List<String> cells = columns.stream()
                .filter(Template.Column::amounts)
                .flatMap(column -> column.samples().stream())
                .filter(cell -> !cell.isEmpty())
                .toList();
        Set<Character> decimals = new LinkedHashSet<>();
        cells.forEach(cell -> decimals.addAll(Amounts.decimalMark(cell)));
        if (decimals.size() > 1) {
            notes.add("its amounts have decimal marks of both kinds; look at 'numbers' of the delivery");
        }
        if (decimals.isEmpty()) {
            return null;
        }
        char decimal = decimals.iterator().next();
        Set<Character> thousands = new LinkedHashSet<>();
        cells.forEach(cell -> cell.chars()
                .filter(c -> ".,' \u00a0".indexOf(c) >= 0 && c != decimal)
                .forEach(c -> thousands.add((char) c)));
        boolean brackets = cells.stream().anyMatch(cell -> cell.startsWith("("));
        boolean trailing = cells.stream().anyMatch(cell -> cell.endsWith("-"));
        return new AmountFormat(
                2, decimal, thousands.isEmpty() ? 0 : thousands.iterator().next(), brackets, trailing, "");
    }

    /** How it is called where it has no name of its own. */
    static String name(Path file) {
        return Printable.of(String.valueOf(file.getFileName()).replaceFirst("\\.[^.]*$", ""));
    }
}
