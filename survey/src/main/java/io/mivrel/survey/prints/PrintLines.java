package io.mivrel.survey.prints;

import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The lines of a print file: where the headings of its pages stand, and how its figures and dates are written. */
final class PrintLines {
    private static final Pattern FIGURE = Pattern.compile(
            "(?<=^|[ \u2502\u2551|])[-+($\u20ac\u00a3\u00a5]*[0-9][0-9.,'\u2019]*([.,])([0-9]{2,3})[-+)]?(?:CR|DR)?(?=$|[ \u2502\u2551|])");
    private static final Pattern DATE = Pattern.compile(
            "[0-9]{1,2}[-/. ]\\p{L}{3,9}\\.?[-/. ][0-9]{2,4}(?![0-9])|[0-9]{1,2}[-/.][0-9]{1,2}[-/.][0-9]{2,4}(?![0-9])"
                    + "|[0-9]{4}[-/.][0-9A-Za-z]{1,3}[-/.][0-9]{1,2}(?![0-9])|[0-9]{8}(?![0-9])");
    private static final Pattern YEARLESS =
            Pattern.compile("[0-9]{1,2}[-/. ]\\p{L}{3,9}\\.?(?![\\p{L}0-9])|[0-9]{1,2}[./-][0-9]{1,2}\\.?(?![0-9./-])");
    /** What may stand before a figure. */
    private static final String SIGNS = "+-(\u2212$\u20ac\u00a3\u00a5";

    private static final String BARS = "\u2502\u2551|";

    final List<String> lines;
    /** The line of titles; -1 when there is none. */
    final int titles;
    /** The first and last line of the heading of the first page. */
    final int headFrom;

    final int headTo;
    private final char mark;
    private final int decimals;
    /** True when the mark stands between groups of three, and the figures have no decimals. */
    private final boolean grouped;

    PrintLines(List<String> lines) {
        this.lines = lines;
        String usual = usualFigure();
        this.mark = usual.charAt(0);
        this.decimals = usual.charAt(1) - '0';
        this.grouped = decimals == 3
                && lines.stream().noneMatch(l -> twoMarks().matcher(l).find());
        this.titles = findTitles();
        int to = titles;
        if (titles >= 0 && titles + 1 < lines.size() && isRule(lines.get(titles + 1))) {
            to++;
        }
        this.headTo = to;
        this.headFrom = titles < 0 ? -1 : headFrom();
    }

    // The mark before the decimals, and how many there are, of most figures.
    private String usualFigure() {
        Map<String, Integer> counts = new HashMap<>();
        for (String line : lines) {
            Matcher figure = FIGURE.matcher(line);
            while (figure.find()) {
                counts.merge(figure.group(1) + figure.group(2).length(), 1, Integer::sum);
            }
        }
        return counts.entrySet().stream()
                .max(Map.Entry.<String, Integer>comparingByValue()
                        .thenComparing(
                                Map.Entry.<String, Integer>comparingByKey().reversed()))
                .map(Map.Entry::getKey)
                .orElse(".2");
    }

    // A figure with another mark before the usual one, which therefore stands before decimals.
    private Pattern twoMarks() {
        return Pattern.compile("[0-9][" + (mark == '.' ? "," : ".") + "' ][0-9]{3}"
                + Pattern.quote(String.valueOf(mark)) + "[0-9]{3}");
    }

    // Of the lines above the first data, the one with the most words apart from each other, and no figures.
    private int findTitles() {
        int best = -1;
        int most = 2;
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i);
            boolean dated = date(line) != null || yearless(line) != null;
            if (dated && !figureEnds(line).isEmpty() && best >= 0) {
                break;
            }
            int groups = groups(line).size();
            if (line.chars().noneMatch(Character::isDigit) && groups >= most && hasLetters(line)) {
                best = i;
                most = groups;
            }
        }
        return best;
    }

    // The lines above the titles that stand above those of the next page too, but for their figures.
    private int headFrom() {
        String title = lines.get(titles);
        int from = titles;
        for (int next = titles + 1; next < lines.size(); next++) {
            if (lines.get(next).equals(title)) {
                while (from > 0
                        && isAlike(lines.get(from - 1), lines.get(next - (titles - from) - 1))
                        && next - (titles - from) - 1 > titles) {
                    from--;
                }
                break;
            }
        }
        while (from < titles && lines.get(from).isBlank()) {
            from++;
        }
        return from;
    }

    private static boolean isAlike(String one, String other) {
        return one.replaceAll("[0-9]+", "0")
                .replaceAll(" +", " ")
                .equals(other.replaceAll("[0-9]+", "0").replaceAll(" +", " "));
    }

    /** True for a line that belongs to the heading of a page, or stands above the first. */
    boolean[] heads() {
        boolean[] heads = new boolean[lines.size()];
        if (titles < 0) {
            return heads;
        }
        for (int i = 0; i <= headTo; i++) {
            heads[i] = true;
        }
        for (int i = headTo + 1; i < lines.size(); i++) {
            if (lines.get(i).equals(lines.get(titles))) {
                for (int k = i - (titles - headFrom); k <= Math.min(lines.size() - 1, i + headTo - titles); k++) {
                    heads[k] = true;
                }
            }
        }
        return heads;
    }

    /** Words with two blanks or a bar between, each with its place. */
    static List<int[]> groups(String line) {
        List<int[]> groups = new ArrayList<>();
        int from = -1;
        for (int i = 0; i <= line.length(); i++) {
            boolean ends = i == line.length()
                    || isBar(line.charAt(i))
                    || line.charAt(i) == ' ' && (i + 1 == line.length() || line.charAt(i + 1) == ' ');
            if (ends && from >= 0) {
                groups.add(new int[] {from, i});
                from = -1;
            } else if (!ends && from < 0 && line.charAt(i) != ' ') {
                from = i;
            }
        }
        return groups;
    }

    static boolean isBar(char c) {
        return BARS.indexOf(c) >= 0;
    }

    static boolean hasLetters(String line) {
        return line.chars().anyMatch(Character::isLetter);
    }

    /** True for a line of strokes. */
    static boolean isRule(String line) {
        return !line.isBlank() && line.chars().noneMatch(Character::isLetterOrDigit);
    }

    /** True for a line that says by its words that it adds up others. */
    static boolean isTotal(String line) {
        return TradeWords.begins("total", line) || TradeWords.begins("subtotal", line);
    }

    /** Where the first date of a line stands, from and to; {@code null} when there is none. */
    static int @Nullable [] date(String line) {
        return dates(line, false).stream().findFirst().orElse(null);
    }

    /** The same of a date without a year. */
    static int @Nullable [] yearless(String line) {
        return dates(line, true).stream().findFirst().orElse(null);
    }

    /** Where all dates of a line stand; those without a year where {@code withoutYear}. */
    static List<int[]> dates(String line, boolean withoutYear) {
        List<int[]> dates = new ArrayList<>();
        Matcher found = (withoutYear ? YEARLESS : DATE).matcher(line);
        while (found.find()) {
            boolean begins = found.start() == 0
                    || line.charAt(found.start() - 1) == ' '
                    || isBar(line.charAt(found.start() - 1));
            if (begins) {
                dates.add(new int[] {found.start(), found.end()});
            }
        }
        return dates;
    }

    /** Places behind the last digit of each figure, which may stand close to the next one. */
    List<Integer> figureEnds(String line) {
        List<Integer> ends = new ArrayList<>();
        for (int end = decimals + 2; end <= line.length(); end++) {
            if (isFigureEnd(line, end)) {
                ends.add(end);
            }
        }
        return ends;
    }

    private boolean isFigureEnd(String line, int end) {
        if (end < decimals + 2) {
            return false;
        }
        for (int i = end - decimals; i < end; i++) {
            if (!isDigit(line, i)) {
                return false;
            }
        }
        int at = end - decimals - 1;
        boolean goesOn = end < line.length()
                && (line.charAt(end) == '.' || line.charAt(end) == ',' || line.charAt(end) == '/')
                && end + 1 < line.length();
        return line.charAt(at) == mark && isDigit(line, at - 1) && !goesOn;
    }

    private static boolean isDigit(String line, int at) {
        return at >= 0 && at < line.length() && line.charAt(at) >= '0' && line.charAt(at) <= '9';
    }

    /** Where the figure begins that ends here. */
    int figureStart(String line, int end) {
        int start = end - decimals - 1;
        while (start > 0 && isOfFigure(line, start, end)) {
            start--;
        }
        while (start > 0 && SIGNS.indexOf(line.charAt(start - 1)) >= 0) {
            start--;
        }
        return start;
    }

    // Whether what stands before a place belongs to the figure that goes on from there.
    private boolean isOfFigure(String line, int start, int end) {
        char c = line.charAt(start - 1);
        boolean figure = isDigit(line, start - 1) || c == ',' || c == '.' || c == '\'' || c == '\u2019';
        if (c == mark && !grouped || !figure && !dividesGroups(line, start)) {
            return false;
        }
        // The decimals of a figure that stands close before it do not.
        return start >= end - decimals - 1 || !isFigureEnd(line, start);
    }

    // A blank between a figure and exactly three more.
    private static boolean dividesGroups(String line, int start) {
        char c = line.charAt(start - 1);
        return (c == ' ' || c == '\u00a0' || c == '\u202f')
                && start > 1
                && isDigit(line, start - 2)
                && isDigit(line, start)
                && isDigit(line, start + 1)
                && isDigit(line, start + 2)
                && !isDigit(line, start + 3);
    }

    /** How many places the sign takes behind a figure. */
    static int signBehind(String line, int end) {
        Matcher sign = Pattern.compile(" ?(?:[-+)\u2212]|CR|DR|Cr|Dr|[CDSH](?![\\p{L}]))")
                .matcher(line)
                .region(end, line.length());
        return sign.lookingAt() ? sign.end() - end : 0;
    }
}
