package io.mivrel.history;

import java.util.Arrays;

/** Rows of files by a hash, the first of each kept. Open addressing; 16 bytes a slot. For one thread. */
final class PlaceTable {
    private static final int ROW_BITS = 40;

    private long[] keys = new long[1 << 10];
    /** Ordinal of the file, from 1, and row; nil for a free slot. */
    private long[] places = new long[keys.length];

    private int size;

    /** The place of a hash: 0 when there is none. */
    long get(long key) {
        return places[slot(key)];
    }

    static int file(long place) {
        return (int) (place >>> ROW_BITS);
    }

    static long row(long place) {
        return place & (1L << ROW_BITS) - 1;
    }

    static long place(int file, long row) {
        return (long) file << ROW_BITS | row;
    }

    void putIfAbsent(long key, long place) {
        int slot = slot(key);
        if (places[slot] != 0) {
            return;
        }
        keys[slot] = key;
        places[slot] = place;
        if (++size * 3L > keys.length * 2L) {
            grow();
        }
    }

    void clear() {
        if (size > 0) {
            Arrays.fill(places, 0);
            size = 0;
        }
    }

    private int slot(long key) {
        int mask = keys.length - 1;
        int slot = (int) (key ^ key >>> 32) & mask;
        while (places[slot] != 0 && keys[slot] != key) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    private void grow() {
        long[] oldKeys = keys;
        long[] oldPlaces = places;
        keys = new long[oldKeys.length * 2];
        places = new long[keys.length];
        for (int i = 0; i < oldKeys.length; i++) {
            if (oldPlaces[i] != 0) {
                int slot = slot(oldKeys[i]);
                keys[slot] = oldKeys[i];
                places[slot] = oldPlaces[i];
            }
        }
    }
}
