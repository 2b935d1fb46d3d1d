package io.mivrel.survey.prints;

import io.mivrel.rows.FileFormat.Slice;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Finds the columns of a print file: figures end at the same place in many lines, dates begin at the same place, and the
 * places where no line has anything stand between the columns of text.
 */
final class PrintColumns {
    private static final int LEAST_LINES = 3;
    /** Places by which the ends of the figures of one column may differ, as with a sign behind some of them. */
    private static final int SAME_COLUMN = 2;
    /** Title of the cell that is the whole line. */
    private static final String LINE = "line";

    /** A column. */
    enum Kind {
        DATE,
        FIGURE,
        TEXT
    }

    /** A column and its places, {@code to} excluded. */
    record Column(Kind kind, int from, int to, String title) {
        Slice slice() {
            return new Slice(title, from + 1, to);
        }

        String cell(String line) {
            return from >= line.length()
                    ? ""
                    : line.substring(from, Math.min(line.length(), to)).strip();
        }
    }

    private final PrintLines print;
    private final boolean[] heads;
    private final List<String> body = new ArrayList<>();
    /** The end of each column of figures, and behind the sign that may stand there. */
    private final TreeMap<Integer, Integer> figures = new TreeMap<>();

    private final List<int[]> dates = new ArrayList<>();
    final boolean yearless;
    final List<Column> columns;

    PrintColumns(PrintLines print) {
        this.print = print;
        this.heads = print.heads();
        for (int i = 0; i < heads.length; i++) {
            String line = print.lines.get(i);
            // A total may stand across the columns.
            if (!heads[i] && !line.isBlank() && !PrintLines.isRule(line) && !PrintLines.isTotal(line)) {
                body.add(line);
            }
        }
        findFigures();
        yearless = findDates();
        columns = figures.isEmpty() || dates.isEmpty() ? List.of() : withRoom(named(divide()));
    }

    boolean isHead(int line) {
        return heads[line];
    }

    /** The column at whose end a figure stands in a line; those of a line without figures are none. */
    List<Column> filledFigures(String line) {
        return columns.stream()
                .filter(c -> c.kind() == Kind.FIGURE && c.cell(line).chars().anyMatch(Character::isDigit))
                .toList();
    }

    private void findFigures() {
        Map<Integer, int[]> counts = new TreeMap<>();
        Map<Integer, Integer> signs = new HashMap<>();
        int lines = 0;
        for (String line : body) {
            List<Integer> ends = print.figureEnds(line);
            lines += ends.isEmpty() ? 0 : 1;
            for (int end : ends) {
                int start = print.figureStart(line, end);
                boolean apart = start == 0
                        || PrintLines.isBar(line.charAt(start - 1))
                        || start > 1 && line.charAt(start - 1) == ' ' && line.charAt(start - 2) == ' ';
                int[] count = counts.computeIfAbsent(end, e -> new int[2]);
                count[0]++;
                count[1] += apart ? 1 : 0;
                signs.merge(end, PrintLines.signBehind(line, end), Math::max);
            }
        }
        Set<Integer> titleEnds = new HashSet<>();
        if (print.titles >= 0) {
            PrintLines.groups(print.lines.get(print.titles)).forEach(g -> titleEnds.add(g[1]));
        }
        int least = Math.max(LEAST_LINES, lines / 50);
        for (Map.Entry<Integer, int[]> entry : counts.entrySet()) {
            int end = entry.getKey();
            int[] count = entry.getValue();
            int to = end + signs.getOrDefault(end, 0);
            boolean titled = titleEnds.contains(end) || titleEnds.contains(to);
            if (count[0] >= least && (count[1] * 2 >= count[0] || titled)) {
                Map.Entry<Integer, Integer> before = figures.floorEntry(end - 1);
                if (before != null && end - before.getKey() <= SAME_COLUMN) {
                    to = Math.max(to, before.getValue());
                    figures.remove(before.getKey());
                }
                figures.put(end, to);
            }
        }
    }

    // True when the dates have no year.
    private boolean findDates() {
        for (boolean short_ : new boolean[] {false, true}) {
            // From, to, and how many; a day of one digit may stand a place further right.
            Map<Integer, int[]> counts = new TreeMap<>();
            for (String line : body) {
                for (int[] date : PrintLines.dates(line, short_)) {
                    int[] earlier = counts.get(date[0] - 1);
                    int from = earlier != null && earlier[1] == date[1] ? date[0] - 1 : date[0];
                    int[] later = counts.get(from + 1);
                    int[] count = counts.computeIfAbsent(from, d -> new int[2]);
                    if (later != null && later[1] == date[1]) {
                        count[0] += later[0];
                        counts.remove(from + 1);
                    }
                    count[0]++;
                    count[1] = Math.max(count[1], date[1]);
                }
            }
            int most = counts.values().stream().mapToInt(c -> c[0]).max().orElse(0);
            counts.forEach((from, count) -> {
                boolean apart = dates.isEmpty() || dates.get(dates.size() - 1)[1] <= from;
                if (count[0] >= LEAST_LINES && count[0] * 2 >= most && apart && !isFigure(from, count[1])) {
                    dates.add(new int[] {from, count[1]});
                }
            });
            if (!dates.isEmpty()) {
                return short_;
            }
        }
        return false;
    }

    private boolean isFigure(int from, int to) {
        return figures.keySet().stream().anyMatch(end -> end > from && end <= to);
    }

    /** True for a line with a date in the first column of dates. */
    boolean isDated(String line) {
        int[] place = dates.get(0);
        int[] date = yearless ? PrintLines.yearless(line) : PrintLines.date(line);
        return date != null && (date[0] == place[0] || date[0] == place[0] + 1 && date[1] == place[1]);
    }

    /** True for a line with nothing where the date would stand, nor before it. */
    boolean lacksDate(String line) {
        for (int i = 0; i < Math.min(line.length(), dates.get(0)[1]); i++) {
            if (line.charAt(i) != ' ' && !PrintLines.isBar(line.charAt(i))) {
                return false;
            }
        }
        return true;
    }

    // The end of the column that a figure with this end belongs to; null when it stands in none.
    private @Nullable Integer columnEnd(int end) {
        Integer column = figures.ceilingKey(end);
        return column != null && column - end <= SAME_COLUMN ? column : null;
    }

    private boolean hasFigure(String line) {
        return print.figureEnds(line).stream().anyMatch(end -> columnEnd(end) != null);
    }

    // Places where some line has something, with a border behind each figure and around each date.
    private List<Column> divide() {
        int width = body.stream().mapToInt(String::length).max().orElse(0);
        boolean[] used = new boolean[width + 1];
        boolean[] border = new boolean[width + 2];
        Map<Integer, Integer> starts = new HashMap<>();
        Set<Integer> textStarts = textStarts();
        for (String line : body) {
            boolean dated = isDated(line);
            boolean goesOn = lacksDate(line) && (hasFigure(line) || textStarts.contains(firstPlace(line, 0)));
            if (!dated && !goesOn) {
                continue;
            }
            for (int i = 0; i < line.length(); i++) {
                used[i] |= line.charAt(i) != ' ' && !PrintLines.isBar(line.charAt(i));
                border[i] |= PrintLines.isBar(line.charAt(i)) && dated;
            }
            for (int end : print.figureEnds(line)) {
                Integer column = columnEnd(end);
                if (column != null) {
                    int start = print.figureStart(line, end);
                    // A figure may have blanks within, and before its sign.
                    Arrays.fill(used, start, end + PrintLines.signBehind(line, end), true);
                    starts.merge(column, start, Math::min);
                }
            }
        }
        for (int[] date : dates) {
            border[date[0]] = true;
            border[date[1]] = true;
        }
        figures.forEach((end, to) -> {
            border[to] = true;
            Integer start = starts.get(end);
            if (start != null) {
                border[start] = true;
            }
        });
        Set<Integer> texts = new HashSet<>();
        runs(used, border).stream().filter(c -> c.kind() == Kind.TEXT).forEach(c -> texts.add(c.from()));
        // Texts that go on may be longer than any that stands in its first line.
        for (String line : body) {
            if (lacksDate(line) && !hasFigure(line) && texts.contains(firstPlace(line, 0))) {
                for (int i = 0; i < line.length(); i++) {
                    used[i] |= line.charAt(i) != ' ' && !PrintLines.isBar(line.charAt(i));
                }
            }
        }
        return runs(used, border);
    }

    // Where the first text behind the date begins in many lines, and so does one that goes on from the line above.
    private Set<Integer> textStarts() {
        Map<Integer, Integer> counts = new HashMap<>();
        int dated = 0;
        for (String line : body) {
            if (isDated(line)) {
                dated++;
                counts.merge(firstPlace(line, dates.get(dates.size() - 1)[1]), 1, Integer::sum);
            }
        }
        Set<Integer> starts = new HashSet<>();
        for (Map.Entry<Integer, Integer> count : counts.entrySet()) {
            if (count.getValue() * 10 >= dated) {
                starts.add(count.getKey());
            }
        }
        return starts;
    }

    /** The first place from here on with something else than a bar; the length of the line when there is none. */
    static int firstPlace(String line, int from) {
        int i = from;
        while (i < line.length() && (line.charAt(i) == ' ' || PrintLines.isBar(line.charAt(i)))) {
            i++;
        }
        return i;
    }

    private List<Column> runs(boolean[] used, boolean[] border) {
        List<Column> runs = new ArrayList<>();
        int from = -1;
        for (int i = 0; i <= used.length; i++) {
            boolean on = i < used.length && used[i];
            if (from >= 0 && (!on || border[i])) {
                runs.add(new Column(kind(from, i), from, i, ""));
                from = -1;
            }
            if (on && from < 0) {
                from = i;
            }
        }
        return joined(runs);
    }

    private Kind kind(int from, int to) {
        if (dates.stream().anyMatch(d -> from >= d[0] && to <= d[1])) {
            return Kind.DATE;
        }
        return figures.keySet().stream().anyMatch(end -> end > from && end <= to) ? Kind.FIGURE : Kind.TEXT;
    }

    // One blank place within a text, or within a date, is no border, unless a title begins behind it.
    private List<Column> joined(List<Column> runs) {
        Set<Integer> titleStarts = new HashSet<>();
        if (print.titles >= 0) {
            PrintLines.groups(print.lines.get(print.titles)).forEach(g -> titleStarts.add(g[0]));
        }
        List<Column> joined = new ArrayList<>();
        for (Column run : runs) {
            Column last = joined.isEmpty() ? null : joined.get(joined.size() - 1);
            boolean titled = titleStarts.contains(run.from());
            boolean one = last != null
                    && run.from() - last.to() <= 1
                    && run.kind() == last.kind()
                    && (run.kind() == Kind.TEXT && !titled
                            || run.kind() == Kind.DATE && inOneDate(last.from(), run.from()));
            if (last != null && one) {
                joined.set(joined.size() - 1, new Column(last.kind(), last.from(), run.to(), ""));
            } else {
                joined.add(run);
            }
        }
        return joined;
    }

    private boolean inOneDate(int one, int other) {
        return dates.stream().anyMatch(d -> one >= d[0] && other < d[1]);
    }

    // Later pages may fill a column further: figures grow to the left, texts to the right. What grows beyond is noticed
    // when it is read, because one place between the columns stays empty.
    private List<Column> withRoom(List<Column> found) {
        List<Column> columns = new ArrayList<>(found);
        for (int i = 0; i + 1 < columns.size(); i++) {
            Column one = columns.get(i);
            Column next = columns.get(i + 1);
            int gap = next.from() - one.to();
            if (gap <= 1) {
                continue;
            }
            boolean bar = hasBar(one.to(), next.from());
            if (next.kind() == Kind.FIGURE) {
                int from = bar ? barBehind(one.to(), next.from()) + 1 : one.to() + 1;
                columns.set(i + 1, new Column(next.kind(), from, next.to(), next.title()));
                if (one.kind() == Kind.TEXT) {
                    int to = bar ? barBefore(one.to()) : from - 1;
                    columns.set(i, new Column(one.kind(), one.from(), to, one.title()));
                }
            } else if (one.kind() == Kind.TEXT) {
                int to = bar ? barBefore(one.to()) : next.from() - 1;
                columns.set(i, new Column(one.kind(), one.from(), to, one.title()));
            }
        }
        return List.copyOf(columns);
    }

    private boolean hasBar(int from, int to) {
        return barBehind(from, to) >= 0;
    }

    private int barBehind(int from, int to) {
        String line = body.stream().filter(this::isDated).findFirst().orElse("");
        for (int i = Math.min(to, line.length()) - 1; i >= from; i--) {
            if (PrintLines.isBar(line.charAt(i))) {
                return i;
            }
        }
        return -1;
    }

    private int barBefore(int from) {
        String line = body.stream().filter(this::isDated).findFirst().orElse("");
        int i = from;
        while (i < line.length() && !PrintLines.isBar(line.charAt(i))) {
            i++;
        }
        return i;
    }

    // Each title names the column that it stands above, or nearest to. Titles with one blank between look like one, and
    // are divided where they stand above several columns that have no other.
    private List<Column> named(List<Column> found) {
        Map<Integer, String> names = new HashMap<>();
        String line = print.titles < 0 ? "" : print.lines.get(print.titles);
        List<int[]> groups = PrintLines.groups(line);
        Map<Integer, int[]> own = new HashMap<>();
        groups.forEach(group -> own.put(nearest(found, group), group));
        for (int[] group : groups) {
            boolean several = false;
            for (int i = 0; i < found.size(); i++) {
                boolean above = Math.min(found.get(i).to(), group[1])
                                - Math.max(found.get(i).from(), group[0])
                        >= 2;
                several |= above && !own.containsKey(i);
            }
            for (int[] part : several ? words(line, group) : List.of(group)) {
                String name = line.substring(part[0], part[1]).replaceAll("[ .]*\\.{2,}$", "");
                names.merge(nearest(found, part), name, (a, b) -> a + " " + b);
            }
        }
        Set<String> seen = new HashSet<>();
        List<Column> columns = new ArrayList<>();
        for (int i = 0; i < found.size(); i++) {
            Column column = found.get(i);
            String name = names.getOrDefault(i, "").strip();
            if (name.isEmpty() || name.equals(LINE) || !seen.add(name)) {
                name = "Column " + (i + 1);
            }
            columns.add(new Column(column.kind(), column.from(), column.to(), name));
        }
        return columns;
    }

    private static List<int[]> words(String line, int[] group) {
        List<int[]> words = new ArrayList<>();
        int from = group[0];
        for (int i = group[0]; i <= group[1]; i++) {
            if (i == group[1] || line.charAt(i) == ' ') {
                words.add(new int[] {from, i});
                from = i + 1;
            }
        }
        return words;
    }

    private static int nearest(List<Column> found, int[] group) {
        int best = -1;
        int least = Integer.MAX_VALUE;
        for (int i = 0; i < found.size(); i++) {
            Column column = found.get(i);
            int off = Math.max(0, Math.max(column.from() - group[1] + 1, group[0] - column.to() + 1));
            int edges = column.kind() == Kind.FIGURE
                    ? Math.abs(column.to() - group[1])
                    : Math.abs(column.from() - group[0]);
            if (off * 100 + edges < least) {
                least = off * 100 + edges;
                best = i;
            }
        }
        return best;
    }
}
