package io.mivrel.text;

/**
 * Tells which hashes were seen before. Open addressing in many small tables, chosen by the highest bits, which grow one
 * after the other: so there is never a large table to be copied, and a hash takes 8 to 23 bytes. For one thread.
 */
public final class LongSet {
    private static final int TABLES_BITS = 6;
    private static final int FIRST_SIZE = 64;

    private final long[][] tables = new long[1 << TABLES_BITS][FIRST_SIZE];
    private final int[] sizes = new int[tables.length];
    /** Nil marks a free place, so the hash that is nil is kept here. */
    private boolean hasNil;

    /** Adds a well-mixed hash; answers false when it is there already. */
    public boolean add(long hash) {
        if (hash == 0) {
            boolean isNew = !hasNil;
            hasNil = true;
            return isNew;
        }
        int number = (int) (hash >>> Long.SIZE - TABLES_BITS);
        long[] table = tables[number];
        int place = place(table, hash);
        if (table[place] == hash) {
            return false;
        }
        table[place] = hash;
        if (++sizes[number] * 10L > table.length * 7L) {
            tables[number] = larger(table);
        }
        return true;
    }

    private static int place(long[] table, long hash) {
        int mask = table.length - 1;
        int place = (int) hash & mask;
        while (table[place] != 0 && table[place] != hash) {
            place = place + 1 & mask;
        }
        return place;
    }

    private static long[] larger(long[] table) {
        long[] larger = new long[table.length * 2];
        for (long hash : table) {
            if (hash != 0) {
                larger[place(larger, hash)] = hash;
            }
        }
        return larger;
    }
}
