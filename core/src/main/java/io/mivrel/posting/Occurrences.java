package io.mivrel.posting;

import java.util.Arrays;

/** Counts how often each of many 64-bit hashes has come. */
final class Occurrences {
    private static final int FIRST = 1 << 10;

    private long[] hashes = new long[FIRST];
    private int[] counts = new int[FIRST];
    private int size;

    /** Counts one more and answers how many there are now. */
    int next(long hash) {
        if (size * 2 > hashes.length) {
            grow();
        }
        int at = place(hash);
        if (counts[at] == 0) {
            hashes[at] = hash;
            size++;
        }
        return ++counts[at];
    }

    private int place(long hash) {
        int mask = hashes.length - 1;
        int at = (int) (hash ^ hash >>> 32) & mask;
        while (counts[at] != 0 && hashes[at] != hash) {
            at = at + 1 & mask;
        }
        return at;
    }

    private void grow() {
        long[] oldHashes = hashes;
        int[] oldCounts = counts;
        hashes = new long[2 * oldHashes.length];
        counts = new int[hashes.length];
        for (int i = 0; i < oldHashes.length; i++) {
            if (oldCounts[i] != 0) {
                int at = place(oldHashes[i]);
                hashes[at] = oldHashes[i];
                counts[at] = oldCounts[i];
            }
        }
    }

    void clear() {
        Arrays.fill(counts, 0);
        size = 0;
    }
}
