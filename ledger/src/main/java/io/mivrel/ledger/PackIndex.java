package io.mivrel.ledger;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Tells which packs of a register may hold a document, so that only those are read. A key is the upper half of a hash: of what
 * the document is called, or of what it says and about when. The keys of some packs that follow one another are kept in their
 * order, so that few questions are answered without a table of all; after many one is made. For one thread.
 */
final class PackIndex implements AutoCloseable {
    /** Most packs whose keys are kept together. */
    static final int MOST_PACKS = 64;
    /** Keys that are kept as they are. */
    private static final long MOST_AS_THEY_ARE = 1 << 24;
    /** After so many searches a table has paid. */
    private static final long MOST_SEARCHES = 3_000_000;

    /** Keys in their order; of each, which of the packs it leads to, counted from the first. */
    private record Keys(int[] ordered, byte[] packs, int first) {}

    private final long count;
    private final List<Long> places = new ArrayList<>();
    private final List<Keys> all = new ArrayList<>();
    private long searches;
    /** Each row is a key in the high half, and in the low half the pack it leads to, from 1. */
    private @Nullable KnownTable table;

    /** {@code count} is how many keys there will be at most. */
    PackIndex(long count) throws IOException {
        this.count = count;
        if (count > MOST_AS_THEY_ARE) {
            table = new KnownTable(1, count);
        }
    }

    static int key(long hash) {
        return (int) (hash >>> Integer.SIZE);
    }

    /** What the register keeps of the keys of some packs that follow one another. */
    static byte[] inOrder(List<DocumentPack> packs) {
        long[] rows = rows(packs);
        ByteBuffer bytes = ByteBuffer.allocate(rows.length * (Integer.BYTES + 1));
        for (long row : rows) {
            bytes.putInt((int) (row >> Byte.SIZE));
        }
        for (long row : rows) {
            bytes.put((byte) row);
        }
        return bytes.array();
    }

    // Of each key itself and its pack. Hashes lie evenly: by their upper halves they are nearly in order.
    private static long[] rows(List<DocumentPack> packs) {
        int[] from = new int[(1 << Short.SIZE) + 1];
        int count = 0;
        for (DocumentPack pack : packs) {
            int[] keys = pack.keys();
            for (int i = 0; i < pack.keyed(); i++) {
                from[upper(keys[i]) + 1]++;
            }
            count += pack.keyed();
        }
        for (int i = 1; i < from.length; i++) {
            from[i] += from[i - 1];
        }
        long[] rows = new long[count];
        for (int at = 0; at < packs.size(); at++) {
            int[] keys = packs.get(at).keys();
            for (int i = 0; i < packs.get(at).keyed(); i++) {
                rows[from[upper(keys[i])]++] = (long) keys[i] << Byte.SIZE | at;
            }
        }
        for (int i = 1; i < count; i++) {
            long row = rows[i];
            int to = i;
            for (; to > 0 && rows[to - 1] > row; to--) {
                rows[to] = rows[to - 1];
            }
            rows[to] = row;
        }
        return rows;
    }

    private static int upper(int key) {
        return (key >> Short.SIZE) - Short.MIN_VALUE;
    }

    /** Adds the keys of packs that stand in the register from a place on, as {@link #inOrder} gave them. */
    void add(long place, int packs, byte[] kept) {
        int length = kept.length / (Integer.BYTES + 1);
        Keys keys = new Keys(new int[length], new byte[length], places.size());
        ByteBuffer bytes = ByteBuffer.wrap(kept);
        bytes.asIntBuffer().get(keys.ordered);
        bytes.position(length * Integer.BYTES).get(keys.packs);
        for (int pack = 0; pack < packs; pack++) {
            places.add(place + pack);
        }
        if (table == null) {
            all.add(keys);
        } else {
            add(table, keys);
        }
    }

    private static void add(KnownTable table, Keys keys) {
        for (int i = 0; i < keys.ordered.length; i++) {
            long slot = table.start(keys.ordered[i]);
            while (!table.isFree(slot)) {
                slot = table.next(slot);
            }
            table.set(slot, 0, (long) keys.ordered[i] << Integer.SIZE | keys.first + keys.packs[i] + 1);
        }
    }

    /** True when the keys of the pack at a place were added. */
    boolean knows(long place) {
        return places.contains(place);
    }

    /** The places of the packs that may hold a document with this hash. */
    Set<Long> places(long hash) throws IOException {
        int key = key(hash);
        searches += all.size();
        if (table == null && searches > MOST_SEARCHES) {
            table = new KnownTable(1, count);
            for (Keys keys : all) {
                add(table, keys);
            }
            all.clear();
        }
        Set<Long> found = new LinkedHashSet<>(2);
        if (table == null) {
            all.forEach(keys -> search(keys, key, found));
        } else {
            lookUp(table, key, found);
        }
        return found;
    }

    private void search(Keys keys, int key, Set<Long> found) {
        int at = Arrays.binarySearch(keys.ordered, key);
        while (at > 0 && keys.ordered[at - 1] == key) {
            at--;
        }
        for (; at >= 0 && at < keys.ordered.length && keys.ordered[at] == key; at++) {
            found.add(places.get(keys.first + keys.packs[at]));
        }
    }

    private void lookUp(KnownTable table, int key, Set<Long> found) {
        for (long slot = table.start(key); !table.isFree(slot); slot = table.next(slot)) {
            long row = table.get(slot, 0);
            if (row >> Integer.SIZE == key) {
                found.add(places.get((int) row - 1));
            }
        }
    }

    @Override
    public void close() {
        if (table != null) {
            table.close();
        }
    }
}
