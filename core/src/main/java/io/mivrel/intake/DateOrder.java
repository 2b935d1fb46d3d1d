package io.mivrel.intake;

import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowOrder;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Follows the dates of a file from row to row. In a file that is in the order of its dates but for a few, those few are
 * probably wrong: rows of one day that stand between two others and belong neither behind the one nor before the other.
 * For one thread.
 */
final class DateOrder {
    /** Of so many steps one may go the other way, and the file is in order still. */
    private static final int STEPS_A_SLIP = 50;

    private static final int MOST_SLIPS = 1000;
    /** At an end of the file, a date that the run does not want is odd only when it is so many days away. */
    private static final int FAR = 31;
    /** So far away from its neighbours, a date may have day and month swapped; at an end, if that brings it {@link #NEAR}. */
    private static final int WEEKS = 14;

    private static final int NEAR = 8;

    /** Rows one after another with the same day. */
    private record Rows(long day, long first, long last) {}

    /**
     * Rows whose date does not belong where they stand.
     *
     * @param first the first row
     * @param last the last row; all between have the same date
     */
    record Odd(long first, long last, String date, String reason, String suggestion) {
        boolean covers(long row) {
            return row >= first && row <= last;
        }

        Odd meaning(LocalDate meant) {
            return new Odd(first, last, date, reason, "was " + meant + " meant?");
        }
    }

    private final RowOrder order;
    private final List<Rows[]> peaks = new ArrayList<>();
    private final List<Rows[]> dips = new ArrayList<>();
    private Rows before = new Rows(SourceRecord.ABSENT, 0, 0);
    private Rows here = before;
    private Rows head = before;
    private Rows second = before;
    private long day = SourceRecord.ABSENT;
    private long first;
    private long last;
    private long ups;
    private long downs;

    DateOrder(RowOrder order) {
        this.order = order;
    }

    void next(long row, long on) {
        if (on != day) {
            step();
            day = on;
            first = row;
        }
        last = row;
    }

    // The rows of the day at hand are complete.
    private void step() {
        if (day == SourceRecord.ABSENT) {
            return;
        }
        Rows next = new Rows(day, first, last);
        if (head.first == 0) {
            head = next;
        } else if (second.first == 0) {
            second = next;
        }
        if (here.first > 0) {
            ups += next.day > here.day ? 1 : 0;
            downs += next.day < here.day ? 1 : 0;
            if (before.first > 0 && Math.max(peaks.size(), dips.size()) <= MOST_SLIPS) {
                boolean peak = here.day > before.day && here.day > next.day;
                boolean dip = here.day < before.day && here.day < next.day;
                if (peak) {
                    peaks.add(new Rows[] {before, here, next});
                } else if (dip) {
                    dips.add(new Rows[] {before, here, next});
                }
            }
        }
        before = here;
        here = next;
    }

    /**
     * The file has ended: the rows that stand out.
     *
     * @param from first day that the run wants
     * @param to last day that the run wants
     * @param unwantedOnly true to answer only those that would be left out for their date
     */
    List<Odd> finish(long from, long to, boolean unwantedOnly) {
        List<Odd> odd = new ArrayList<>();
        if (!isInOrder()) {
            return odd;
        }
        for (Rows[] three : standingOut()) {
            if (!unwantedOnly
                    || isUnwanted(three[1], from, to)
                            && !isUnwanted(three[0], from, to)
                            && !isUnwanted(three[2], from, to)) {
                odd.add(between(three[0], three[1], three[2]));
            }
        }
        if (odd.isEmpty()) {
            ends(isRising(), from, to, unwantedOnly, odd);
        }
        return odd;
    }

    private boolean isInOrder() {
        step();
        day = SourceRecord.ABSENT;
        long slips = Math.min(MOST_SLIPS, Math.max(1, (ups + downs) / STEPS_A_SLIP));
        return ups + downs >= 2 && Math.min(ups, downs) <= slips;
    }

    private boolean isRising() {
        return ups != downs ? ups > downs : head.day != here.day ? head.day < here.day : order == RowOrder.OLDEST_FIRST;
    }

    // Each with its neighbours. Of a peak in rising dates, either the peak is wrong or what comes behind it, a dip
    // then.
    private List<Rows[]> standingOut() {
        boolean rising = isRising();
        return Stream.concat(peaks.stream(), dips.stream())
                .filter(three -> rising ? three[0].day <= three[2].day : three[0].day >= three[2].day)
                .toList();
    }

    /** The file has ended: rows that stand weeks away from their neighbours, where day and month swapped fit. */
    List<Odd> swapped() {
        List<Odd> found = new ArrayList<>();
        if (!isInOrder()) {
            return found;
        }
        for (Rows[] three : standingOut()) {
            LocalDate swapped = swapped(date(three[1]));
            long from = Math.min(three[0].day, three[2].day);
            long to = Math.max(three[0].day, three[2].day);
            boolean far = three[1].day < from - WEEKS || three[1].day > to + WEEKS;
            if (swapped != null && far && swapped.toEpochDay() >= from && swapped.toEpochDay() <= to) {
                found.add(between(three[0], three[1], three[2]).meaning(swapped));
            }
        }
        if (Math.min(ups, downs) == 0) {
            atAnEnd(head, second, "before", found);
            atAnEnd(here, before, "behind", found);
        }
        return found;
    }

    private static void atAnEnd(Rows rows, Rows beside, String where, List<Odd> found) {
        LocalDate swapped = swapped(date(rows));
        if (swapped != null
                && Math.abs(rows.day - beside.day) >= WEEKS
                && Math.abs(swapped.toEpochDay() - beside.day) < NEAR) {
            found.add(beside(rows, beside, where, true).meaning(swapped));
        }
    }

    private static @Nullable LocalDate swapped(LocalDate date) {
        boolean twoReadings = date.getDayOfMonth() <= 12 && date.getDayOfMonth() != date.getMonthValue();
        return twoReadings ? LocalDate.of(date.getYear(), date.getDayOfMonth(), date.getMonthValue()) : null;
    }

    private void ends(boolean rising, long from, long to, boolean unwantedOnly, List<Odd> odd) {
        boolean firstAgainst = !unwantedOnly && (rising ? head.day > second.day : head.day < second.day);
        boolean lastAgainst = !unwantedOnly && (rising ? here.day < before.day : here.day > before.day);
        if (firstAgainst || isFarOff(head, second, from, to)) {
            odd.add(beside(head, second, "before", !rising));
        }
        if (lastAgainst || isFarOff(here, before, from, to)) {
            odd.add(beside(here, before, "behind", rising));
        }
    }

    private static boolean isFarOff(Rows rows, Rows beside, long from, long to) {
        return isUnwanted(rows, from, to) && !isUnwanted(beside, from, to) && Math.abs(rows.day - beside.day) > FAR;
    }

    private static boolean isUnwanted(Rows rows, long from, long to) {
        return rows.day < from || rows.day > to;
    }

    private static Odd between(Rows before, Rows odd, Rows behind) {
        return new Odd(
                odd.first,
                odd.last,
                date(odd).toString(),
                "stands between " + date(before) + " (row " + before.last + ") and " + date(behind) + " (row "
                        + behind.first + ")",
                meant(date(odd), Math.min(before.day, behind.day), Math.max(before.day, behind.day), before.day));
    }

    private static Odd beside(Rows odd, Rows other, String where, boolean later) {
        return new Odd(
                odd.first,
                odd.last,
                date(odd).toString(),
                "stands " + where + " " + date(other) + " (row " + (where.equals("before") ? other.first : other.last)
                        + "), " + Math.abs(odd.day - other.day) + " days away",
                meant(date(odd), later ? other.day : other.day - FAR, later ? other.day + FAR : other.day, other.day));
    }

    // Day and month swapped, or another month or year, or digits of the day swapped: what lies between the neighbours.
    private static String meant(LocalDate odd, long from, long to, long near) {
        LocalDate least = LocalDate.ofEpochDay(from);
        List<LocalDate> candidates = new ArrayList<>();
        add(candidates, odd.getYear(), odd.getDayOfMonth(), odd.getMonthValue());
        int swapped = odd.getDayOfMonth() % 10 * 10 + odd.getDayOfMonth() / 10;
        for (LocalDate month = least.withDayOfMonth(1); month.toEpochDay() <= to; month = month.plusMonths(1)) {
            add(candidates, month.getYear(), month.getMonthValue(), odd.getDayOfMonth());
            add(candidates, month.getYear(), month.getMonthValue(), swapped);
            if (candidates.size() > 60) {
                break;
            }
        }
        return candidates.stream()
                .filter(date -> !date.equals(odd) && date.toEpochDay() >= from && date.toEpochDay() <= to)
                .min(Comparator.comparingLong(date -> Math.abs(date.toEpochDay() - near)))
                .map(date -> "was " + date + " meant?")
                .orElse("correct the date; if it is right, give the row its place by date");
    }

    private static void add(List<LocalDate> candidates, int year, int month, int dayOfMonth) {
        try {
            candidates.add(LocalDate.of(year, month, dayOfMonth));
        } catch (DateTimeException noSuchDay) {
            // Not what was meant.
        }
    }

    private static LocalDate date(Rows rows) {
        return LocalDate.ofEpochDay(rows.day);
    }
}
