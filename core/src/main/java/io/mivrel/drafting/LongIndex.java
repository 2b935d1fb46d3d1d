package io.mivrel.drafting;

/** Numbers distinct {@code long} values in the order they are added. Open addressing; about 20 bytes a value. */
final class LongIndex {
    private long[] keys = new long[1024];
    private int[] ordinals = new int[1024];
    private int size;

    int size() {
        return size;
    }

    /** The ordinal of a value, or -1 when it was never added. */
    int of(long key) {
        int slot = slot(key, keys, ordinals);
        return ordinals[slot] - 1;
    }

    /** Adds a value; answers its ordinal, which is the old one if it is known. */
    int add(long key) {
        int slot = slot(key, keys, ordinals);
        if (ordinals[slot] != 0) {
            return ordinals[slot] - 1;
        }
        keys[slot] = key;
        ordinals[slot] = ++size;
        if (size * 10L > keys.length * 7L) {
            grow();
        }
        return size - 1;
    }

    void addAll(LongIndex other) {
        for (int i = 0; i < other.keys.length; i++) {
            if (other.ordinals[i] != 0) {
                add(other.keys[i]);
            }
        }
    }

    private void grow() {
        long[] oldKeys = keys;
        int[] oldOrdinals = ordinals;
        keys = new long[oldKeys.length * 2];
        ordinals = new int[keys.length];
        for (int i = 0; i < oldKeys.length; i++) {
            if (oldOrdinals[i] != 0) {
                int slot = slot(oldKeys[i], keys, ordinals);
                keys[slot] = oldKeys[i];
                ordinals[slot] = oldOrdinals[i];
            }
        }
    }

    private static int slot(long key, long[] keys, int[] ordinals) {
        int mask = keys.length - 1;
        int slot = (int) (key ^ (key >>> 32)) & mask;
        while (ordinals[slot] != 0 && keys[slot] != key) {
            slot = (slot + 1) & mask;
        }
        return slot;
    }
}
