package io.mivrel.survey;

import io.mivrel.model.FieldType;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowSource;
import io.mivrel.text.DateNames;
import io.mivrel.text.DatePattern;
import io.mivrel.text.TradeWords;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The first rows of a file: how wide they are, where the titles stand, and which column holds the dates. */
final class Sample {
    private Currency currency;
    private static final int SIZE = 500;
    /** A row of more cells says no more for its width. */
    private static final int WIDE = 6;

    private static final int MOST_HEADS = 20;
    private static final int MOST_COLUMNS = 400;

    /** A row that is kept. */
    record Kept(long number, List<String> cells) {
        static Kept of(Row row) {
            List<String> cells = new ArrayList<>(row.size());
            for (int i = 0; i < row.size(); i++) {
                cells.add(row.trimmed(i));
            }
            return new Kept(row.number(), cells);
        }
    }

    /** Cells of most rows; only so many as {@link #columns} are looked at. */
    final int widest;

    final int titlesRow;
    final int titleRows;
    /** The first row of data. */
    final long firstRow;

    final int dateColumn;
    /** The forms of its dates, the likelier first. */
    private List<DatePattern> datePatterns = List.of();

    /** True when every row has the same cells by the format itself. */
    final boolean fixedTitles;

    private static final int LONGEST_DATE = 40;
    private static final Pattern NAMED_DAY =
            Pattern.compile("(?:[\\p{L}\\p{M}]+[., ]+)?\\d{1,2}[-./ ]*[\\p{L}\\p{M}]{2,}[-./, ]*(?:\\d{4}|\\d{2})\\.?"
                    + "|[\\p{L}\\p{M}]{3,}[. ]+\\d{1,2},? \\d{4}");

    private final Set<String> languages;
    /** The language of the names of months; empty for the usual ones. */
    final String language;

    private final @Nullable List<String> titles;
    private final List<Kept> rows = new ArrayList<>();
    /** Lines of the headings of pages. */
    private final List<Kept> heads = new ArrayList<>();

    /** The first rows of a source, without those that the filters leave out. */
    Sample(RowSource source, List<RowFilter> filters, Currency currency, @Nullable String said) throws IOException {
        this.currency = currency;
        for (Row row = source.next(); row != null && rows.size() < SIZE; row = source.next()) {
            boolean real = row.ended() == null && row.fault() == null && row.aside() == null;
            if (row.aside() == LeftOut.PAGE_HEAD && heads.size() < MOST_HEADS) {
                heads.add(new Kept(row.number(), divided(row)));
            }
            if (real && !isFilteredOut(row, source, filters)) {
                rows.add(Kept.of(row));
            }
        }
        fixedTitles = source.titles() != null;
        List<String> own = source.titles();
        widest = own == null ? usualWidth() : own.size();
        Titles found = own == null ? findTitles() : new Titles(own, 0, 1, 0);
        titles = found.titles;
        titlesRow = found.row;
        titleRows = found.rows;
        firstRow = found.firstOfData;
        languages = said == null ? DateNames.covering(namesInDates()) : Set.of(said);
        language = languages.size() == 1 ? languages.iterator().next() : "";
        dateColumn = dateColumn();
    }

    /** The titles, the row that ends them, how many rows they take, and the first row of data. */
    private record Titles(@Nullable List<String> titles, int row, int rows, long firstOfData) {}

    private Titles findTitles() {
        Kept full = rows.stream().filter(this::isFull).findFirst().orElse(null);
        // Labels with a figure may fill a narrow file above its titles.
        Kept first = rows.stream()
                .limit(MOST_HEADS)
                .filter(row -> row.cells.size() == widest
                        && row.cells.stream().noneMatch(String::isEmpty)
                        && areTitles(row.cells))
                .findFirst()
                .filter(row -> full != null && widest > 2 && !areWords(full.cells))
                .orElse(full);
        if (first == null) {
            return new Titles(null, 0, 1, 1);
        }
        Kept second = after(first);
        if (second != null && takeTwoRows(first, second)) {
            int row = (int) second.number;
            return new Titles(joined(first.cells, second.cells), row, 2, row + 1);
        }
        int row = (int) first.number;
        return areTitles(first.cells) ? new Titles(first.cells, row, 1, row + 1) : new Titles(null, 0, 1, row);
    }

    // When the second holds words as well, and data comes only then.
    private boolean takeTwoRows(Kept first, Kept second) {
        Kept third = after(second);
        return third != null
                && (isFull(second) || isUnits(second))
                && areWords(first.cells)
                && areWords(second.cells)
                && areTitles(joined(first.cells, second.cells))
                && !areWords(third.cells);
    }

    // The words in cells that hold a day, a year and one or two names, and nothing else.
    private Set<String> namesInDates() {
        Set<String> names = new TreeSet<>();
        for (Kept row : rows) {
            for (String cell : row.cells) {
                Matcher day = cell.length() <= LONGEST_DATE ? NAMED_DAY.matcher(cell) : null;
                if (row.number >= firstRow && day != null && day.matches()) {
                    Stream.of(cell.split("[^\\p{L}\\p{M}]+"))
                            .filter(w -> !w.isEmpty())
                            .forEach(names::add);
                }
            }
        }
        return names;
    }

    /** Languages that name the months of the file in different ways, where the usual ones do not know them. */
    Set<String> languages() {
        return languages;
    }

    /** True when a filter leaves the row out; the titles of the source are known once it has come. */
    boolean isFilteredOut(Row row, RowSource source, List<RowFilter> filters) {
        for (RowFilter filter : filters) {
            List<String> own = source.titles();
            if (own != null && filter.leavesOut(row, own.indexOf(filter.column()))) {
                return true;
            }
        }
        return false;
    }

    private int usualWidth() {
        Map<Integer, Integer> sizes = new HashMap<>();
        for (Kept row : rows) {
            if (row.cells.size() > 1) {
                sizes.merge(row.cells.size(), 1, Integer::sum);
            }
        }
        // Of a statement of one or two movements most rows may be labels with a figure.
        return sizes.entrySet().stream()
                .max(Comparator.<Map.Entry<Integer, Integer>>comparingInt(
                                e -> e.getValue() * (Math.min(e.getKey(), WIDE) - 1))
                        .thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .orElse(1);
    }

    // A line of a page heading holds several texts, with blanks between them.
    private static List<String> divided(Row row) {
        return row.size() == 0 ? List.of() : List.of(row.trimmed(row.size() - 1).split(" {2,}"));
    }

    // The next row, when it follows at once.
    private @Nullable Kept after(Kept row) {
        return rows.stream().filter(r -> r.number == row.number + 1).findFirst().orElse(null);
    }

    private static List<String> joined(List<String> upper, List<String> lower) {
        Row row = new Row();
        row.fill(0, lower);
        return row.titlesBelow(upper);
    }

    private boolean isFull(Kept row) {
        return row.cells.size() == widest
                && row.cells.stream().filter(c -> !c.isEmpty()).count() * 2 > widest;
    }

    // A row below the titles that says in what they are counted: few words, no figures.
    private boolean isUnits(Kept row) {
        return row.cells.size() == widest
                && isWordsOnly(row)
                && row.cells.stream().noneMatch(c -> TradeWords.is("pending", c) || TradeWords.is("settled", c));
    }

    private static boolean isWordsOnly(Kept row) {
        boolean any = false;
        for (String cell : row.cells) {
            any |= !cell.isEmpty();
            if (cell.chars().anyMatch(Character::isDigit)) {
                return false;
            }
        }
        return any;
    }

    // Titles are words, none twice.
    private static boolean areTitles(List<String> cells) {
        List<String> filled = cells.stream().filter(c -> !c.isEmpty()).toList();
        return areWords(cells) && new HashSet<>(filled).size() == filled.size();
    }

    // No dates, no figures.
    private static boolean areWords(List<String> cells) {
        return cells.stream()
                .allMatch(cell -> KnownFormats.DATES.stream().noneMatch(p -> DatePattern.isDate(p.parse(cell)))
                        && (cell.chars().anyMatch(Character::isLetter)
                                || cell.chars().noneMatch(Character::isDigit)));
    }

    /** True for a text that is a date in one of the forms of the column of dates, though perhaps not a possible one. */
    boolean isDate(String text) {
        return datePatterns.stream().anyMatch(p -> p.parse(text) != DatePattern.UNREADABLE);
    }

    /** True for a row with a date in its column, though it may lack cells. */
    boolean isOfData(Kept row) {
        return dateColumn >= 0 && dateColumn < row.cells.size() && isDate(row.cells.get(dateColumn));
    }

    /** True for a cell of the column of dates that is one, perhaps an impossible one; not for a total or a count. */
    boolean isDated(String cell) {
        byte[] bytes = cell.getBytes(StandardCharsets.UTF_8);
        int end = TimeOfDay.start(bytes, 0, bytes.length);
        int digits = 0;
        for (int i = 0; i < end; i++) {
            digits += bytes[i] >= '0' && bytes[i] <= '9' ? 1 : 0;
        }
        // A count or a page is shorter than any day.
        if (end == 0 || digits < 3 || digits > 12 || end > 40) {
            return false;
        }
        // A day of the week may stand before a date; a total or a count is none.
        boolean words = bytes[0] >= 'A' || bytes[end - 1] >= 'A' || bytes[0] < 0;
        return !words || isDate(new String(bytes, 0, end, StandardCharsets.UTF_8));
    }

    /** Rows among the data that hold one text and nothing else. */
    List<String> headings() {
        return rows.stream()
                .filter(row -> row.number >= firstRow)
                .map(Sample::heading)
                .filter(heading -> !heading.isEmpty())
                .toList();
    }

    // The one text of a row; empty where it holds more, or nothing.
    private static String heading(Kept row) {
        List<String> filled = row.cells.stream().filter(c -> !c.isEmpty()).toList();
        return filled.size() == 1 ? filled.get(0) : "";
    }

    /** The heading above each row of data; an empty text where there is none. */
    List<String> headingOfEach() {
        List<String> headings = new ArrayList<>();
        Set<Kept> data = new HashSet<>(data());
        String above = "";
        for (Kept row : rows) {
            if (data.contains(row)) {
                headings.add(above);
            } else if (row.number >= firstRow && !heading(row).isEmpty()) {
                above = heading(row);
            }
        }
        return headings;
    }

    /** Rows among the data, or behind them, that are no movements by their form. */
    List<Kept> between() {
        Set<Kept> data = new HashSet<>(data());
        return rows.stream()
                .filter(r -> r.number >= firstRow && !data.contains(r))
                .toList();
    }

    /** The same with amounts in a currency that was found out. */
    void in(Currency stated) {
        currency = stated;
    }

    /** The rows above the titles, or above the data when there are none. */
    List<Kept> above() {
        long first = titlesRow > 0 ? titlesRow - titleRows + 1 : firstRow;
        return Stream.concat(heads.stream(), rows.stream().filter(r -> r.number < first))
                .toList();
    }

    /** True when it holds the whole file. */
    boolean isWhole() {
        return rows.size() < SIZE;
    }

    private int dateColumn() {
        List<ColumnSurvey> trial = surveyed();
        ColumnSurvey best = trial.stream()
                .filter(c -> c.type() == FieldType.DATE)
                .max(Comparator.comparing(ColumnSurvey::filled).thenComparing(c -> -c.place()))
                .orElse(null);
        datePatterns = best == null ? List.of() : best.patterns();
        return best == null ? -1 : best.place() - 1;
    }

    /** The rows of data among the first rows, of full width. */
    List<Kept> data() {
        return rows.stream()
                .filter(r -> r.number >= firstRow && r.cells.size() == widest && !isWordsOnly(r))
                .filter(r -> dateColumn < 0 || fixedTitles || isDated(r.cells.get(dateColumn)))
                .toList();
    }

    /** New columns, with titles where there are some. */
    List<ColumnSurvey> columns() {
        List<ColumnSurvey> columns = new ArrayList<>();
        for (int i = 0; i < Math.min(widest, MOST_COLUMNS); i++) {
            columns.add(new ColumnSurvey(i + 1, titles == null ? "" : titles.get(i), currency, language));
        }
        return columns;
    }

    /** The columns as far as the sample goes. */
    List<ColumnSurvey> surveyed() {
        List<ColumnSurvey> columns = columns();
        for (Kept row : rows) {
            // A row without a figure is no movement: titles again, or a heading.
            if (row.number >= firstRow && row.cells.size() == widest && !isWordsOnly(row)) {
                for (ColumnSurvey column : columns) {
                    byte[] cell = row.cells.get(column.place() - 1).getBytes(StandardCharsets.UTF_8);
                    column.add(row.number, cell, 0, cell.length);
                }
            }
        }
        return columns;
    }
}
