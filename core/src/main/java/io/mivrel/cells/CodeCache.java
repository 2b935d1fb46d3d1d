package io.mivrel.cells;

/**
 * Gives the same few strings again for codes that come back in row after row, so that most rows make none. A direct
 * mapped table: a clash only costs a new string. The characters lie beside the table in one array, so that a look-up
 * touches the string itself only to hand it out. For one thread.
 */
public final class CodeCache {
    private static final int SIZE = 1024;
    private static final int LONGEST = 16;

    private final String[] table = new String[SIZE];
    private final char[] known = new char[SIZE * LONGEST];
    private final int[] lengths = new int[SIZE];
    private int last;

    /** The characters as a string; {@code from < to}. */
    public String get(char[] chars, int from, int to) {
        int length = to - from;
        if (length > LONGEST) {
            return new String(chars, from, length);
        }
        // The lines of one document stand together, so the last code is the likeliest.
        if (holds(last, chars, from, length)) {
            return table[last];
        }
        int hash = length;
        for (int i = from; i < to; i++) {
            hash = hash * 31 + chars[i];
        }
        int place = (hash ^ (hash >>> 10)) & (SIZE - 1);
        if (!holds(place, chars, from, length)) {
            table[place] = new String(chars, from, length);
            lengths[place] = length;
            System.arraycopy(chars, from, known, place * LONGEST, length);
        }
        last = place;
        return table[place];
    }

    private boolean holds(int place, char[] chars, int from, int length) {
        if (lengths[place] != length) {
            return false;
        }
        // From the end: codes that follow one another differ there first.
        int begin = place * LONGEST;
        for (int i = length - 1; i >= 0; i--) {
            if (known[begin + i] != chars[from + i]) {
                return false;
            }
        }
        return true;
    }
}
