package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * A date pattern compiled once: {@code uuuu} year, {@code uu} year in a declared window of a hundred years, {@code MM}
 * or {@code M} month, {@code MMM} or {@code MMMM} month name, {@code dd} or {@code d} day, {@code EEE} or {@code EEEE} day
 * name, and every other character as itself ({@code yyyy} and {@code yy} are read as {@code uuuu} and {@code uu}); or
 * {@code serial}, the number that spreadsheets give a day, counted from 1900. Doubled letters take exactly two digits,
 * single ones one or two. Names are read in the languages of {@link DateNames}, with or without a point, and written in
 * English; the day name must belong to the date. A day may have the ending of an ordinal.
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

    private static final String[][] MONTHS = names(true);
    private static final String[][] DAYS = names(false);

    static {
        ISO = of("uuuu-MM-dd");
    }

    private enum Kind {
        YEAR,
        SHORT_YEAR,
        MONTH,
        MONTH_LOOSE,
        MONTH_NAME,
        MONTH_FULL,
        DAY,
        DAY_LOOSE,
        WEEKDAY,
        WEEKDAY_FULL,
        HOUR,
        HALF_HOUR,
        MINUTE,
        SECOND,
        FRACTION,
        HALF,
        OFFSET,
        /** The whole pattern: a number of days as spreadsheets count them. */
        SERIAL,
        LITERAL
    }

    private static final List<String> ORDINALS = List.of("st", "nd", "rd", "th", "er", ".", "\u00ba", "\u00b0");

    private static final String SERIAL_NAME = "serial";
    /** The serial number of 1 January 1970; spreadsheets count a 29 February 1900 that never was, number 60. */
    private static final int SERIAL_EPOCH = 25_569;

    private static final int LAST_SERIAL = 2_958_465;

    private record Part(Kind kind, char literal) {}

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
        this.yearless = count(parts, Kind.YEAR, Kind.SHORT_YEAR, Kind.SERIAL) == 0;
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
        if (!made.yearless || count(List.of(made.parts), Kind.WEEKDAY, Kind.WEEKDAY_FULL) > 0) {
            throw new IllegalArgumentException("'" + pattern + "' must have one day and one month, such as dd MMM");
        }
        return made;
    }

    private static DatePattern compiled(String pattern, int centuryFrom) {
        if (pattern.equals(SERIAL_NAME)) {
            return new DatePattern(pattern, centuryFrom, List.of(new Part(Kind.SERIAL, (char) 0)), DateNames.USUAL);
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
                    parts.add(new Part(Kind.LITERAL, c));
                }
            } else {
                parts.add(new Part(kind(c, run, pattern), (char) 0));
            }
        }
        check(pattern, parts, centuryFrom);
        return new DatePattern(pattern, centuryFrom, parts, DateNames.USUAL);
    }

    private static Kind kind(char c, int run, String pattern) {
        Kind kind = switch (c) {
            case 'u', 'y' -> run == 4 ? Kind.YEAR : run == 2 ? Kind.SHORT_YEAR : null;
            case 'M' ->
                run == 1
                        ? Kind.MONTH_LOOSE
                        : run == 2 ? Kind.MONTH : run == 3 ? Kind.MONTH_NAME : run == 4 ? Kind.MONTH_FULL : null;
            case 'd' -> run == 1 ? Kind.DAY_LOOSE : run == 2 ? Kind.DAY : null;
            case 'E' -> run == 3 ? Kind.WEEKDAY : run == 4 ? Kind.WEEKDAY_FULL : null;
            case 'H' -> run <= 2 ? Kind.HOUR : null;
            case 'h' -> run <= 2 ? Kind.HALF_HOUR : null;
            case 'm' -> run == 2 ? Kind.MINUTE : null;
            case 's' -> run == 2 ? Kind.SECOND : null;
            case 'S' -> Kind.FRACTION;
            case 'a' -> run == 1 ? Kind.HALF : null;
            case 'X' -> run <= 3 ? Kind.OFFSET : null;
            default -> null;
        };
        if (kind == null) {
            throw new IllegalArgumentException("'" + String.valueOf(c).repeat(run) + "' in '" + pattern
                    + "' is not known; use dd, MM, uuuu, MMM, EEE and marks between them");
        }
        return kind;
    }

    private static void check(String pattern, List<Part> parts, int centuryFrom) {
        long years = count(parts, Kind.YEAR, Kind.SHORT_YEAR);
        long months = count(parts, Kind.MONTH, Kind.MONTH_LOOSE, Kind.MONTH_NAME, Kind.MONTH_FULL);
        long days = count(parts, Kind.DAY, Kind.DAY_LOOSE);
        if (years > 1 || months != 1 || days != 1) {
            throw new IllegalArgumentException(
                    "'" + pattern + "' must have one day, one month and one year, such as dd/MM/uuuu");
        }
        if (count(parts, Kind.SHORT_YEAR) == 1 && centuryFrom == 0) {
            throw new IllegalArgumentException(
                    "'" + pattern + "' has a two-digit year: add 'century from', such as 1970 for 1970 to 2069");
        }
    }

    private static long count(List<Part> parts, Kind... kinds) {
        return parts.stream().filter(p -> List.of(kinds).contains(p.kind)).count();
    }

    /** The first of the hundred years that its two-digit years lie in; 0 when it has none. */
    public int centuryFrom() {
        return count(List.of(parts), Kind.SHORT_YEAR) == 0 ? 0 : centuryFrom;
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
        if (parts[0].kind == Kind.SERIAL) {
            return serial(c, i, e);
        }
        int year = ofYear;
        int month = 0;
        int day = 0;
        int weekday = 0;
        for (int p = 0; p < parts.length; p++) {
            Part part = parts[p];
            int taken = take(part, c, i, e);
            if (taken < 0) {
                return UNREADABLE;
            }
            i = behind(p, c, i + (taken & 0xFFFF), e);
            int value = taken >> 16;
            switch (part.kind) {
                case DAY, DAY_LOOSE -> day = value;
                case MONTH, MONTH_LOOSE, MONTH_NAME, MONTH_FULL -> month = value;
                case SHORT_YEAR -> year = inWindow(value);
                case YEAR -> year = value;
                case WEEKDAY, WEEKDAY_FULL -> weekday = value;
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

    // What a part of the pattern takes of the cell: its value in the upper half, its length in the lower; or -1.
    private int take(Part part, byte[] c, int i, int e) {
        return switch (part.kind) {
            case LITERAL -> {
                int length = Spans.match(c, i, e, part.literal);
                if (part.literal == ' ') {
                    length = length == 0 && i < e ? Spans.wideBlank(c, i, e) : length;
                    // As in '28 de julio de 2027'.
                    length += length > 0 && Spans.startsWith(c, i + length, e, "de ") ? 3 : 0;
                }
                yield length == 0 ? -1 : length;
            }
            case DAY, MONTH, SHORT_YEAR -> taken(fixed(c, i, e, 2), 2);
            case YEAR -> taken(fixed(c, i, e, 4), 4);
            case DAY_LOOSE, MONTH_LOOSE -> {
                int width = i + 1 < e && isDigit(c[i + 1]) ? 2 : 1;
                yield taken(fixed(c, i, e, width), width);
            }
            case MONTH_NAME, MONTH_FULL -> {
                int length = DateNames.letters(c, i, e);
                int month = names.month(c, i, length, part.kind == Kind.MONTH_FULL);
                yield month == 0 ? -1 : taken(month, length);
            }
            case WEEKDAY, WEEKDAY_FULL -> {
                int length = DateNames.letters(c, i, e);
                int days = names.days(c, i, length, part.kind == Kind.WEEKDAY_FULL);
                yield days == 0 ? -1 : taken(days, length);
            }
            case HOUR -> time(c, i, e, 23);
            case HALF_HOUR -> time(c, i, e, 12);
            case MINUTE, SECOND -> fixed(c, i, e, 2) > 59 ? -1 : taken(fixed(c, i, e, 2), 2);
            case FRACTION -> {
                int digits = 0;
                while (i + digits < e && digits < 9 && isDigit(c[i + digits])) {
                    digits++;
                }
                yield digits == 0 ? -1 : digits;
            }
            case HALF -> half(c, i, e);
            case OFFSET -> offset(c, i, e);
            case SERIAL -> throw new IllegalStateException("stands alone");
        };
    }

    private static int taken(int value, int length) {
        return value < 0 ? -1 : value << 16 | length;
    }

    // The point of a short name or of an ordinal, its ending, and the comma behind a day's name, unless the pattern has
    // them.
    private int behind(int p, byte[] c, int i, int e) {
        char next = p + 1 < parts.length && parts[p + 1].kind == Kind.LITERAL ? parts[p + 1].literal : 0;
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

    private static int time(byte[] c, int i, int e, int most) {
        int width = i + 1 < e && isDigit(c[i + 1]) ? 2 : 1;
        int value = fixed(c, i, e, width);
        return value > most ? -1 : taken(value, width);
    }

    // am, pm, a.m., p.m., in any case, perhaps with a blank.
    private static int half(byte[] c, int i, int e) {
        int letters = 0;
        int at = i;
        while (at < e && letters < 2) {
            int small = small(c[at]);
            if (letters == 0 && (small == 'a' || small == 'p') || letters == 1 && small == 'm') {
                letters++;
            } else if (letters == 0 || c[at] != '.' && c[at] != ' ') {
                return -1;
            }
            at++;
        }
        return letters < 2 ? -1 : (at < e && c[at] == '.' ? at + 1 : at) - i;
    }

    private static int offset(byte[] c, int i, int e) {
        if (i < e && c[i] == 'Z') {
            return 1;
        }
        if (i + 3 > e || c[i] != '+' && c[i] != '-' || fixed(c, i + 1, e, 2) < 0) {
            return -1;
        }
        int minutes = i + 3 < e && c[i + 3] == ':' ? i + 4 : i + 3;
        return fixed(c, minutes, e, 2) >= 0 ? minutes + 2 - i : 3;
    }

    private int inWindow(int twoDigits) {
        int year = centuryFrom - centuryFrom % 100 + twoDigits;
        return year < centuryFrom ? year + 100 : year;
    }

    private static boolean isDigit(byte c) {
        return c >= '0' && c <= '9';
    }

    private static int fixed(byte[] c, int i, int e, int width) {
        if (i + width > e) {
            return -1;
        }
        int n = 0;
        for (int k = i; k < i + width; k++) {
            if (!isDigit(c[k])) {
                return -1;
            }
            n = n * 10 + c[k] - '0';
        }
        return n;
    }

    private static int small(byte letter) {
        return letter >= 'A' && letter <= 'Z' ? letter + 32 : letter;
    }

    // Short and full names in lower case. The enum constants are the English names, whatever locale data the JDK has.
    private static String[][] names(boolean months) {
        String[] full = Arrays.<Enum<?>>stream(months ? Month.values() : DayOfWeek.values())
                .map(constant -> constant.toString().toLowerCase(Locale.ROOT))
                .toArray(String[]::new);
        String[] abbreviated =
                Arrays.stream(full).map(name -> name.substring(0, 3)).toArray(String[]::new);
        return new String[][] {abbreviated, full};
    }

    // By table rather than by cases: a file runs through the months, and each new case would be compiled anew.
    private static int leap(int year) {
        return (year & 3) == 0 && (year % 100 != 0 || year % 400 == 0) ? 1 : 0;
    }

    private static int daysIn(int year, int month) {
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
            switch (part.kind) {
                case LITERAL -> out.append(part.literal);
                case SERIAL ->
                    out.append(Long.toString(epochDay + SERIAL_EPOCH - (epochDay < 60 - SERIAL_EPOCH ? 1 : 0)));
                case YEAR -> out.digits(date.getYear(), 4);
                case SHORT_YEAR -> out.digits(date.getYear() % 100, 2);
                case MONTH -> out.digits(date.getMonthValue(), 2);
                case MONTH_LOOSE -> out.digits(date.getMonthValue(), 1);
                case DAY -> out.digits(date.getDayOfMonth(), 2);
                case DAY_LOOSE -> out.digits(date.getDayOfMonth(), 1);
                case MONTH_NAME, MONTH_FULL ->
                    out.append(capital(MONTHS[part.kind == Kind.MONTH_NAME ? 0 : 1][date.getMonthValue() - 1]));
                case HOUR, MINUTE, SECOND -> out.digits(0, 2);
                case HALF_HOUR -> out.digits(12, 2);
                case FRACTION -> out.append('0');
                case HALF -> out.append("AM");
                case OFFSET -> out.append('Z');
                case WEEKDAY, WEEKDAY_FULL ->
                    out.append(capital(DAYS[part.kind == Kind.WEEKDAY ? 0 : 1][
                            date.getDayOfWeek().getValue() - 1]));
            }
        }
    }

    private static String capital(String name) {
        return Character.toUpperCase(name.charAt(0)) + name.substring(1);
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
        String text = cell.strip();
        if (parse(text) == WRONG_WEEKDAY) {
            return weekday(text);
        }
        int[] numbers = parts[0].kind == Kind.SERIAL ? null : numbersIn(text);
        if (numbers == null) {
            return new Refusal("is no date in the pattern " + pattern, other(text));
        }
        int year = numbers[0];
        int month = numbers[1];
        int day = numbers[2];
        if (month < 1 || month > 12) {
            String swapped = day >= 1 && day <= 12 && month >= 1 && month <= daysIn(Math.max(1, year), day)
                    ? "day and month swapped? " + format(LocalDate.of(Math.max(1, year), day, month))
                    : "";
            return new Refusal("there is no month " + month, swapped);
        }
        int most = daysIn(Math.max(1, year), month);
        if (day < 1 || day > most) {
            YearMonth at = YearMonth.of(Math.max(1, year), month);
            String reason = capital(MONTHS[1][month - 1]) + (month == 2 ? " " + year : "") + " has " + most + " days";
            return new Refusal(
                    reason,
                    format(at.atEndOfMonth()) + " or " + format(at.plusMonths(1).atDay(1)) + "?");
        }
        return new Refusal("is no date in the pattern " + pattern, other(text));
    }

    private Refusal weekday(String text) {
        DatePattern rest = withoutWeekday();
        int cut = text.length()
                - (int) text.chars().dropWhile(ch -> !Character.isDigit(ch)).count();
        long day = rest == null ? UNREADABLE : rest.parse(text.substring(cut));
        if (rest == null || !isDate(day)) {
            return new Refusal("the day name does not belong to the date", "");
        }
        LocalDate date = LocalDate.ofEpochDay(day);
        String reason = rest.format(date) + " is a "
                + capital(DAYS[1][date.getDayOfWeek().getValue() - 1]);
        String named = text.substring(0, Math.min(3, text.length())).toLowerCase(Locale.ROOT);
        if (date.getDayOfMonth() <= 12) {
            LocalDate swapped = LocalDate.of(date.getYear(), date.getDayOfMonth(), date.getMonthValue());
            if (DAYS[0][swapped.getDayOfWeek().getValue() - 1].equals(named)) {
                return new Refusal(reason, "day and month swapped? " + rest.format(swapped) + " fits the day name");
            }
        }
        for (int off = 1; off <= 3; off++) {
            for (LocalDate near : List.of(date.minusDays(off), date.plusDays(off))) {
                if (DAYS[0][near.getDayOfWeek().getValue() - 1].equals(named)) {
                    return new Refusal(reason, "the nearest such day is " + rest.format(near));
                }
            }
        }
        return new Refusal(reason, "");
    }

    private @Nullable DatePattern withoutWeekday() {
        int letters = 0;
        while (letters < pattern.length() && (pattern.charAt(letters) == 'E' || pattern.charAt(letters) == ' ')) {
            letters++;
        }
        return letters == 0 ? null : of(pattern.substring(letters), centuryFrom);
    }

    // Year, month and day when the text has the pattern's form but not a possible date.
    private int @Nullable [] numbersIn(String text) {
        String digits = text.replaceAll("[^0-9]+", " ").strip();
        String[] found = digits.isEmpty() ? new String[0] : digits.split(" ");
        int[] result = new int[3];
        int next = 0;
        for (Part part : parts) {
            boolean ofTime = part.kind == Kind.HOUR
                    || part.kind == Kind.HALF_HOUR
                    || part.kind == Kind.MINUTE
                    || part.kind == Kind.SECOND
                    || part.kind == Kind.FRACTION;
            next += ofTime ? 1 : 0;
            int place = switch (part.kind) {
                case YEAR, SHORT_YEAR -> 0;
                case MONTH, MONTH_LOOSE -> 1;
                case DAY, DAY_LOOSE -> 2;
                default -> -1;
            };
            if (part.kind == Kind.MONTH_NAME || part.kind == Kind.MONTH_FULL) {
                return null;
            }
            if (place >= 0) {
                int width = part.kind == Kind.YEAR ? 4 : 2;
                if (next >= found.length || found[next].length() > width) {
                    return null;
                }
                if (part.kind == Kind.YEAR && found[next].length() < width) {
                    return null;
                }
                int n = Integer.parseInt(found[next++]);
                result[place] = part.kind == Kind.SHORT_YEAR ? inWindow(n) : n;
            }
        }
        return next == found.length ? result : null;
    }

    private String other(String text) {
        for (String guess :
                List.of("dd/MM/uuuu", "uuuu-MM-dd", "dd.MM.uuuu", "dd-MM-uuuu", "d/M/uuuu", "dd MMM uuuu")) {
            if (!guess.equals(pattern) && isDate(of(guess).parse(text))) {
                return "it fits the pattern " + guess;
            }
        }
        return "";
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
