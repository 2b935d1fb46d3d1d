package io.mivrel.cells;

import java.util.Map;

/**
 * Finds values by a stretch of characters, without making a string of it: for the codes of the books, asked for in every
 * row. Open addressing; immutable.
 */
public final class SpanMap<V> {
    private final char[][] keys;
    private final Object[] values;
    private final int mask;

    public SpanMap(Map<String, V> entries) {
        int length = Integer.highestOneBit(Math.max(8, entries.size())) * 4;
        keys = new char[length][];
        values = new Object[length];
        mask = length - 1;
        entries.forEach((key, value) -> {
            char[] chars = key.toCharArray();
            int place = place(chars, 0, chars.length);
            keys[place] = chars;
            values[place] = value;
        });
    }

    /** The value of these characters, or {@code null}. */
    @SuppressWarnings("unchecked")
    public V get(char[] chars, int from, int to) {
        return (V) values[place(chars, from, to)];
    }

    private int place(char[] chars, int from, int to) {
        // Codes are much alike, so their hashes lie close together: the multiplication scatters them.
        int place = (Hash64.ofString(chars, from, to) * 0x9E3779B9 >>> 12) & mask;
        while (keys[place] != null && !holds(keys[place], chars, from, to)) {
            place = (place + 1) & mask;
        }
        return place;
    }

    private static boolean holds(char[] key, char[] chars, int from, int to) {
        if (key.length != to - from) {
            return false;
        }
        for (int i = 0; i < key.length; i++) {
            if (key[i] != chars[from + i]) {
                return false;
            }
        }
        return true;
    }
}
