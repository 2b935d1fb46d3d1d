package io.mivrel.text;

/**
 * Reads amounts as most files write them, with two decimals and perhaps thousands marks, eight bytes at a time instead of
 * one. It answers only what it is sure of and leaves everything else, blanks and refusals too, to {@link AmountFormat}.
 */
final class AmountScan {
    /** The cell must be read byte by byte. */
    static final long UNSURE = Long.MIN_VALUE + 9;

    private static final int MOST_BYTES = 14;
    private static final long ZEROS = 0x3030303030303030L;
    private static final long HIGH_HALVES = 0xF0F0F0F0F0F0F0F0L;
    private static final long SIXES = 0x0606060606060606L;

    private AmountScan() {}

    /**
     * The minor units of a cell of digits, a decimal mark and two decimals, with a minus before it or not.
     *
     * @param thousandsMark 0 when there is none
     */
    static long hundredths(byte[] c, int start, int end, char decimalMark, char thousandsMark) {
        if (end < 16 || end - start < 4 || c[end - 3] != decimalMark) {
            return UNSURE;
        }
        boolean minus = c[start] == '-';
        int s = minus ? start + 1 : start;
        int length = end - s;
        if (length < 4 || length > MOST_BYTES) {
            return UNSURE;
        }
        // The last eight bytes: a digit, a mark, three digits, a mark, two digits. What lies before the cell counts as
        // zeros.
        long low = withZeros(Spans.eight(c, end - 8), 8 - length);
        boolean grouped = length > 7 && thousandsMark != 0 && c[end - 7] == thousandsMark;
        if (grouped) {
            low = zeroAt(low, 1);
        }
        low = zeroAt(low, 5);
        if (!areDigits(low)) {
            return UNSURE;
        }
        // Two neighbours make one number of each two bytes: the digits of bytes 0 and 1 stand lowest, then 2 and 3.
        long pairs = pairs(low);
        long hundreds = (pairs >>> 16 & 0xFF) * 10 + (low - ZEROS >>> 32 & 0xFF);
        long cents = hundreds * 100 + (pairs >>> 48 & 0xFF);
        long top = pairs & 0xFF;
        long value = cents + (grouped ? top * 10_000 : top * 100_000);
        if (length > 8) {
            long above =
                    grouped ? groupsAbove(c, end - 8, length - 8, thousandsMark) : digitsAbove(c, end - 8, length - 8);
            if (above < 0) {
                return UNSURE;
            }
            value += above * (grouped ? 1_000_000 : 10_000_000);
        }
        return minus ? -value : value;
    }

    // At most six bytes: two digits, a mark, three digits; there is no mark without a digit before it.
    private static long groupsAbove(byte[] c, int end, int length, char thousandsMark) {
        long x = withZeros(Spans.eight(c, end - 8), 8 - length);
        if (length > 2) {
            if (length == 3 || c[end - 3] != thousandsMark) {
                return -1;
            }
            x = zeroAt(x, 5);
        }
        if (!areDigits(x)) {
            return -1;
        }
        long pairs = pairs(x);
        return (pairs >>> 48 & 0xFF) + 10 * (pairs >>> 32 & 0xFF) + 1000 * (pairs >>> 16 & 0xFF);
    }

    private static long digitsAbove(byte[] c, int end, int length) {
        long x = withZeros(Spans.eight(c, end - 8), 8 - length);
        if (!areDigits(x)) {
            return -1;
        }
        long pairs = pairs(x);
        return (pairs >>> 48 & 0xFF) + 100 * (pairs >>> 32 & 0xFF) + 10_000 * (pairs >>> 16 & 0xFF);
    }

    private static long withZeros(long bytes, int foreign) {
        if (foreign <= 0) {
            return bytes;
        }
        long own = -1L << 8 * foreign;
        return bytes & own | ZEROS & ~own;
    }

    private static long zeroAt(long bytes, int place) {
        return bytes & ~(0xFFL << 8 * place) | 0x30L << 8 * place;
    }

    private static boolean areDigits(long bytes) {
        return (bytes & HIGH_HALVES | (bytes + SIXES & HIGH_HALVES) >>> 4) == 0x3333333333333333L;
    }

    private static long pairs(long digits) {
        long d = digits - ZEROS;
        return d * 10 + (d >>> 8);
    }
}
