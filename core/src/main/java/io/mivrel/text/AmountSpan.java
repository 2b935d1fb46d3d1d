package io.mivrel.text;

import java.nio.charset.StandardCharsets;

/** The bytes of one amount, while its sign and its currency are taken off. For one call. */
final class AmountSpan {
    private static final char[] MINUSES = {'\u2212', '\u2013', '\u2010', '\u2011', '\ufe63', '\uff0d'};

    int from;
    int to;
    boolean negative;
    private final byte[] bytes;
    private final AmountFormat format;
    private boolean plus;

    AmountSpan(byte[] bytes, int from, int to, AmountFormat format) {
        this.bytes = bytes;
        this.from = from;
        this.to = to;
        this.format = format;
    }

    /** Takes off the sign, before or behind or as brackets; false when a bracket is not closed. */
    boolean takeSign() {
        int minus = minus(bytes, from, to);
        if (minus > 0) {
            begin(minus);
            negative = true;
        } else if (bytes[from] == '+' && from + 1 < to) {
            begin(1);
            plus = true;
        } else if (bytes[from] == '(' && format.brackets()) {
            return takeBrackets();
        } else if (format.trailingMinus()) {
            takeSignBehind();
        }
        return true;
    }

    /** Takes off the currency, and a sign that stands within it. */
    void takeCurrency() {
        String mark = format.currencyMark();
        int length = mark.getBytes(StandardCharsets.UTF_8).length;
        if (length == 0 || from >= to) {
            return;
        }
        if (Spans.startsWith(bytes, from, to, mark)) {
            begin(length);
            takeSignWithin();
        } else if (AmountFormat.endsWith(bytes, from, to, mark)) {
            to = Spans.trimEnd(bytes, from, to - length);
            int minus = format.trailingMinus() && !negative && from < to ? minusBehind() : 0;
            if (minus > 0) {
                end(minus);
            }
        }
    }

    private boolean takeBrackets() {
        if (bytes[to - 1] != ')') {
            return false;
        }
        negative = true;
        from++;
        to--;
        return true;
    }

    private void takeSignBehind() {
        int minus = minusBehind();
        if (minus > 0) {
            end(minus);
        } else if (bytes[to - 1] == '+') {
            to = Spans.trimEnd(bytes, from, to - 1);
        }
    }

    // As in $(12.00) and $ -12.00.
    private void takeSignWithin() {
        if (negative || from >= to) {
            return;
        }
        if (format.brackets() && from + 1 < to && bytes[from] == '(' && bytes[to - 1] == ')') {
            takeBrackets();
            return;
        }
        int minus = minus(bytes, from, to);
        if (minus > 0) {
            begin(minus);
            negative = true;
        } else if (bytes[from] == '+' && !plus) {
            from++;
        }
    }

    private void begin(int length) {
        from = Spans.trimStart(bytes, from + length, to);
    }

    private void end(int minus) {
        negative = true;
        to = Spans.trimEnd(bytes, from, to - minus);
    }

    // How many bytes a minus takes at a place: the hyphen, the sign of U+2212, and the dashes put in its place.
    private static int minus(byte[] c, int i, int e) {
        if (c[i] >= 0) {
            return c[i] == '-' ? 1 : 0;
        }
        for (char minus : MINUSES) {
            int length = Spans.match(c, i, e, minus);
            if (length > 0) {
                return length;
            }
        }
        return 0;
    }

    private int minusBehind() {
        if (bytes[to - 1] == '-') {
            return 1;
        }
        return to - from > 3 && bytes[to - 1] < 0 && minus(bytes, to - 3, to) == 3 ? 3 : 0;
    }
}
