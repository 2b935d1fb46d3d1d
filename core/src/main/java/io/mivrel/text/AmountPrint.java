package io.mivrel.text;

import java.util.stream.LongStream;

/** Writes amounts as most files have them, with two decimals and no thousands marks, two digits at a time. */
final class AmountPrint {
    /** The smallest number of one digit more than its place says; the smallest of all is nil. */
    private static final long[] POWERS = LongStream.concat(
                    LongStream.of(0), LongStream.iterate(10, p -> p * 10).limit(18))
            .toArray();

    private AmountPrint() {}

    /** Writes minor units at a place that has room for 22 bytes; answers the place behind them. */
    static int hundredths(long minor, char decimalMark, byte[] to, int at) {
        int start = at;
        if (minor < 0) {
            to[start++] = '-';
        }
        long cents = Math.abs(minor);
        long whole = cents / 100;
        int mark = start + digits(whole);
        to[mark] = (byte) decimalMark;
        pair(cents - whole * 100, to, mark + 1);
        int i = mark;
        while (i - start >= 2) {
            long above = whole / 100;
            i -= 2;
            pair(whole - above * 100, to, i);
            whole = above;
        }
        if (i > start) {
            to[start] = (byte) ('0' + whole);
        }
        return mark + 3;
    }

    private static void pair(long number, byte[] to, int at) {
        int tens = (int) number * 103 >>> 10;
        to[at] = (byte) ('0' + tens);
        to[at + 1] = (byte) ('0' + number - 10 * tens);
    }

    // The bits tell the digits but for one: log 2 is 1233 / 4096.
    private static int digits(long number) {
        int digits = (64 - Long.numberOfLeadingZeros(number | 1)) * 1233 >>> 12;
        return number >= POWERS[digits] ? digits + 1 : digits;
    }
}
