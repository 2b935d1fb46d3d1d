package io.mivrel.survey.prints;

import com.google.re2j.Pattern;
import io.mivrel.files.lines.FixedRows;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.FillDown;
import io.mivrel.shape.PageHeads;
import io.mivrel.shape.Shape;
import io.mivrel.shape.Wrapped;
import io.mivrel.shape.Years;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.StatedPeriod;
import io.mivrel.survey.prints.PrintColumns.Column;
import io.mivrel.survey.prints.PrintColumns.Kind;
import io.mivrel.text.TradeWords;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Divides a print file into columns, and says what each of its lines is: a row, the next line of a row, a balance that is
 * carried over, a total, a heading that is carried down, or the heading of a page.
 */
public final class PrintSniffer {
    private static final int LEAST_ROWS = 3;
    private static final int WIDEST = 500;
    private static final int NEARLY_ALL = 95;
    /** More kinds of balances that are carried over are none. */
    private static final int MOST_CARRIED = 8;

    private static final String WITH_YEAR = "Date in full";

    private final PrintLines print;
    private final PrintColumns found;
    private final List<Column> columns;
    private final @Nullable Column balance;
    /** Lines that are rows, in whole or in part. */
    private final List<String> rows = new ArrayList<>();

    /** By their column, the texts of rows that have a balance and no amount. */
    private final Map<String, Set<String>> carried = new LinkedHashMap<>();

    private final List<String> totals = new ArrayList<>();
    private final List<String> others = new ArrayList<>();
    private final Set<String> feet;
    private boolean goesOn;
    /** Rows that begin without a date, and those whose date stands above and whose figures stand in the last line. */
    private int undated;

    private int figuresBelow;

    private PrintSniffer(List<String> lines) {
        this.print = new PrintLines(lines);
        this.found = new PrintColumns(print);
        this.columns = found.columns;
        this.balance = balance();
        this.feet = feet();
    }

    // Lines of words that stand at the end of several pages, and nowhere else.
    private Set<String> feet() {
        Map<String, Integer> ends = new LinkedHashMap<>();
        for (int i = 0; i < print.lines.size(); i++) {
            String line = print.lines.get(i);
            if (!found.isHead(i) && PrintLines.hasLetters(line) && endsPage(i + 1)) {
                ends.merge(line, 1, Integer::sum);
            }
        }
        Set<String> feet = new LinkedHashSet<>();
        ends.forEach((line, count) -> {
            boolean only = print.lines.stream().filter(line::equals).count() == count;
            if (count > 1 && only && line.chars().noneMatch(Character::isDigit)) {
                feet.add(line);
            }
        });
        return feet;
    }

    /**
     * How the lines are divided; {@code null} when they are no print file. {@code separator} is the one that
     * divides it best, 0 for none, and {@code percent} of the lines alike; {@code cut} when the last line is not whole.
     */
    public static FileProfile.@Nullable Print look(
            byte[] head, String encoding, char separator, long percent, boolean cut) {
        List<String> lines = new String(head, Charset.forName(encoding))
                .lines()
                .map(l -> l.replace("\f", "").stripTrailing())
                .toList();
        lines = lines.subList(0, Math.max(0, lines.size() - (cut ? 1 : 0)));
        // Commas within the texts of a print file divide some of its lines, but never nearly all.
        boolean separated = separator != 0
                && !standsInFigures(lines, separator)
                && (percent >= NEARLY_ALL || isSeparated(lines, separator));
        if (separated && !isRuled(lines, separator) || lines.stream().anyMatch(l -> l.length() > WIDEST)) {
            return null;
        }
        return new PrintSniffer(lines).look();
    }

    // Of separated text, a cell of nearly every line with a date is a date and nothing else.
    private static boolean isSeparated(List<String> lines, char separator) {
        String by = java.util.regex.Pattern.quote(String.valueOf(separator));
        int dated = 0;
        int divided = 0;
        for (String line : lines) {
            if (PrintLines.date(line) != null) {
                dated++;
                divided += Arrays.stream(line.split(by))
                                .map(cell -> cell.strip().replaceAll("^\"|\"$|^\\p{L}+ ", ""))
                                .anyMatch(PrintSniffer::isDate)
                        ? 1
                        : 0;
            }
        }
        return divided * 10 >= dated * 8;
    }

    // True when nearly every comma is the mark between the thousands of a figure.
    private static boolean standsInFigures(List<String> lines, char separator) {
        long commas = 0;
        long within = 0;
        for (String line : lines) {
            for (int i = line.indexOf(separator); separator == ',' && i >= 0; i = line.indexOf(separator, i + 1)) {
                commas++;
                within += line.substring(Math.max(0, i - 1)).matches("[0-9],[0-9]{2,3}([^0-9].*)?") ? 1 : 0;
            }
        }
        return commas > 0 && within * 10 >= commas * 9;
    }

    // Strokes at the same places of nearly all lines are those of a table that is printed.
    private static boolean isRuled(List<String> lines, char separator) {
        Map<String, Integer> places = new LinkedHashMap<>();
        int with = 0;
        for (String line : lines) {
            StringBuilder at = new StringBuilder();
            for (int i = 0; separator == '|' && i < line.length(); i++) {
                at.append(line.charAt(i) == '|' ? i + " " : "");
            }
            if (!at.isEmpty()) {
                with++;
                places.merge(at.toString(), 1, Integer::sum);
            }
        }
        int most = with;
        return with >= LEAST_ROWS && places.values().stream().anyMatch(count -> count * 10 >= most * 9);
    }

    private static boolean isDate(String cell) {
        int[] date = PrintLines.date(cell);
        return date != null && date[0] == 0 && date[1] == cell.length();
    }

    private FileProfile.@Nullable Print look() {
        if (columns.size() < 3) {
            return null;
        }
        sort();
        if (rows.stream().filter(found::isDated).count() < LEAST_ROWS) {
            return null;
        }
        List<RowFilter> filters = new ArrayList<>();
        List<CarryDown.Heading> headings = new ArrayList<>();
        List<String> carriedOver = new ArrayList<>();
        carried.forEach((column, texts) -> {
            if (texts.size() <= MOST_CARRIED) {
                filters.add(new RowFilter(column, RowFilter.Test.IS, List.copyOf(texts), false));
                carriedOver.addAll(texts);
            }
        });
        Set<String> added = new LinkedHashSet<>();
        for (String line : totals) {
            boolean inText = found.lacksDate(line) && !text(line).isEmpty();
            String text = phrase(inText ? text(line) : line);
            if (added.add(text)) {
                filters.add(
                        inText
                                ? new RowFilter(textColumn(line), RowFilter.Test.BEGINS, List.of(text), false)
                                : begins(text));
            }
        }
        headings(headings, filters);
        feet.forEach(
                foot -> filters.add(new RowFilter(FixedRows.LINE, RowFilter.Test.IS, List.of(foot.strip()), false)));
        List<Shape> shapes = new ArrayList<>();
        String date = yearsFirst(shapes);
        if (!headings.isEmpty()) {
            shapes.add(new CarryDown(headings));
        }
        pageHeads(shapes, filters);
        wrap(shapes, filters, date);
        return new FileProfile.Print(
                columns.stream().map(Column::slice).toList(), shapes, filters, carriedOver, List.copyOf(added));
    }

    // By the last line that every heading has; where one lacks both, its lines are left out one by one.
    private void pageHeads(List<Shape> shapes, List<RowFilter> filters) {
        if (print.titles < 0) {
            return;
        }
        String from = beginning(print.headFrom);
        for (int last : new int[] {print.headTo, print.titles}) {
            if (endsEach(from, beginning(last))) {
                shapes.add(new PageHeads(from, beginning(last)));
                if (last != print.headTo) {
                    filters.add(begins(beginning(print.headTo).strip()));
                }
                return;
            }
        }
        for (int i = 0; i <= print.headTo; i++) {
            if (!print.lines.get(i).isBlank()) {
                filters.add(begins(beginning(i).strip()));
            }
        }
    }

    private boolean endsEach(String from, String to) {
        int open = -1;
        for (int i = 0; i < print.lines.size(); i++) {
            String line = print.lines.get(i);
            if (open < 0 && line.startsWith(from)) {
                open = i;
            }
            if (open >= 0 && (i > open || from.equals(to)) && line.startsWith(to)) {
                open = -1;
            }
            if (open >= 0 && i - open >= PageHeads.MOST_LINES - 1) {
                return false;
            }
        }
        return open < 0;
    }

    private static RowFilter begins(String text) {
        return new RowFilter(FixedRows.LINE, RowFilter.Test.BEGINS, List.of(text), false);
    }

    // The last column of figures, unless its title says otherwise.
    private @Nullable Column balance() {
        List<Column> figures =
                columns.stream().filter(c -> c.kind() == Kind.FIGURE).toList();
        if (figures.size() < 2) {
            return null;
        }
        for (Column column : figures) {
            if (TradeWords.is("balance", column.title())) {
                return column;
            }
        }
        Column last = figures.get(figures.size() - 1);
        boolean other = List.of("amount", "in", "out", "debit", "credit").stream()
                .anyMatch(meaning -> TradeWords.is(meaning, last.title()));
        return other ? null : last;
    }

    private void sort() {
        boolean near = false;
        boolean open = false;
        for (int i = 0; i < print.lines.size(); i++) {
            String line = print.lines.get(i);
            if (found.isHead(i)) {
                continue;
            }
            if (line.isBlank()) {
                near = near && isBeforeHead(i);
            } else if (PrintLines.isRule(line)) {
                others.add(line);
            } else {
                Sort sort = sortOf(line, near || !isAlone(i));
                count(sort, line, open);
                open = sort == Sort.BEGINS || open && sort != Sort.FIGURES && sort != Sort.ROW;
                near = sort.isRow() || near && sort != Sort.FOOT && sort != Sort.OTHER;
            }
        }
    }

    /** What a line of a print is. */
    private enum Sort {
        CARRIED,
        TOTAL,
        /** With a date and what it moves. */
        ROW,
        /** With a date, whose figures stand below. */
        BEGINS,
        /** Without a date, with what it moves. */
        FIGURES,
        FOOT,
        /** Text that belongs to the row above. */
        GOES_ON,
        OTHER;

        boolean isRow() {
            return this == ROW || this == BEGINS || this == FIGURES;
        }
    }

    // Text goes on where a row or other text stands beside it.
    private Sort sortOf(String line, boolean mayGoOn) {
        List<Column> figures = found.filledFigures(line);
        boolean dated = found.isDated(line);
        boolean undatedRow = found.lacksDate(line);
        boolean onlyBalance = figures.size() == 1 && figures.get(0) == balance;
        boolean moves = !figures.isEmpty() && !onlyBalance;
        if (onlyBalance && (dated || undatedRow) && !text(line).isEmpty()) {
            return Sort.CARRIED;
        }
        if (dated) {
            return moves ? Sort.ROW : Sort.BEGINS;
        }
        if (!figures.isEmpty() && PrintLines.isTotal(line)) {
            return Sort.TOTAL;
        }
        if (undatedRow && moves) {
            return Sort.FIGURES;
        }
        if (feet.contains(line)) {
            return Sort.FOOT;
        }
        return figures.isEmpty() && undatedRow && isText(line) && mayGoOn ? Sort.GOES_ON : Sort.OTHER;
    }

    private void count(Sort sort, String line, boolean open) {
        switch (sort) {
            case CARRIED ->
                carried.computeIfAbsent(textColumn(line), c -> new LinkedHashSet<>())
                        .add(text(line));
            case TOTAL -> totals.add(line.strip());
            case ROW, BEGINS -> rows.add(line);
            case FIGURES -> {
                rows.add(line);
                undated += open ? 0 : 1;
                figuresBelow += open ? 1 : 0;
            }
            case GOES_ON -> goesOn = true;
            case OTHER -> others.add(line);
            case FOOT -> {
                // It stands on every page.
            }
        }
    }

    private boolean endsPage(int line) {
        return isBeforeHead(line) || print.lines.stream().skip(line).allMatch(String::isBlank);
    }

    // Blank lines at the end of a page divide nothing.
    private boolean isBeforeHead(int line) {
        int next = line;
        while (next < print.lines.size() && print.lines.get(next).isBlank()) {
            next++;
        }
        return next < print.lines.size() && found.isHead(next);
    }

    private String text(String line) {
        StringBuilder text = new StringBuilder();
        for (Column column : columns) {
            if (column.kind() == Kind.TEXT && !column.cell(line).isEmpty()) {
                text.append(text.isEmpty() ? "" : " ").append(column.cell(line));
            }
        }
        return text.toString();
    }

    // The column of the text of a line that has one.
    private String textColumn(String line) {
        return columns.stream()
                .filter(c -> c.kind() == Kind.TEXT && !c.cell(line).isEmpty())
                .findFirst()
                .map(Column::title)
                .orElseThrow();
    }

    // True for a line with something in the columns of texts only.
    private boolean isText(String line) {
        for (int i = 0; i < line.length(); i++) {
            int at = i;
            boolean empty = line.charAt(i) == ' ' || PrintLines.isBar(line.charAt(i));
            if (!empty && columns.stream().noneMatch(c -> c.kind() == Kind.TEXT && c.from() <= at && at < c.to())) {
                return false;
            }
        }
        return true;
    }

    // True for a line with blank ones above and below, or at an end of the file.
    private boolean isAlone(int line) {
        return (line == 0 || print.lines.get(line - 1).isBlank())
                && (line + 1 == print.lines.size() || print.lines.get(line + 1).isBlank());
    }

    // How lines begin: what they have in common before their figures.
    private static List<String> beginnings(List<String> lines) {
        Set<String> beginnings = new LinkedHashSet<>();
        lines.forEach(line -> beginnings.add(phrase(line)));
        return List.copyOf(beginnings);
    }

    // What stands before the first figure, and before the next column.
    private static String phrase(String line) {
        String text = line.strip();
        int end = 0;
        while (end < text.length() && !Character.isDigit(text.charAt(end)) && !text.startsWith("  ", end)) {
            end++;
        }
        return text.substring(0, end).strip();
    }

    // The beginning of a line of a heading as it stands there, blanks before it included.
    private String beginning(int line) {
        String text = print.lines.get(line);
        if (PrintLines.isRule(text)) {
            int from = text.length() - text.stripLeading().length();
            return text.substring(0, Math.min(text.length(), from + 5));
        }
        String phrase = phrase(text);
        int from = text.indexOf(phrase);
        return phrase.isEmpty() ? text : text.substring(0, from + phrase.length());
    }

    private String yearsFirst(List<Shape> shapes) {
        Column date =
                columns.stream().filter(c -> c.kind() == Kind.DATE).findFirst().orElseThrow();
        if (!found.yearless) {
            return date.title();
        }
        List<String> dates =
                rows.stream().filter(found::isDated).map(date::cell).toList();
        List<String> beside = new ArrayList<>();
        for (int i = 0; i < print.lines.size(); i++) {
            if (found.isHead(i) || i < 20) {
                beside.add(print.lines.get(i));
            }
        }
        StatedPeriod period = StatedPeriod.of(beside, dates);
        if (period == null) {
            return date.title();
        }
        for (Column column : columns) {
            if (column.kind() == Kind.DATE) {
                String title = column == date ? WITH_YEAR : column.title() + " in full";
                shapes.add(new Years(column.title(), period.rows(), period.label(), period.days(), title));
            }
        }
        return date.title();
    }

    private void wrap(List<Shape> shapes, List<RowFilter> filters, String date) {
        List<String> texts = columns.stream()
                .filter(c -> c.kind() == Kind.TEXT)
                .map(Column::title)
                .toList();
        List<String> moving = columns.stream()
                .filter(c -> c.kind() == Kind.FIGURE && c != balance)
                .map(Column::title)
                .toList();
        boolean onceADay = undated > figuresBelow;
        String filler = isFilled() ? "." : "";
        if (goesOn || figuresBelow > undated || !filler.isEmpty()) {
            shapes.add(new Wrapped(onceADay ? moving : List.of(date), texts, filler, filters));
        }
        if (onceADay) {
            List<String> filling =
                    shapes.stream().anyMatch(s -> s.adds(WITH_YEAR)) ? List.of(date, WITH_YEAR) : List.of(date);
            shapes.add(new FillDown(filling, moving));
        }
    }

    // Points that lead from the text to the figures.
    private boolean isFilled() {
        long led = rows.stream().filter(l -> text(l).matches(".* \\.+")).count();
        return led * 4 > rows.size();
    }

    // Headings differ behind their first word and have data below them; what else is no row is left out.
    private void headings(List<CarryDown.Heading> headings, List<RowFilter> filters) {
        Map<String, List<String>> byWord = new LinkedHashMap<>();
        for (String line : others) {
            // What stands where texts do, and reaches beyond, may be one that goes on: it is held rather than left out.
            if (found.lacksDate(line) && !PrintLines.isRule(line) && !PrintLines.isTotal(line)) {
                continue;
            }
            if (PrintLines.isBar(line.strip().charAt(0))) {
                boxed(line, filters);
                continue;
            }
            byWord.computeIfAbsent(firstWord(line), w -> new ArrayList<>()).add(line.strip());
        }
        accountsOfPages(headings);
        byWord.forEach((word, lines) -> {
            boolean letters = word.matches("\\p{L}+");
            Pattern code = codeBehind(letters ? word : "");
            boolean coded =
                    letters && lines.stream().allMatch(l -> code.matcher(l).lookingAt());
            long different = lines.stream().map(l -> taken(code, l)).distinct().count();
            boolean known = headings.stream().anyMatch(h -> h.begins().equals(word));
            if (coded && different > 1 && !known) {
                headings.add(new CarryDown.Heading(word, FixedRows.LINE, word, code));
            } else if (letters) {
                beginnings(lines).forEach(text -> filters.add(begins(text.isEmpty() ? word : text)));
            } else if (!known) {
                filters.add(begins(word));
            }
        });
    }

    // An account may stand in the heading of its pages.
    private void accountsOfPages(List<CarryDown.Heading> headings) {
        Map<String, Set<String>> codes = new LinkedHashMap<>();
        for (int i = 0; i < print.lines.size(); i++) {
            String line = print.lines.get(i);
            if (found.isHead(i) && !line.isBlank() && TradeWords.is("account", firstWord(line))) {
                codes.computeIfAbsent(firstWord(line), w -> new LinkedHashSet<>())
                        .add(taken(codeBehind(firstWord(line)), line.strip()));
            }
        }
        codes.forEach((word, different) -> {
            if (different.size() > 1 && !different.contains("")) {
                headings.add(new CarryDown.Heading(word, FixedRows.LINE, word, codeBehind(word)));
            }
        });
    }

    private static Pattern codeBehind(String word) {
        return Pattern.compile(word + " +([0-9A-Za-z.-]*[0-9][0-9A-Za-z.-]*)");
    }

    // A line between strokes is known by its text; one of strokes only is blank.
    private void boxed(String line, List<RowFilter> filters) {
        if (!text(line).isEmpty()) {
            RowFilter filter = new RowFilter(textColumn(line), RowFilter.Test.IS, List.of(text(line)), false);
            if (!filters.contains(filter)) {
                filters.add(filter);
            }
        }
    }

    private static String taken(Pattern code, String line) {
        var matcher = code.matcher(line);
        return matcher.find() ? Objects.requireNonNull(matcher.group(1)) : "";
    }

    // The first word, or a few signs of a rule.
    private static String firstWord(String line) {
        String text = line.strip();
        int end = 0;
        boolean letters = Character.isLetter(text.charAt(0));
        while (end < text.length() && end < 20 && text.charAt(end) != ' ' && (letters || end < 5)) {
            end++;
        }
        return text.substring(0, end);
    }
}
