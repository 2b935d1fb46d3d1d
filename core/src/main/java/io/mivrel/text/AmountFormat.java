package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import java.util.Objects;

/**
 * How amounts are written in a file, and the reader and writer for it. Strict: a thousands mark is accepted only where
 * a group of three ends, and more decimals than the currency has are refused unless they are zeros. Immutable.
 *
 * @param decimals decimals of the currency, 0 to 4
 * @param decimalMark the mark before the decimals; {@link #IMPLIED} when amounts are written in minor units
 * @param thousandsMark the mark between groups of three; 0 when there is none
 * @param brackets true when {@code (12.00)} means minus 12.00
 * @param trailingMinus true when {@code 12.00-} means minus 12.00
 * @param currencyMark a text such as a pound sign that may stand before or after the digits; empty when there is none
 * @param plusMark a text such as {@code DR} after the digits that says plus; empty when there is none
 * @param minusMark a text such as {@code CR} after the digits that says minus; empty when there is none
 */
public record AmountFormat(
        int decimals,
        char decimalMark,
        char thousandsMark,
        boolean brackets,
        boolean trailingMinus,
        String currencyMark,
        String plusMark,
        String minusMark) {

    /** In place of a decimal mark: the digits are minor units, as {@code 1250} for 12.50, and no mark is among them. */
    public static final char IMPLIED = '_';

    /** The cell is blank. */
    public static final long BLANK = Long.MIN_VALUE;
    /** The cell is not an amount in this form. */
    public static final long UNREADABLE = Long.MIN_VALUE + 1;
    /** The amount has decimals that the currency has not. */
    public static final long TOO_PRECISE = Long.MIN_VALUE + 2;
    /** The amount is beyond {@link #LARGEST}. */
    public static final long TOO_LARGE = Long.MIN_VALUE + 3;
    /** The largest amount in minor units, so that sums of many rows stay exact. */
    public static final long LARGEST = 1_000_000_000_000_000L;

    private static final long[] SCALE = {1, 10, 100, 1000, 10_000};
    /** The largest number that may be multiplied by the scale at the same place. */
    private static final long[] MOST = {LARGEST, LARGEST / 10, LARGEST / 100, LARGEST / 1000, LARGEST / 10_000};

    /** Amounts without marks for plus and minus. */
    public AmountFormat(
            int decimals,
            char decimalMark,
            char thousandsMark,
            boolean brackets,
            boolean trailingMinus,
            String currencyMark) {
        this(decimals, decimalMark, thousandsMark, brackets, trailingMinus, currencyMark, "", "");
    }

    public AmountFormat {
        Objects.requireNonNull(currencyMark);
        Objects.requireNonNull(plusMark);
        Objects.requireNonNull(minusMark);
        if (decimals < 0 || decimals > 4) {
            throw new IllegalArgumentException("decimals must be 0 to 4, not " + decimals);
        }
        if (decimalMark == IMPLIED && decimals != 0) {
            throw new IllegalArgumentException("amounts in minor units have no decimals of their own");
        }
        if (decimalMark == thousandsMark) {
            throw new IllegalArgumentException("the decimal mark and the thousands mark must differ");
        }
    }

    /** A point before the decimals and no other marks. */
    public static AmountFormat plain(int decimals) {
        return marked(decimals, '.', (char) 0);
    }

    /** With these marks, and a minus before a negative amount; 0 for no thousands mark. */
    public static AmountFormat marked(int decimals, char decimalMark, char thousandsMark) {
        return new AmountFormat(decimals, decimalMark, thousandsMark, false, false, "");
    }

    /** The same where brackets mean minus too. */
    public AmountFormat withBrackets() {
        return new AmountFormat(
                decimals, decimalMark, thousandsMark, true, trailingMinus, currencyMark, plusMark, minusMark);
    }

    /** The same where a minus may stand behind the digits too. */
    public AmountFormat withTrailingMinus() {
        return new AmountFormat(
                decimals, decimalMark, thousandsMark, brackets, true, currencyMark, plusMark, minusMark);
    }

    /** The same form for a currency with other decimals. */
    public AmountFormat withDecimals(int other) {
        if (decimalMark == IMPLIED) {
            return this;
        }
        return new AmountFormat(
                other, decimalMark, thousandsMark, brackets, trailingMinus, currencyMark, plusMark, minusMark);
    }

    /** True when the answer of {@link #parse} is an amount and not a refusal or blank. */
    public static boolean isAmount(long parsed) {
        return parsed > TOO_LARGE;
    }

    /** The same of a string. */
    public long parse(String cell) {
        byte[] bytes = cell.getBytes(StandardCharsets.UTF_8);
        return parse(bytes, 0, bytes.length);
    }

    /** The minor units of a cell, or one of the constants above. */
    public long parse(byte[] c, int start, int end) {
        if (start == end) {
            return BLANK;
        }
        if (decimals == 2) {
            long usual = usual(c, start, end);
            if (usual != AmountScan.UNSURE) {
                return usual;
            }
        }
        return parseSlowly(c, start, end);
    }

    // With blanks around it, as in fixed columns, and perhaps a minus behind it.
    private long usual(byte[] c, int start, int end) {
        int s = start;
        int e = end;
        while (s < e && c[s] == ' ') {
            s++;
        }
        while (e > s && c[e - 1] == ' ') {
            e--;
        }
        if (s == e) {
            return BLANK;
        }
        if (trailingMinus && c[e - 1] == '-' && c[s] != '-' && plusMark.isEmpty() && minusMark.isEmpty()) {
            long size = AmountScan.hundredths(c, s, e - 1, decimalMark, thousandsMark);
            return size == AmountScan.UNSURE ? size : -size;
        }
        return AmountScan.hundredths(c, s, e, decimalMark, thousandsMark);
    }

    /** The same, byte by byte. */
    long parseSlowly(byte[] c, int start, int end) {
        int s = Spans.trimStart(c, start, end);
        int e = Spans.trimEnd(c, s, end);
        if (s == e) {
            return BLANK;
        }
        if (!minusMark.isEmpty() || !plusMark.isEmpty()) {
            return marked(c, s, e);
        }
        return signed(c, s, e);
    }

    // A mark behind the digits says which side; a minus beside it would flip the sign twice.
    private long marked(byte[] c, int s, int e) {
        boolean minus = endsWith(c, s, e, minusMark);
        boolean plus = !minus && endsWith(c, s, e, plusMark);
        if (!minus && !plus) {
            return signed(c, s, e);
        }
        int digits = Spans.trimEnd(c, s, e - (minus ? minusMark : plusMark).getBytes(StandardCharsets.UTF_8).length);
        long value = s == digits ? UNREADABLE : signed(c, s, digits);
        return !isAmount(value) ? value : value < 0 ? UNREADABLE : minus ? -value : value;
    }

    static boolean endsWith(byte[] c, int s, int e, String mark) {
        byte[] wanted = mark.getBytes(StandardCharsets.UTF_8);
        if (wanted.length == 0 || e - s < wanted.length) {
            return false;
        }
        for (int i = 0; i < wanted.length; i++) {
            int found = c[e - wanted.length + i];
            int folded = found >= 'a' && found <= 'z' ? found - 32 : found;
            int want = wanted[i] >= 'a' && wanted[i] <= 'z' ? wanted[i] - 32 : wanted[i];
            if (folded != want) {
                return false;
            }
        }
        return true;
    }

    private long signed(byte[] c, int from, int to) {
        AmountSpan span = new AmountSpan(c, from, to, this);
        if (!span.takeSign()) {
            return UNREADABLE;
        }
        span.takeCurrency();
        long value = magnitude(c, span.from, span.to);
        return span.negative && value >= 0 ? -value : value;
    }

    private long magnitude(byte[] c, int s, int e) {
        long value = 0;
        int digits = 0;
        Groups groups = new Groups(thousandsMark == ',');
        int i = s;
        while (i < e) {
            int digit = c[i] - '0';
            if (digit >= 0 && digit <= 9) {
                value = value * 10 + digit;
                digits++;
                i++;
                continue;
            }
            int mark = mark(c, i, e, thousandsMark);
            if (mark == 0) {
                break;
            }
            if (!groups.end(digits)) {
                return UNREADABLE;
            }
            i += mark;
        }
        if (digits > 16) {
            return TOO_LARGE;
        }
        if (!groups.endLast(digits)) {
            return UNREADABLE;
        }
        int mark = i == e ? 0 : mark(c, i, e, decimalMark);
        return mark == 0 ? whole(value, digits, i == e) : withDecimals(c, i + mark, e, value);
    }

    /** Follows the groups of digits between thousands marks: of three, or in lakhs of two and the last of three. */
    private static final class Groups {
        private final boolean mayBeLakhs;
        private int count;
        /** Those of two digits, or of one at the beginning. */
        private int brief;

        private int from;

        Groups(boolean mayBeLakhs) {
            this.mayBeLakhs = mayBeLakhs;
        }

        /** A mark stands behind so many digits; false when none may. */
        boolean end(int digits) {
            int length = digits - from;
            boolean isFirst = count == 0;
            boolean lakhs = mayBeLakhs && length == 2 && (isFirst || brief == count);
            boolean sound = isFirst ? length >= 1 && length <= 3 : lakhs || length == 3 && brief <= 1;
            brief += length == 2 || isFirst && length == 1 ? 1 : 0;
            count++;
            from = digits;
            return sound;
        }

        /** The same at the end of the digits. */
        boolean endLast(int digits) {
            return count == 0 || digits - from == 3;
        }
    }

    // How many bytes the mark takes when it stands at this place; mostly it is ASCII.
    private static int mark(byte[] c, int i, int e, char mark) {
        if (c[i] >= 0) {
            return c[i] == mark && mark != 0 ? 1 : 0;
        }
        if (mark == ' ') {
            // A blank between groups is often one that does not break.
            return Spans.wideBlank(c, i, e);
        }
        return mark == '\'' ? Spans.match(c, i, e, '\u2019') : mark < 0x80 ? 0 : Spans.match(c, i, e, mark);
    }

    private long whole(long value, int digits, boolean ended) {
        return !ended || digits == 0 ? UNREADABLE : scaled(value, 0);
    }

    private long withDecimals(byte[] c, int s, int e, long whole) {
        long value = whole;
        int found = 0;
        for (int i = s; i < e; i++) {
            int digit = c[i] - '0';
            if (digit < 0 || digit > 9) {
                return UNREADABLE;
            }
            if (found < decimals) {
                value = value * 10 + digit;
                found++;
            } else if (digit != 0) {
                return onlyDigits(c, i, e) ? TOO_PRECISE : UNREADABLE;
            }
        }
        if (s == e) {
            return UNREADABLE;
        }
        return whole > MOST[decimals] ? TOO_LARGE : scaled(value, found);
    }

    // Compared before it is multiplied, which could wrap.
    private long scaled(long value, int found) {
        return value > MOST[decimals - found] ? TOO_LARGE : value * SCALE[decimals - found];
    }

    private static boolean onlyDigits(byte[] c, int s, int e) {
        for (int i = s; i < e; i++) {
            if (c[i] < '0' || c[i] > '9') {
                return false;
            }
        }
        return true;
    }

    /** Appends an amount: a leading minus for a negative one, no thousands marks unless declared. */
    public void append(long minor, CellBuffer out) {
        if (decimalMark >= 0x80 || thousandsMark >= 0x80) {
            appendWide(minor, out);
            return;
        }
        byte[] bytes = out.room(32);
        if (decimals == 2 && thousandsMark == 0) {
            out.cut(AmountPrint.hundredths(minor, decimalMark, bytes, out.length()));
            return;
        }
        // From the last digit to the first, into the end of the room, then moved to its place.
        int end = out.length() + 32;
        int at = end;
        long rest = Math.abs(minor);
        for (int i = 0; i < decimals; i++) {
            bytes[--at] = (byte) ('0' + rest % 10);
            rest /= 10;
        }
        if (decimals > 0) {
            bytes[--at] = (byte) decimalMark;
        }
        int whole = 0;
        do {
            if (thousandsMark != 0 && whole > 0 && whole % 3 == 0) {
                bytes[--at] = (byte) thousandsMark;
            }
            bytes[--at] = (byte) ('0' + rest % 10);
            rest /= 10;
            whole++;
        } while (rest > 0);
        if (minor < 0) {
            bytes[--at] = '-';
        }
        System.arraycopy(bytes, at, bytes, out.length(), end - at);
        out.cut(out.length() + end - at);
    }

    // With marks beyond ASCII: first with others in their place.
    private void appendWide(long minor, CellBuffer out) {
        CellBuffer plain = new CellBuffer();
        new AmountFormat(decimals, '.', thousandsMark == 0 ? 0 : ',', brackets, trailingMinus, currencyMark)
                .append(minor, plain);
        StringBuilder text = new StringBuilder(plain.toString());
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            text.setCharAt(i, c == '.' ? decimalMark : c == ',' ? thousandsMark : c);
        }
        out.append(text.toString());
    }

    /** In words, why {@link #parse} refused a cell. */
    public String why(long refusal) {
        if (refusal == TOO_PRECISE) {
            return "has more than " + decimals + " decimals";
        }
        if (refusal == TOO_LARGE) {
            CellBuffer largest = new CellBuffer();
            AmountFormat.marked(decimals, '.', ',').append(LARGEST, largest);
            return "is larger than " + largest;
        }
        String thousands = thousandsMark == 0 ? "no thousands mark" : "thousands mark '" + thousandsMark + "'";
        return "is not an amount (decimal mark '" + decimalMark + "', " + thousands + ")";
    }

    /** What to try for a refused cell; empty when nothing comes to mind. */
    public String suggestion(String cell) {
        String text = cell.strip();
        if (text.startsWith("(") && !brackets) {
            return "brackets are not declared in the layout: 'negative: brackets'?";
        }
        if (text.endsWith("-") && !trailingMinus) {
            return "a trailing minus is not declared in the layout: 'negative: trailing minus'?";
        }
        char other = decimalMark == '.' ? ',' : '.';
        AmountFormat swapped = new AmountFormat(4, other, decimalMark, true, true, currencyMark);
        if (isAmount(swapped.parse(text))) {
            return "readable with decimal mark '" + other + "': is the layout's 'numbers' right?";
        }
        String likely =
                text.replace('O', '0').replace('o', '0').replace('l', '1').replace('I', '1');
        if (!likely.equals(text) && isAmount(parse(likely))) {
            return "was " + likely + " meant, a letter in place of a digit?";
        }
        return "";
    }
}
