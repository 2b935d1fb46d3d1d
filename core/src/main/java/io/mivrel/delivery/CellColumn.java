package io.mivrel.delivery;

import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.util.Arrays;

/**
 * The cells of one column in some rows, for what is written by column: each cell is a stretch of one array of UTF-8 bytes.
 * Filled by a renderer, row by row, and read-only for the {@link RowWriter}. For one thread.
 */
public final class CellColumn {
    private final CellBuffer own = new CellBuffer();
    private byte[] bytes = own.bytes();
    private int[] starts = new int[0];
    private int[] ends = starts;
    private long[] values = new long[0];
    private int size;
    private int longest;

    /** The bytes that all its cells lie in. */
    public byte[] bytes() {
        return bytes;
    }

    /** Where the cell of a row begins; rows count from 0. */
    public int start(int row) {
        return starts[row];
    }

    /** Where it ends, exclusive. */
    public int end(int row) {
        return ends[row];
    }

    /** The bytes of its longest cell. */
    public int longest() {
        return longest;
    }

    /** What must be found again when the cell is read back. */
    long value(int row) {
        return values[row];
    }

    /** Empties it, with room for so many rows. */
    CellColumn clear(int rows) {
        if (values.length < rows) {
            starts = new int[rows];
            ends = new int[rows];
            values = new long[rows];
        }
        size = 0;
        longest = 0;
        own.clear();
        return this;
    }

    /** Where to build the next cell, behind the last one. */
    CellBuffer own() {
        return own;
    }

    /** Adds a cell that was built in {@link #own} from a place on. */
    void built(int from, long value) {
        bytes = own.bytes();
        starts[size] = from;
        ends[size] = own.length();
        longest = Math.max(longest, own.length() - from);
        values[size++] = value;
    }

    /** Adds the cell of the row before once more. */
    void again() {
        starts[size] = starts[size - 1];
        ends[size] = ends[size - 1];
        values[size] = values[size - 1];
        size++;
    }

    /** Adds a cell that lies in an array, the same one for all rows, with its hash for its value. */
    void lies(byte[] in, int from, int to) {
        lies(in, from, to, Hash64.of(in, from, to));
    }

    /** The same with its value; the array may be another one if it begins with all that the one before held. */
    void lies(byte[] in, int from, int to, long value) {
        bytes = in;
        starts[size] = from;
        ends[size] = to;
        longest = Math.max(longest, to - from);
        values[size++] = value;
    }

    /** Adds cells of which all are the same. */
    void same(byte[] cell, int rows) {
        bytes = cell;
        Arrays.fill(starts, 0, rows, 0);
        Arrays.fill(ends, 0, rows, cell.length);
        Arrays.fill(values, 0, rows, Hash64.of(cell, 0, cell.length));
        size = rows;
        longest = cell.length;
    }
}
