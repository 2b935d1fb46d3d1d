package io.mivrel.cells;

/**
 * 64-bit hashes that are the same on every machine and in every version of a format that keeps them: for fingerprints
 * and for tables of keys. Not for secrets.
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

    /** Adds a text to a hash; {@code null} differs from an empty text. */
    public static long add(long hash, String text) {
        if (text == null) {
            return add(hash, -1);
        }
        long h = hash ^ text.length();
        int i = 0;
        int length = text.length();
        for (; i + 4 <= length; i += 4) {
            long four = text.charAt(i)
                    | (long) text.charAt(i + 1) << 16
                    | (long) text.charAt(i + 2) << 32
                    | (long) text.charAt(i + 3) << 48;
            h = (h ^ four) * STEP;
            h ^= h >>> 29;
        }
        for (; i < length; i++) {
            h = (h ^ text.charAt(i)) * STEP;
        }
        return add(h, 0);
    }

    /** Adds a text that lies in a stretch of characters; the same as adding it as a string, a blank as {@code null}. */
    public static long add(long hash, char[] c, int from, int to) {
        if (from == to) {
            return add(hash, -1);
        }
        long h = hash ^ (to - from);
        int i = from;
        for (; i + 4 <= to; i += 4) {
            long four = c[i] | (long) c[i + 1] << 16 | (long) c[i + 2] << 32 | (long) c[i + 3] << 48;
            h = (h ^ four) * STEP;
            h ^= h >>> 29;
        }
        for (; i < to; i++) {
            h = (h ^ c[i]) * STEP;
        }
        return add(h, 0);
    }

    /** The hash that {@link String#hashCode} gives to the same characters. */
    public static int ofString(char[] c, int from, int to) {
        int h = 0;
        for (int i = from; i < to; i++) {
            h = 31 * h + c[i];
        }
        return h;
    }

    /** The hash of a stretch of characters. */
    public static long of(char[] c, int from, int to) {
        // Four characters a step: this runs over every delivered text twice.
        long h = to - from;
        int i = from;
        for (; i + 4 <= to; i += 4) {
            long four = c[i] | (long) c[i + 1] << 16 | (long) c[i + 2] << 32 | (long) c[i + 3] << 48;
            h = (h ^ four) * STEP;
            h ^= h >>> 29;
        }
        for (; i < to; i++) {
            h = (h ^ c[i]) * STEP;
        }
        return h ^ (h >>> 32);
    }
}
