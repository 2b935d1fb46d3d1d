package io.mivrel.posting;

import io.mivrel.text.Hash64;
import java.util.Arrays;

/**
 * Counts and sums of many keys with their digests, in a fixed number of parts by key: what two of them have alike in a part is
 * the same documents, in whatever order they came, and only where they differ need documents be looked at one by one. The sums
 * are of 128 bits. For one thread.
 */
final class Tally {
    static final int PARTS = 1 << 14;

    private final long[] counts = new long[PARTS];
    private final long[] first = new long[PARTS];
    private final long[] second = new long[PARTS];

    /** The part that a key belongs to. */
    static int part(String key) {
        long hash = Hash64.add(3, key);
        return (int) (hash ^ hash >>> 32) & PARTS - 1;
    }

    void add(String key, String digest) {
        int part = part(key);
        counts[part]++;
        first[part] += Hash64.add(Hash64.add(1, key), digest);
        second[part] += Hash64.add(Hash64.add(2, digest), key);
    }

    void clear() {
        Arrays.fill(counts, 0);
        Arrays.fill(first, 0);
        Arrays.fill(second, 0);
    }

    long count(int part) {
        return counts[part];
    }

    boolean isLike(Tally other, int part) {
        return counts[part] == other.counts[part]
                && first[part] == other.first[part]
                && second[part] == other.second[part];
    }
}
