package io.mivrel.files.workbooks;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.regex.Pattern;

/** How the values of workbook cells are written as texts. */
final class CellText {
    /** A spreadsheet keeps 15 digits of a number; what its file shows beyond them is left over from binary fractions. */
    private static final MathContext KEPT = new MathContext(15, RoundingMode.HALF_UP);

    private static final Pattern QUOTED = Pattern.compile("\"[^\"]*\"|\\\\.|\\[[^\\]]*]|_.|\\*.");
    private static final int LONGEST_NUMBER = 40;
    private static final long LAST_SERIAL = 2_958_465;

    private CellText() {}

    /** A number as the file writes it, such as {@code 0.30000000000000004} or {@code 1.2E3}, in plain decimals. */
    static String number(String raw) {
        if (raw.length() > LONGEST_NUMBER) {
            return raw;
        }
        if (isPlain(raw)) {
            return raw;
        }
        try {
            BigDecimal exact = new BigDecimal(raw.strip());
            if (Math.abs((long) exact.scale()) > 400) {
                return raw;
            }
            BigDecimal kept = exact.round(KEPT).stripTrailingZeros();
            return kept.signum() == 0 ? "0" : kept.toPlainString();
        } catch (NumberFormatException e) {
            return raw;
        }
    }

    // Digits with at most a minus and a point, too few for anything to be left over, and nothing to strip.
    private static boolean isPlain(String raw) {
        int point = raw.indexOf('.');
        int from = raw.startsWith("-") ? 1 : 0;
        if (raw.length() > 15 || raw.length() == from || raw.charAt(from) == '0' || point == from) {
            return false;
        }
        for (int i = from; i < raw.length(); i++) {
            if (i != point && (raw.charAt(i) < '0' || raw.charAt(i) > '9')) {
                return false;
            }
        }
        return point < 0 || raw.charAt(raw.length() - 1) != '0' && point < raw.length() - 1;
    }

    /** A number of digits only, at most so many; -1 for any other text. */
    static int whole(String text, int most) {
        if (text.isEmpty() || text.length() > most) {
            return -1;
        }
        int number = 0;
        for (int i = 0; i < text.length(); i++) {
            int digit = text.charAt(i) - '0';
            if (digit < 0 || digit > 9) {
                return -1;
            }
            number = number * 10 + digit;
        }
        return number;
    }

    /** True when a number format shows a day: it has a day or a year outside of quoted text. */
    static boolean isDate(String format) {
        if (format == null || format.isEmpty() || format.equalsIgnoreCase("General") || format.equals("@")) {
            return false;
        }
        String plain = QUOTED.matcher(format).replaceAll("").toLowerCase(java.util.Locale.ROOT);
        int section = plain.indexOf(';');
        String first = section < 0 ? plain : plain.substring(0, section);
        return first.indexOf('d') >= 0 || first.indexOf('y') >= 0;
    }

    /** The day of a serial number, ISO 8601; the number itself when it is none. */
    static String date(String raw, boolean from1904) {
        String number = number(raw);
        int point = number.indexOf('.');
        String whole = point < 0 ? number : number.substring(0, point);
        long serial = whole(whole, 7);
        if (serial < 0 || serial > LAST_SERIAL || (!from1904 && (serial < 1 || serial == 60))) {
            return number;
        }
        // Spreadsheets count a 29 February 1900 that never was.
        LocalDate zero = from1904
                ? LocalDate.of(1904, 1, 1)
                : serial < 60 ? LocalDate.of(1899, 12, 31) : LocalDate.of(1899, 12, 30);
        return zero.plusDays(serial).toString();
    }
}
