package io.mivrel.survey.templates;

import io.mivrel.kinds.Kinds;
import io.mivrel.survey.ColumnTitles;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Which rows of a template are what: those above the titles, the titles, those under them, sample rows, and those under the data.
 *
 * @param above rows above the titles, or above the data where there are none
 * @param titles the titles; {@code null} when it has none
 * @param under rows under the titles that say what columns mean
 * @param data sample rows
 * @param last rows under the data
 */
record TemplateRows(
        List<List<String>> above,
        @Nullable List<String> titles,
        List<List<String>> under,
        List<List<String>> data,
        List<List<String>> last) {
    /** Rows among which titles are looked for. */
    private static final int HEAD = 20;

    private static final int LONGEST_TITLE = 60;
    private static final Pattern FIGURE = Pattern.compile("[-+(]?[ ]?\\d[\\d.,' \\u00a0]*[)-]?%?");
    private static final Pattern DAY =
            Pattern.compile("\\d{1,4}([-./ ])(\\d{1,2}|\\p{L}{3,9})\\1\\d{1,4}.*|(19|20)\\d{6}|\\d{4}(19|20)\\d{2}");

    /** Sorts rows. */
    static TemplateRows of(List<List<String>> all) {
        List<List<String>> rows = new ArrayList<>();
        all.forEach(row -> rows.add(trimmed(row)));
        while (!rows.isEmpty() && rows.get(rows.size() - 1).isEmpty()) {
            rows.remove(rows.size() - 1);
        }
        int titles = titlesRow(rows);
        int next = titles < 0 ? firstOfMost(rows) : titles + 1;
        int under = next;
        while (titles >= 0 && under < rows.size() && !rows.get(under).isEmpty() && isMeaning(rows.get(under))) {
            under++;
        }
        int end = rows.size();
        while (end > under && !isLike(rows.get(end - 1), rows.get(under))) {
            end--;
        }
        // What is written as it stands keeps its blank cells.
        return new TemplateRows(
                stripped(all.subList(0, titles < 0 ? next : titles)),
                titles < 0 ? null : rows.get(titles),
                stripped(all.subList(next, under)),
                rows.subList(under, end).stream().filter(row -> !row.isEmpty()).toList(),
                stripped(all.subList(end, rows.size())));
    }

    private static List<List<String>> stripped(List<List<String>> rows) {
        return rows.stream()
                .map(row -> row.stream().map(String::strip).toList())
                .toList();
    }

    // Blank cells at the end say nothing.
    private static List<String> trimmed(List<String> row) {
        int size = row.size();
        while (size > 0 && row.get(size - 1).isBlank()) {
            size--;
        }
        return row.subList(0, size).stream().map(String::strip).toList();
    }

    // The row with the most cells that are titles of some field; the lower one of two, since titles may have a row
    // above them.
    private static int titlesRow(List<List<String>> rows) {
        int best = -1;
        int most = 0;
        int widest = rows.stream().mapToInt(List::size).max().orElse(0);
        for (int i = 0; i < Math.min(rows.size(), HEAD); i++) {
            List<String> row = rows.get(i);
            long filled = row.stream().filter(cell -> !cell.isEmpty()).count();
            boolean plain =
                    filled > 1 && row.stream().noneMatch(cell -> isFigure(cell) || cell.length() > LONGEST_TITLE);
            int known = plain ? known(row) : 0;
            if (known >= Math.max(most, 1)) {
                best = i;
                most = known;
            }
        }
        return best >= 0 ? best : allWords(rows);
    }

    /** How many titles are fields of the kind that knows the most of them. */
    static int known(List<String> titles) {
        return Kinds.ALL.stream()
                .mapToInt(kind -> ColumnTitles.fields(kind, titles).size())
                .max()
                .orElse(0);
    }

    // Titles that nobody knows: a first row of words alone, over rows with figures or none.
    private static int allWords(List<List<String>> rows) {
        if (rows.isEmpty() || rows.get(0).size() < 2) {
            return -1;
        }
        List<String> first = rows.get(0);
        boolean words =
                first.size() * 5 >= rows.stream().mapToInt(List::size).max().orElse(0) * 4
                        && first.stream().noneMatch(cell -> isFigure(cell) || cell.isEmpty())
                        && first.stream().distinct().count() == first.size();
        boolean figures = rows.subList(1, rows.size()).stream()
                .anyMatch(row -> row.stream().anyMatch(TemplateRows::isFigure));
        return words && (rows.size() == 1 || figures) ? 0 : -1;
    }

    // Without titles: the first of the rows whose size and days most have.
    private static int firstOfMost(List<List<String>> rows) {
        List<List<Integer>> shapes = rows.stream().map(TemplateRows::shape).toList();
        int best = 0;
        for (int i = 1; i < rows.size(); i++) {
            if (Collections.frequency(shapes, shapes.get(i)) > Collections.frequency(shapes, shapes.get(best))) {
                best = i;
            }
        }
        return best;
    }

    private static List<Integer> shape(List<String> row) {
        List<Integer> shape = places(row, DAY);
        shape.add(row.size());
        return shape;
    }

    // Days stand where they stand in the first row of data; where it has none, other figures.
    private static boolean isLike(List<String> row, List<String> first) {
        if (row.isEmpty() || isTotal(row)) {
            return false;
        }
        List<Integer> days = places(first, DAY);
        if (!days.isEmpty()) {
            return places(row, DAY).containsAll(days) && row.size() * 2 > first.size();
        }
        List<Integer> figures = places(first, FIGURE);
        long shared = places(row, FIGURE).stream().filter(figures::contains).count();
        return shared * 2 >= figures.size() && row.size() * 2 > first.size();
    }

    private static boolean isTotal(List<String> row) {
        String label = row.stream().filter(cell -> !cell.isEmpty()).findFirst().orElse("");
        return label.toLowerCase(Locale.ROOT).matches("(grand )?totals?( .*)?|sum( .*)?");
    }

    private static List<Integer> places(List<String> row, Pattern what) {
        List<Integer> places = new ArrayList<>();
        for (int i = 0; i < row.size(); i++) {
            if (what.matcher(row.get(i)).matches()) {
                places.add(i);
            }
        }
        return places;
    }

    static boolean isFigure(String cell) {
        return FIGURE.matcher(cell).matches() || DAY.matcher(cell).matches();
    }

    // Words under titles, without a figure of its own: what the columns mean.
    private static boolean isMeaning(List<String> row) {
        return row.stream().noneMatch(TemplateRows::isFigure);
    }
}
