package io.mivrel.cells;

/**
 * Gives the same few strings again for codes that come back in row after row, so that most rows make none. A direct
 * mapped table: a clash only costs a new string. For one thread.
 */
public final class CodeCache {
    private static final int SIZE = 2048;
    private final String[] table = new String[SIZE];

    /** The characters as a string; {@code from < to}. */
    public String get(char[] chars, int from, int to) {
        int hash = to - from;
        for (int i = from; i < to; i++) {
            hash = hash * 31 + chars[i];
        }
        int place = (hash ^ (hash >>> 11)) & (SIZE - 1);
        String known = table[place];
        if (known != null && Spans.equal(chars, from, to, known)) {
            return known;
        }
        String made = new String(chars, from, to - from);
        table[place] = made;
        return made;
    }
}
