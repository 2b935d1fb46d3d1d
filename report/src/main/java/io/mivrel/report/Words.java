package io.mivrel.report;

import io.mivrel.intake.IntakeTally;
import io.mivrel.rows.LeftOut;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;

/** The words that a kind of run is described in, the same on the screen and in the evidence. */
final class Words {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH);
    private static final DateTimeFormatter DAY_MONTH = DateTimeFormatter.ofPattern("d MMMM", Locale.ENGLISH);

    private Words() {}

    static String count(long count, String one) {
        return String.format(Locale.ROOT, "%,d %s%s", count, one, count == 1 ? "" : "s");
    }

    /** From the first to the last date read, or an empty text. */
    static String dates(List<IntakeTally> files) {
        LocalDate first = files.stream()
                .map(f -> f.firstDate().orElse(null))
                .filter(Objects::nonNull)
                .min(LocalDate::compareTo)
                .orElse(null);
        LocalDate last = files.stream()
                .map(f -> f.lastDate().orElse(null))
                .filter(Objects::nonNull)
                .max(LocalDate::compareTo)
                .orElse(null);
        if (first == null || last == null) {
            return "";
        }
        if (first.equals(last)) {
            return DAY.format(first);
        }
        if (first.getYear() == last.getYear() && first.getMonth() == last.getMonth()) {
            return first.getDayOfMonth() + " to " + DAY.format(last);
        }
        return (first.getYear() == last.getYear() ? DAY_MONTH : DAY).format(first) + " to " + DAY.format(last);
    }

    /** A path as short as it can be said from the folder the user stands in. */
    static String shown(Path path) {
        Path here = Path.of("").toAbsolutePath();
        Path absolute = path.toAbsolutePath().normalize();
        return absolute.startsWith(here) ? here.relativize(absolute).toString() : absolute.toString();
    }

    /** The causes with their counts: {@code 4 above the titles, 3 blank}. */
    static String causes(Map<LeftOut, Long> leftOut) {
        StringBuilder words = new StringBuilder();
        leftOut.forEach((cause, count) -> words.append(words.isEmpty() ? "" : ", ")
                .append(String.format(
                        Locale.ROOT,
                        "%,d %s",
                        count,
                        count > 1 && cause == LeftOut.TITLES ? "title rows" : cause.words())));
        return words.toString();
    }
}
