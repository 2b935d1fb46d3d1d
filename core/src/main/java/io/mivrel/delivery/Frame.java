package io.mivrel.delivery;

import io.mivrel.text.CellBuffer;
import io.mivrel.text.DatePattern;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The rows of a file that are no data: what stands above the titles, under them, and at the end. In a cell {@code {run}}, {@code
 * {part}} and {@code {date}} or {@code {date ddMMuuuu}} are filled in, and in the last rows also {@code {rows}}, {@code {documents}}
 * and {@code {sum of TITLE}}. Immutable.
 *
 * @param above rows above the titles, such as a heading record
 * @param under rows under the titles, such as what the columns mean
 * @param last rows under the data, such as counts and totals
 */
public record Frame(List<List<String>> above, List<List<String>> under, List<List<String>> last) {
    /** No such rows. */
    public static final Frame NONE = new Frame(List.of(), List.of(), List.of());

    private static final Pattern FILLED = Pattern.compile("\\{([^{}]*)}");
    private static final String SUM = "sum of ";
    private static final String DATE = "date ";

    public Frame {
        above = above.stream().map(List::copyOf).toList();
        under = under.stream().map(List::copyOf).toList();
        last = last.stream().map(List::copyOf).toList();
    }

    /** What keeps it from being filled in, in words; {@code null} when nothing does. */
    @Nullable
    String gap(List<String> summable) {
        for (List<List<String>> rows : List.of(above, under, last)) {
            for (String cell : rows.stream().flatMap(List::stream).toList()) {
                Matcher found = FILLED.matcher(cell);
                while (found.find()) {
                    String word = found.group(1);
                    boolean counted = word.equals("rows") || word.equals("documents");
                    boolean sum = word.startsWith(SUM) && summable.contains(word.substring(SUM.length()));
                    boolean known = List.of("run", "date", "part").contains(word) || isDate(word);
                    if ((counted || sum) && rows != last) {
                        return "{" + word + "} is known only when all rows are written: it can stand in 'last rows'";
                    }
                    if (!known && !counted && !sum) {
                        return "{" + word
                                + "} cannot be filled in: there are {run}, {part}, {date}, {date ddMMuuuu}, and in"
                                + " 'last rows' {rows}, {documents}"
                                + (summable.isEmpty() ? "" : " and {sum of " + summable.get(0) + "}");
                    }
                }
            }
        }
        return null;
    }

    // It is only written, so a year of two digits is of any century.
    private static DatePattern day(String pattern) {
        return DatePattern.of(pattern, pattern.matches(".*(?<!u)uu(?!u).*") ? 2000 : 0);
    }

    private static boolean isDate(String word) {
        try {
            return word.startsWith(DATE) && day(word.substring(DATE.length())) != null;
        } catch (IllegalArgumentException wrong) {
            return false;
        }
    }

    /** The titles of columns whose sums the last rows state. */
    List<String> sums() {
        return last.stream()
                .flatMap(List::stream)
                .flatMap(cell -> FILLED.matcher(cell).results())
                .map(found -> found.group(1))
                .filter(word -> word.startsWith(SUM))
                .map(word -> word.substring(SUM.length()))
                .distinct()
                .toList();
    }

    /**
     * Rows with everything filled in.
     *
     * @param named fills in {@code {run}}, {@code {part}} and {@code {date}}
     * @param counts what else is known: the numbers of rows and documents, and sums by titles
     */
    static List<List<String>> filled(
            List<List<String>> rows, Function<String, String> named, Map<String, String> counts) {
        return rows.stream()
                .map(row ->
                        row.stream().map(cell -> filled(cell, named, counts)).toList())
                .toList();
    }

    private static String filled(String cell, Function<String, String> named, Map<String, String> counts) {
        return FILLED.matcher(cell).replaceAll(found -> {
            String word = found.group(1);
            String count = counts.get(word.startsWith(SUM) ? word.substring(SUM.length()) : word);
            String text = count != null
                    ? count
                    : word.startsWith(DATE)
                            ? date(named.apply("{date}"), word.substring(DATE.length()))
                            : named.apply(found.group());
            return Matcher.quoteReplacement(text);
        });
    }

    private static String date(String iso, String pattern) {
        CellBuffer out = new CellBuffer();
        day(pattern).append(LocalDate.parse(iso).toEpochDay(), out);
        return out.toString();
    }
}
