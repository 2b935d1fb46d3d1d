package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collection;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * Finds values by a stretch of UTF-8 bytes, without making a string of it: for the codes of the books, asked for in
 * every row. Open addressing; immutable.
 */
public final class SpanMap<V> {
    /** With room behind each, so that the last bytes of a key can be compared like all others. */
    private final byte[][] keys;

    private final int[] lengths;
    private final Object[] values;
    private final int mask;

    public SpanMap(Map<String, V> entries) {
        int length = Integer.highestOneBit(Math.max(8, entries.size())) * 4;
        keys = new byte[length][];
        lengths = new int[length];
        values = new Object[length];
        mask = length - 1;
        entries.forEach((text, value) -> {
            byte[] key = text.getBytes(StandardCharsets.UTF_8);
            int place = place(key, 0, key.length);
            keys[place] = Arrays.copyOf(key, key.length + Long.BYTES);
            lengths[place] = key.length;
            values[place] = value;
        });
    }

    /** A map of texts to themselves, to tell which are known. */
    public static SpanMap<String> ofKeys(Collection<String> keys) {
        return new SpanMap<>(keys.stream().collect(Collectors.toMap(key -> key, key -> key)));
    }

    /** The value of these bytes, or {@code null}. */
    @SuppressWarnings("unchecked")
    public V get(byte[] bytes, int from, int to) {
        return (V) values[place(bytes, from, to)];
    }

    private int place(byte[] bytes, int from, int to) {
        int place = (int) Hash64.of(bytes, from, to) & mask;
        while (keys[place] != null && !holds(place, bytes, from, to)) {
            place = (place + 1) & mask;
        }
        return place;
    }

    private boolean holds(int place, byte[] bytes, int from, int to) {
        return lengths[place] == to - from && Spans.same(keys[place], 0, bytes, from, to - from);
    }
}
