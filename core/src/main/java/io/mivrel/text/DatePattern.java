package io.mivrel.text;

import io.mivrel.text.DatePart.Says;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * A date pattern compiled once: {@code uuuu} year, {@code uu} year in a declared window of a hundred years, {@code MM}
 * or {@code M} month, {@code MMM} or {@code MMMM} month name, {@code dd} or {@code d} day, {@code EEE} or {@code EEEE} day
 * name, and every other character as itself ({@code yyyy} and {@code yy} are read as {@code uuuu} and {@code uu}); or
 * {@code serial}, the number that spreadsheets give a day, counted from 1900. Doubled letters take exactly two digits,
 * single ones one or two. Names are read in the languages of {@link DateNames}, with or without a point, and written in
 * the language that is named, else in English; the day name must belong to the date. A day may have the ending of an ordinal.
 *
 * <p>A time of day may stand there too and is left aside, since the day is the one that is printed: {@code HH} or {@code H}
 * and {@code hh} or {@code h} hour, {@code mm} minute, {@code ss} second, {@code S} decimals of it, {@code a} half of the
 * day, {@code XXX} offset or {@code Z}, and {@code T} as itself. Immutable.
 */
public final class DatePattern {
    /** The cell is blank. */
    public static final long BLANK = Long.MIN_VALUE;
    /** The cell is no date in this pattern. */
    public static final long UNREADABLE = Long.MIN_VALUE + 1;
    /** The day name does not belong to the date. */
    public static final long WRONG_WEEKDAY = Long.MIN_VALUE + 2;

    /** {@code uuuu-MM-dd} (ISO 8601). */
    public static final DatePattern ISO;

    /** Days of the year before each month, from 1 to 13, of a common and of a leap year. */
    private static final int[][] DAYS_BEFORE = {
        {0, 0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334, 365},
        {0, 0, 31, 60, 91, 121, 152, 182, 213, 244, 274, 305, 335, 366}
    };

    static {
        ISO = of("uuuu-MM-dd");
    }

    private static final List<String> ORDINALS = List.of("st", "nd", "rd", "th", "er", ".", "\u00ba", "\u00b0");

    private static final String SERIAL_NAME = "serial";
    /** The serial number of 1 January 1970; spreadsheets count a 29 February 1900 that never was, number 60. */
    private static final int SERIAL_EPOCH = 25_569;

    private static final int LAST_SERIAL = 2_958_465;

    /** {@code literal} is nil for what is no literal. */
    private record Part(DatePart kind, char literal) {}

    private final String pattern;
    private final int centuryFrom;
    private final Part[] parts;
    private final boolean yearless;
    private final DateNames names;

    private DatePattern(String pattern, int centuryFrom, List<Part> parts, DateNames names) {
        this.names = names;
        this.pattern = pattern;
        this.centuryFrom = centuryFrom;
        this.parts = parts.toArray(Part[]::new);
        this.yearless = count(parts, Says.YEAR) == 0;
    }

    /** A pattern with a four-digit year. Throws {@link IllegalArgumentException} that says what is wrong with it. */
    public static DatePattern of(String pattern) {
        return of(pattern, 0);
    }

    /**
     * A pattern whose two-digit years lie in the hundred years from {@code centuryFrom} on; 0 when none is declared,
     * and then {@code uu} is refused. Throws {@link IllegalArgumentException} that says what is wrong with it.
     */
    public static DatePattern of(String pattern, int centuryFrom) {
        DatePattern made = compiled(pattern, centuryFrom);
        if (made.yearless) {
            throw new IllegalArgumentException(
                    "'" + pattern + "' must have one day, one month and one year, such as dd/MM/uuuu");
        }
        return made;
    }

    /**
     * A pattern of a day and a month, such as {@code dd MMM}, which reads days of the year by {@link #dayOfYear}. Throws
     * {@link IllegalArgumentException} that says what is wrong with it.
     */
    public static DatePattern yearless(String pattern) {
        DatePattern made = compiled(pattern, 0);
        if (!made.yearless || count(List.of(made.parts), Says.WEEKDAY) > 0) {
            throw new IllegalArgumentException("'" + pattern + "' must have one day and one month, such as dd MMM");
        }
        return made;
    }

    private static DatePattern compiled(String pattern, int centuryFrom) {
        if (pattern.equals(SERIAL_NAME)) {
            return new DatePattern(pattern, centuryFrom, List.of(new Part(DatePart.SERIAL, (char) 0)), DateNames.USUAL);
        }
        List<Part> parts = new ArrayList<>();
        int i = 0;
        while (i < pattern.length()) {
            char c = pattern.charAt(i);
            int run = 1;
            while (i + run < pattern.length() && pattern.charAt(i + run) == c) {
                run++;
            }
            i += run;
            if (!Character.isLetter(c) || c == 'T') {
                for (int k = 0; k < run; k++) {
                    parts.add(new Part(DatePart.LITERAL, c));
                }
            } else {
                parts.add(new Part(part(c, run, pattern), (char) 0));
            }
        }
        check(pattern, parts, centuryFrom);
        return new DatePattern(pattern, centuryFrom, parts, DateNames.USUAL);
    }

    private static DatePart part(char c, int run, String pattern) {
        DatePart part = DatePart.of(c, run);
        if (part == null) {
            throw new IllegalArgumentException("'" + String.valueOf(c).repeat(run) + "' in '" + pattern
                    + "' is not known; use dd, MM, uuuu, MMM, EEE and marks between them");
        }
        return part;
    }

    private static void check(String pattern, List<Part> parts, int centuryFrom) {
        if (count(parts, Says.YEAR) > 1 || count(parts, Says.MONTH) != 1 || count(parts, Says.DAY) != 1) {
            throw new IllegalArgumentException(
                    "'" + pattern + "' must have one day, one month and one year, such as dd/MM/uuuu");
        }
        if (hasShortYear(parts) && centuryFrom == 0) {
            throw new IllegalArgumentException(
                    "'" + pattern + "' has a two-digit year: add 'century from', such as 1970 for 1970 to 2069");
        }
    }

    private static long count(List<Part> parts, Says what) {
        return parts.stream().filter(p -> p.kind.says == what).count();
    }

    private static boolean hasShortYear(List<Part> parts) {
        return parts.stream().anyMatch(p -> p.kind == DatePart.SHORT_YEAR);
    }

    /** The first of the hundred years that its two-digit years lie in; 0 when it has none. */
    public int centuryFrom() {
        return hasShortYear(List.of(parts)) ? centuryFrom : 0;
    }

    /** The same with names of months and days in one language, by its code of ISO 639; empty for the usual ones. */
    public DatePattern in(String language) {
        return new DatePattern(pattern, centuryFrom, List.of(parts), DateNames.of(language));
    }

    /** The same with other two-digit years. */
    public DatePattern from(int century) {
        return new DatePattern(pattern, century, List.of(parts), names);
    }

    /** The code of the language of its names; empty for the usual ones. */
    public String language() {
        return names.language();
    }

    /** In which order day, month and year stand, such as {@code dMu}. */
    public String order() {
        return pattern().replaceAll("[^dMu]", "").replaceAll("(.)\\1+", "$1");
    }

    /** The pattern as it was given. */
    public String pattern() {
        return pattern;
    }

    /** True when {@code parsed} is an epoch day and not a refusal or blank. */
    public static boolean isDate(long parsed) {
        return parsed > WRONG_WEEKDAY;
    }

    /** The same of a string. */
    public long parse(String cell) {
        byte[] bytes = cell.getBytes(StandardCharsets.UTF_8);
        return parse(bytes, 0, bytes.length);
    }

    /** The epoch day of a cell, or one of the constants above. */
    public long parse(byte[] c, int start, int end) {
        return yearless ? UNREADABLE : parse(c, start, end, 0);
    }

    /** What a pattern without a year reads, as an epoch day of the leap year 2000; or one of the constants above. */
    public long dayOfYear(byte[] c, int start, int end) {
        return parse(c, start, end, 2000);
    }

    private long parse(byte[] c, int start, int end, int ofYear) {
        int i = Spans.trimStart(c, start, end);
        int e = Spans.trimEnd(c, i, end);
        if (i == e) {
            return BLANK;
        }
        if (parts[0].kind == DatePart.SERIAL) {
            return serial(c, i, e);
        }
        int year = ofYear;
        int month = 0;
        int day = 0;
        int weekday = 0;
        for (int p = 0; p < parts.length; p++) {
            Part part = parts[p];
            int taken = part.literal != 0 ? literal(part.literal, c, i, e) : part.kind.take(names, c, i, e);
            if (taken < 0) {
                return UNREADABLE;
            }
            i = behind(p, c, i + (taken & 0xFFFF), e);
            int value = taken >> 16;
            switch (part.kind.says) {
                case DAY -> day = value;
                case MONTH -> month = value;
                case YEAR -> year = part.kind == DatePart.SHORT_YEAR ? inWindow(value) : value;
                case WEEKDAY -> weekday = value;
                default -> {
                    // It says nothing of the day.
                }
            }
        }
        if (i != e || month < 1 || month > 12 || day < 1 || year < 1 || day > daysIn(year, month)) {
            return UNREADABLE;
        }
        long epochDay = epochDay(year, month, day);
        if (weekday != 0 && (weekday & 1 << Math.floorMod(epochDay + 3, 7)) == 0) {
            return WRONG_WEEKDAY;
        }
        return epochDay;
    }

    private static int literal(char literal, byte[] c, int i, int e) {
        int length = Spans.match(c, i, e, literal);
        if (literal == ' ') {
            length = length == 0 && i < e ? Spans.wideBlank(c, i, e) : length;
            // As in '28 de julio de 2027'.
            length += length > 0 && Spans.startsWith(c, i + length, e, "de ") ? 3 : 0;
        }
        return length == 0 ? -1 : length;
    }

    // The point of a short name or of an ordinal, its ending, and the comma behind a day's name, unless the pattern has
    // them.
    private int behind(int p, byte[] c, int i, int e) {
        char next = p + 1 < parts.length ? parts[p + 1].literal : 0;
        if (i == e || next != 0 && c[i] == next) {
            return i;
        }
        return switch (parts[p].kind) {
            case MONTH_NAME, MONTH_FULL -> c[i] == '.' ? i + 1 : i;
            case WEEKDAY, WEEKDAY_FULL -> {
                int at = c[i] == '.' ? i + 1 : i;
                yield at < e && c[at] == ',' && next != ',' ? at + 1 : at;
            }
            case DAY, DAY_LOOSE -> i + ordinal(c, i, e, next);
            default -> i;
        };
    }

    // Before a blank only: a point between figures is a mark of the date.
    private static int ordinal(byte[] c, int i, int e, char next) {
        if (next != ' ') {
            return 0;
        }
        for (String ending : ORDINALS) {
            int to = i + ending.getBytes(StandardCharsets.UTF_8).length;
            if (to < e && c[to] == ' ' && Spans.startsWith(c, i, e, ending)) {
                return to - i;
            }
        }
        return 0;
    }

    int inWindow(int twoDigits) {
        int year = centuryFrom - centuryFrom % 100 + twoDigits;
        return year < centuryFrom ? year + 100 : year;
    }

    /** The English name of a month or day, short or in full, whatever locale data the JDK has. */
    static String name(Enum<?> monthOrDay, boolean full) {
        String name =
                monthOrDay.name().charAt(0) + monthOrDay.name().substring(1).toLowerCase(Locale.ROOT);
        return full ? name : name.substring(0, 3);
    }

    // By table rather than by cases: a file runs through the months, and each new case would be compiled anew.
    private static int leap(int year) {
        return (year & 3) == 0 && (year % 100 != 0 || year % 400 == 0) ? 1 : 0;
    }

    static int daysIn(int year, int month) {
        return DAYS_BEFORE[leap(year)][month + 1] - DAYS_BEFORE[leap(year)][month];
    }

    private static long epochDay(int year, int month, int day) {
        int before = year - 1;
        long days = 365L * before + before / 4 - before / 100 + before / 400 - 719_162;
        return days + DAYS_BEFORE[leap(year)][month] + day - 1;
    }

    // A time of day behind a point is left aside.
    private static long serial(byte[] c, int from, int end) {
        int serial = 0;
        int i = from;
        while (i < end && i - from < 8 && c[i] >= '0' && c[i] <= '9') {
            serial = serial * 10 + c[i++] - '0';
        }
        boolean digits = i > from;
        if (i < end && c[i] == '.') {
            i++;
            while (i < end && c[i] >= '0' && c[i] <= '9') {
                i++;
            }
        }
        if (!digits || i < end || serial < 1 || serial == 60 || serial > LAST_SERIAL) {
            return UNREADABLE;
        }
        return serial - SERIAL_EPOCH + (serial < 60 ? 1 : 0);
    }

    /** Appends a date in this pattern. */
    public void append(long epochDay, CellBuffer out) {
        LocalDate date = LocalDate.ofEpochDay(epochDay);
        for (Part part : parts) {
            if (part.literal != 0) {
                out.append(part.literal);
            } else {
                append(part.kind, date, out);
            }
        }
    }

    private void append(DatePart part, LocalDate date, CellBuffer out) {
        switch (part) {
            case SERIAL -> {
                long epochDay = date.toEpochDay();
                out.append(Long.toString(epochDay + SERIAL_EPOCH - (epochDay < 60 - SERIAL_EPOCH ? 1 : 0)));
            }
            case YEAR -> out.digits(date.getYear(), 4);
            case SHORT_YEAR -> out.digits(date.getYear() % 100, 2);
            case MONTH, MONTH_LOOSE -> out.digits(date.getMonthValue(), part.leastFigures);
            case DAY, DAY_LOOSE -> out.digits(date.getDayOfMonth(), part.leastFigures);
            case MONTH_NAME, MONTH_FULL -> out.append(names.month(date.getMonth(), part.isFullName()));
            case WEEKDAY, WEEKDAY_FULL -> out.append(names.day(date.getDayOfWeek(), part.isFullName()));
            case HALF_HOUR -> out.digits(12, 2);
            case FRACTION -> out.append('0');
            case HALF -> out.append("AM");
            case OFFSET -> out.append('Z');
            default -> out.digits(0, 2);
        }
    }

    /** The date in this pattern. */
    public String format(LocalDate date) {
        CellBuffer out = new CellBuffer();
        append(date.toEpochDay(), out);
        return out.toString();
    }

    /** In words, why {@link #parse} refused a cell, and what was probably meant. */
    public record Refusal(String reason, String suggestion) {}

    /** Explains a refusal; only to be asked for a cell that was refused. */
    public Refusal explain(String cell) {
        return new DateRefusal(this, Arrays.stream(parts).map(Part::kind).toList()).of(cell.strip());
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof DatePattern that && that.pattern.equals(pattern) && that.centuryFrom == centuryFrom;
    }

    @Override
    public int hashCode() {
        return pattern.hashCode() * 31 + centuryFrom;
    }

    @Override
    public String toString() {
        return pattern;
    }
}
