package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * 64-bit hashes that are the same on every machine and in every version of a format that keeps them: for fingerprints
 * and for tables of keys. Texts count as their UTF-8 bytes. Not for secrets.
 */
public final class Hash64 {
    private static final long STEP = 0x9E3779B97F4A7C15L;
    private static final long MIX = 0xBF58476D1CE4E5B9L;

    private Hash64() {}

    /** Adds a number to a hash. */
    public static long add(long hash, long value) {
        long h = (hash ^ value) * MIX;
        return h ^ (h >>> 31);
    }

    /** Adds a text to a hash; {@code null} counts as an empty text. */
    public static long add(long hash, @Nullable String text) {
        byte[] bytes = text == null ? new byte[0] : text.getBytes(StandardCharsets.UTF_8);
        return add(hash, bytes, 0, bytes.length);
    }

    /** Adds a text that lies in a stretch of bytes; the same as adding it as a string. */
    public static long add(long hash, byte[] bytes, int from, int to) {
        return add(hash, of(bytes, from, to));
    }

    /** The hash of a stretch of bytes. */
    public static long of(byte[] bytes, int from, int to) {
        // Eight bytes a step: this runs over every delivered text twice.
        long h = to - from;
        int i = from;
        for (; i + 8 <= to; i += 8) {
            h = (h ^ Spans.eight(bytes, i)) * STEP;
            h ^= h >>> 29;
        }
        if (i < to) {
            h = (h ^ Spans.few(bytes, i, to - i)) * STEP;
        }
        return h ^ (h >>> 32);
    }
}
