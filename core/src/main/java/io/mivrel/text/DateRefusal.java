package io.mivrel.text;

import io.mivrel.text.DatePart.Says;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Explains why a {@link DatePattern} refused a cell, and what was probably meant. */
final class DateRefusal {
    private static final List<String> USUAL =
            List.of("dd/MM/uuuu", "uuuu-MM-dd", "dd.MM.uuuu", "dd-MM-uuuu", "d/M/uuuu", "dd MMM uuuu");

    private final DatePattern pattern;
    private final List<DatePart> parts;

    DateRefusal(DatePattern pattern, List<DatePart> parts) {
        this.pattern = pattern;
        this.parts = parts;
    }

    DatePattern.Refusal of(String text) {
        if (pattern.parse(text) == DatePattern.WRONG_WEEKDAY) {
            return weekday(text);
        }
        int[] numbers = parts.contains(DatePart.SERIAL) ? null : numbersIn(text);
        return numbers == null ? noDate(text) : impossible(text, numbers[0], numbers[1], numbers[2]);
    }

    private DatePattern.Refusal noDate(String text) {
        return new DatePattern.Refusal("is not a date in the pattern " + pattern, other(text));
    }

    private DatePattern.Refusal impossible(String text, int writtenYear, int month, int day) {
        int year = Math.max(1, writtenYear);
        if (month < 1 || month > 12) {
            boolean swapped = day >= 1 && day <= 12 && month >= 1 && month <= DatePattern.daysIn(year, day);
            return new DatePattern.Refusal(
                    "there is no month " + month,
                    swapped ? "day and month swapped? " + pattern.format(LocalDate.of(year, day, month)) : "");
        }
        int most = DatePattern.daysIn(year, month);
        if (day >= 1 && day <= most) {
            return noDate(text);
        }
        YearMonth at = YearMonth.of(year, month);
        return new DatePattern.Refusal(
                DatePattern.name(at.getMonth(), true) + (month == 2 ? " " + writtenYear : "") + " has " + most
                        + " days",
                pattern.format(at.atEndOfMonth()) + " or "
                        + pattern.format(at.plusMonths(1).atDay(1)) + "?");
    }

    private DatePattern.Refusal weekday(String text) {
        DatePattern rest = withoutWeekday();
        int cut = text.length()
                - (int) text.chars().dropWhile(ch -> !Character.isDigit(ch)).count();
        long day = rest == null ? DatePattern.UNREADABLE : rest.parse(text.substring(cut));
        if (rest == null || !DatePattern.isDate(day)) {
            return new DatePattern.Refusal("the day name does not belong to the date", "");
        }
        LocalDate date = LocalDate.ofEpochDay(day);
        String named = text.substring(0, Math.min(3, text.length())).toLowerCase(Locale.ROOT);
        return new DatePattern.Refusal(
                rest.format(date) + " is a " + DatePattern.name(date.getDayOfWeek(), true), meant(date, named, rest));
    }

    private static String meant(LocalDate date, String named, DatePattern rest) {
        if (date.getDayOfMonth() <= 12) {
            LocalDate swapped = LocalDate.of(date.getYear(), date.getDayOfMonth(), date.getMonthValue());
            if (isOn(swapped, named)) {
                return "day and month swapped? " + rest.format(swapped) + " fits the day name";
            }
        }
        for (int off = 1; off <= 3; off++) {
            for (LocalDate near : List.of(date.minusDays(off), date.plusDays(off))) {
                if (isOn(near, named)) {
                    return "the nearest such day is " + rest.format(near);
                }
            }
        }
        return "";
    }

    private static boolean isOn(LocalDate date, String named) {
        return DatePattern.name(date.getDayOfWeek(), false).equalsIgnoreCase(named);
    }

    private @Nullable DatePattern withoutWeekday() {
        String rest = pattern.pattern().replaceFirst("^[E ]+", "");
        return rest.equals(pattern.pattern()) ? null : DatePattern.of(rest, pattern.centuryFrom());
    }

    // Year, month and day when the text has the pattern's form but not a possible date.
    private int @Nullable [] numbersIn(String text) {
        String digits = text.replaceAll("[^0-9]+", " ").strip();
        String[] found = digits.isEmpty() ? new String[0] : digits.split(" ");
        int[] result = new int[3];
        int next = 0;
        for (DatePart part : parts) {
            if (part == DatePart.MONTH_NAME || part == DatePart.MONTH_FULL) {
                return null;
            }
            if (part.says == Says.TIME) {
                next++;
            } else if (part.isNumber()) {
                if (next >= found.length || !fits(found[next], part)) {
                    return null;
                }
                int n = Integer.parseInt(found[next++]);
                result[part.says.ordinal()] = part == DatePart.SHORT_YEAR ? pattern.inWindow(n) : n;
            }
        }
        return next == found.length ? result : null;
    }

    private static boolean fits(String figures, DatePart part) {
        int least = part == DatePart.YEAR ? part.leastFigures : 1;
        return figures.length() >= least && figures.length() <= part.mostFigures;
    }

    private String other(String text) {
        for (String guess : USUAL) {
            if (!guess.equals(pattern.pattern())
                    && DatePattern.isDate(DatePattern.of(guess).parse(text))) {
                return "it fits the pattern " + guess;
            }
        }
        return "";
    }
}
