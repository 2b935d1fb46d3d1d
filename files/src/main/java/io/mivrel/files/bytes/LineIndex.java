package io.mivrel.files.bytes;

import java.util.Arrays;

/**
 * Where some of a file's lines begin, one in every {@value #APART} bytes: noted while the file is read from its beginning,
 * so that a later reading finds a few rows without counting lines all the way; and what was read. For one thread at a time.
 */
public final class LineIndex {
    public static final int APART = 1 << 14;

    private final Readings readings = new Readings();
    private long[] lines = new long[64];
    private long[] offsets = new long[64];
    private int size;

    /** What was read of the file. */
    public Readings readings() {
        return readings;
    }

    /** Takes note of a line, when it is far enough behind the last one noted. */
    public void note(long line, long offset) {
        if (size > 0 && offset < offsets[size - 1] + APART) {
            return;
        }
        if (size == lines.length) {
            lines = Arrays.copyOf(lines, size * 2);
            offsets = Arrays.copyOf(offsets, size * 2);
        }
        lines[size] = line;
        offsets[size++] = offset;
    }

    /** The place of the last line noted that is not behind this one; -1 when there is none. */
    public int find(long line) {
        int found = Arrays.binarySearch(lines, 0, size, line);
        return found >= 0 ? found : -found - 2;
    }

    public long line(int place) {
        return lines[place];
    }

    /** How many bytes of the file lie before the line. */
    public long offset(int place) {
        return offsets[place];
    }
}
