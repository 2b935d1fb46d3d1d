package io.mivrel.survey;

import io.mivrel.shape.Years;
import io.mivrel.text.DatePattern;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The period that a line beside the rows states, and the form of dates without a year that lie in it.
 *
 * @param label how the line begins
 * @param days how its days are written
 * @param rows how the dates of the rows are written
 */
public record StatedPeriod(String label, DatePattern days, DatePattern rows) {
    private static final List<DatePattern> YEARLESS = List.of(
            DatePattern.yearless("dd MMM"),
            DatePattern.yearless("d MMM"),
            DatePattern.yearless("dd MMMM"),
            DatePattern.yearless("d MMMM"),
            DatePattern.yearless("dd-MMM"),
            DatePattern.yearless("MMM dd"),
            DatePattern.yearless("MMM d"),
            DatePattern.yearless("dd.MM."),
            DatePattern.yearless("d.M."),
            DatePattern.yearless("dd.MM"),
            DatePattern.yearless("dd/MM"),
            DatePattern.yearless("d/M"),
            DatePattern.yearless("MM/dd"),
            DatePattern.yearless("M/d"),
            DatePattern.yearless("dd-MM"));
    /** No statement covers more. */
    private static final int MOST_DAYS = 400;

    /**
     * The line that states the periods in which the most of these dates lie, nearly all of them; {@code null} when there is none, or when several
     * readings of the dates lie in it alike.
     */
    public static @Nullable StatedPeriod of(Collection<String> lines, List<String> dates) {
        StatedPeriod best = null;
        long most = dates.size() * 9L / 10;
        boolean alike = false;
        for (String label : lines.stream().map(StatedPeriod::label).distinct().toList()) {
            for (DatePattern days : KnownFormats.DATES) {
                // Each page may state another.
                List<long[]> periods =
                        label.isEmpty() || days == KnownFormats.SERIAL ? List.of() : periods(lines, label, days);
                for (DatePattern rows : periods.isEmpty() ? List.<DatePattern>of() : YEARLESS) {
                    long within = dates.stream()
                            .filter(d -> periods.stream().anyMatch(period -> isWithin(rows, d, period)))
                            .count();
                    boolean same = best != null && best.rows.order().equals(rows.order());
                    if (within > most) {
                        best = new StatedPeriod(label, days, rows);
                        most = within;
                        alike = false;
                    } else if (within == most && best != null && !same) {
                        alike = true;
                    }
                }
            }
        }
        return alike ? null : best;
    }

    private static List<long[]> periods(Collection<String> lines, String label, DatePattern days) {
        List<long[]> periods = new ArrayList<>();
        for (String line : lines) {
            long[] period = label(line).equals(label) ? Years.period(line, days) : null;
            if (period != null && period[1] - period[0] <= MOST_DAYS) {
                periods.add(period);
            }
        }
        return periods;
    }

    private static boolean isWithin(DatePattern rows, String date, long[] period) {
        byte[] bytes = date.getBytes(java.nio.charset.StandardCharsets.UTF_8);
        long day = rows.dayOfYear(bytes, 0, bytes.length);
        if (!DatePattern.isDate(day)) {
            return false;
        }
        LocalDate read = LocalDate.ofEpochDay(day);
        for (int year = LocalDate.ofEpochDay(period[0]).getYear();
                year <= LocalDate.ofEpochDay(period[1]).getYear();
                year++) {
            long dated = read.withYear(year).toEpochDay();
            if (dated >= period[0] && dated <= period[1]) {
                return true;
            }
        }
        return false;
    }

    // What stands before the first figure, and will stand there next month too.
    private static String label(String line) {
        int end = 0;
        while (end < line.length() && !Character.isDigit(line.charAt(end))) {
            end++;
        }
        return line.substring(0, end).strip();
    }
}
