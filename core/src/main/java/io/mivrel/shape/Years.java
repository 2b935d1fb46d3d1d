package io.mivrel.shape;

import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.text.DatePattern;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Dates that are written without a year: each takes the one year by which it lies in the period that the file states
 * above its rows, and stands in a column of its own as {@code uuuu-MM-dd}. A date that lies in no year of the period, or in
 * several, is not given one.
 *
 * @param column the column of the dates
 * @param pattern how they are written, such as {@code dd MMM}
 * @param period how the line begins that states the period; it holds its first and its last day
 * @param days how these are written
 * @param title the title of the new column
 */
public record Years(String column, DatePattern pattern, String period, DatePattern days, String title)
        implements Shape {
    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return new Rows(rows, this);
    }

    @Override
    public boolean adds(String name) {
        return title.equals(name);
    }

    @Override
    public List<String> needs() {
        return List.of(column);
    }

    /** First and last day that a text holds, as epoch days; {@code null} when it does not hold two in turn. */
    public static long @Nullable [] period(String text, DatePattern days) {
        long from = DatePattern.UNREADABLE;
        int at = 0;
        while (at < text.length()) {
            int end = isBoundary(text, at) ? endOfDate(text, at, days) : -1;
            if (end > 0) {
                long day = days.parse(text.substring(at, end));
                if (DatePattern.isDate(from)) {
                    return day < from ? null : new long[] {from, day};
                }
                from = day;
                at = end;
            } else {
                at++;
            }
        }
        return null;
    }

    private static boolean isBoundary(String text, int at) {
        return Character.isLetterOrDigit(text.charAt(at))
                && (at == 0 || !Character.isLetterOrDigit(text.charAt(at - 1)));
    }

    private static int endOfDate(String text, int at, DatePattern days) {
        for (int end = Math.min(text.length(), at + 30); end > at; end--) {
            boolean whole = end == text.length() || !Character.isLetterOrDigit(text.charAt(end));
            if (whole && DatePattern.isDate(days.parse(text.substring(at, end)))) {
                return end;
            }
        }
        return -1;
    }

    private static final class Rows extends ShapedRows {
        private final Years years;
        private int place;
        private int width;
        private long @Nullable [] period;

        Rows(RowSource inner, Years years) {
            super(inner);
            this.years = years;
        }

        @Override
        List<String> titlesOver(List<String> source) throws IOException {
            place = place(years.column, source, "years");
            width = source.size();
            List<String> titles = new ArrayList<>(source);
            titles.add(years.title);
            return titles;
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            if (row == null || row.ended() != null || row.fault() != null) {
                return row;
            }
            learnPeriod(row);
            if (row.aside() != null) {
                return row;
            }
            learnTitles(row);
            if (row.isBlank() || !fits(row, width)) {
                return row;
            }
            beginRow(row);
            copyAll(row, width);
            byte[] text = trimmed(row, place);
            long day = text.length == 0 ? DatePattern.BLANK : years.pattern.dayOfYear(text, 0, text.length);
            if (!DatePattern.isDate(day)) {
                add(text);
                return finishRow();
            }
            LocalDate dated = inPeriod(LocalDate.ofEpochDay(day));
            add(dated == null ? text : bytes(dated.toString()));
            Row out = finishRow();
            if (dated == null) {
                out.fault(RowFault.YEAR_UNKNOWN, row.trimmed(place));
            }
            return out;
        }

        // The line may be divided into cells, or be one.
        private void learnPeriod(Row row) {
            for (int i = 0; i < row.size(); i++) {
                if (row.trimmed(i).startsWith(years.period)) {
                    StringBuilder line = new StringBuilder();
                    for (int k = i; k < row.size(); k++) {
                        line.append(row.trimmed(k)).append(' ');
                    }
                    long[] found = period(line.toString(), years.days);
                    period = found == null ? period : found;
                }
            }
        }

        private @Nullable LocalDate inPeriod(LocalDate day) {
            if (period == null) {
                return null;
            }
            LocalDate from = LocalDate.ofEpochDay(period[0]);
            LocalDate to = LocalDate.ofEpochDay(period[1]);
            LocalDate only = null;
            for (int year = from.getYear(); year <= to.getYear(); year++) {
                LocalDate dated = day.withYear(year);
                // The 29th of February is no day of other years.
                boolean within =
                        dated.getDayOfMonth() == day.getDayOfMonth() && !dated.isBefore(from) && !dated.isAfter(to);
                if (within && only != null) {
                    return null;
                }
                only = within ? dated : only;
            }
            return only;
        }
    }
}
