package io.mivrel.cells;

/** Small tests on a stretch of characters, end exclusive. */
public final class Spans {
    private Spans() {}

    /** A blank for trimming: space, tab and other white space, and the no-break spaces that spreadsheets leave. */
    public static boolean isBlank(char c) {
        return c <= ' ' || c == '\u00a0' || c == '\u202f' || c == '\u2007';
    }

    /** The start after leading blanks. */
    public static int trimStart(char[] chars, int from, int to) {
        int i = from;
        while (i < to && isBlank(chars[i])) {
            i++;
        }
        return i;
    }

    /** The end before trailing blanks. */
    public static int trimEnd(char[] chars, int from, int to) {
        int i = to;
        while (i > from && isBlank(chars[i - 1])) {
            i--;
        }
        return i;
    }

    public static boolean equal(char[] chars, int from, int to, String text) {
        int length = to - from;
        if (text.length() != length) {
            return false;
        }
        for (int i = 0; i < length; i++) {
            if (chars[from + i] != text.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    public static boolean startsWith(char[] chars, int from, int to, String text) {
        return to - from >= text.length() && equal(chars, from, from + text.length(), text);
    }
}
