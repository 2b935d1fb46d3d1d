package io.mivrel.ledger;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.LongBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * A table of rows of {@code long}s with open addressing, as large as it was made for. A small one lies on the heap, a large
 * one in a temporary file that is mapped, so that the heap a register needs is bounded whatever it remembers. The first
 * number of a row is its key's hash; a row whose last number is nil is free. For one thread.
 */
final class KnownTable implements AutoCloseable {
    private static final long SMALL_BYTES = 4 << 20;
    private static final int SEGMENT_LONGS = 1 << 26;

    private final int width;
    private final long slots;
    private final LongBuffer[] segments;
    private final int capacity;
    private final @Nullable FileChannel file;

    /**
     * @param width numbers in a row
     * @param rows rows that it must have room for
     */
    KnownTable(int width, long rows) throws IOException {
        this.width = width;
        this.slots = Long.highestOneBit(Math.max(16, rows) * 3 / 2) * 2;
        long longs = slots * width;
        int perSegment = (int) Math.min(longs, SEGMENT_LONGS / width * (long) width);
        capacity = perSegment;
        segments = new LongBuffer[(int) ((longs + perSegment - 1) / perSegment)];
        if (longs * Long.BYTES <= SMALL_BYTES) {
            file = null;
            segments[0] = LongBuffer.allocate((int) longs);
            return;
        }
        // Private to the user, and gone with the process.
        Path path = Files.createTempFile("mivrel-", ".known");
        file = FileChannel.open(
                path, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.DELETE_ON_CLOSE);
        for (int i = 0; i < segments.length; i++) {
            long from = (long) i * perSegment;
            long bytes = Math.min(perSegment, longs - from) * Long.BYTES;
            ByteBuffer mapped = file.map(FileChannel.MapMode.READ_WRITE, from * Long.BYTES, bytes);
            segments[i] = mapped.order(ByteOrder.nativeOrder()).asLongBuffer();
        }
        // What is mapped stays there without its name, and nothing is left behind where the process is killed.
        boolean kept = System.getProperty("os.name").startsWith("Windows");
        if (!kept) {
            Files.deleteIfExists(path);
        }
    }

    /** A table with room for more rows and the same rows in it; this one is closed. */
    KnownTable grown(long rows) throws IOException {
        KnownTable larger = new KnownTable(width, rows);
        for (long slot = 0; slot < slots; slot++) {
            if (!isFree(slot)) {
                long to = larger.start(get(slot, 0));
                while (!larger.isFree(to)) {
                    to = larger.next(to);
                }
                for (int column = 0; column < width; column++) {
                    larger.set(to, column, get(slot, column));
                }
            }
        }
        close();
        return larger;
    }

    /** The slot where the search for a hash begins. */
    long start(long hash) {
        return (hash ^ hash >>> 32) & slots - 1;
    }

    long next(long slot) {
        return slot + 1 & slots - 1;
    }

    boolean isFree(long slot) {
        return get(slot, width - 1) == 0;
    }

    long get(long slot, int column) {
        long at = slot * width + column;
        // Most tables have one segment, and dividing is slow.
        return segments.length == 1 ? segments[0].get((int) at) : segment(at).get((int) (at % capacity));
    }

    void set(long slot, int column, long value) {
        long at = slot * width + column;
        if (segments.length == 1) {
            segments[0].put((int) at, value);
        } else {
            segment(at).put((int) (at % capacity), value);
        }
    }

    private LongBuffer segment(long at) {
        return segments[(int) (at / capacity)];
    }

    long slots() {
        return slots;
    }

    @Override
    public void close() {
        try {
            if (file != null) {
                file.close();
            }
        } catch (IOException leftBehind) {
            // A temporary file stays until the system clears it.
        }
    }
}
