package io.mivrel.intake;

/**
 * The cells of some rows that follow one another in one buffer, of which there is nothing to tell but their cells: what a
 * {@link RowSource} hands out where it can, so that columns can be read one after the other. Rows and cells count from 0;
 * valid until the source is asked again. For one thread.
 */
public final class RowBlock {
    /** Rows in a full block: few enough that their bytes stay near the processor. */
    public static final int ROWS = 128;

    private final int width;
    private final int[] spans;
    private byte[] bytes = new byte[0];
    private long firstNumber;
    private int size;

    /** A block for rows of so many cells. */
    public RowBlock(int width) {
        this.width = width;
        this.spans = new int[2 * width * ROWS];
    }

    /** Cells in each row. */
    public int width() {
        return width;
    }

    /** Rows in the block. */
    public int size() {
        return size;
    }

    /** The UTF-8 bytes that all cells lie in. */
    public byte[] bytes() {
        return bytes;
    }

    public int start(int row, int cell) {
        return spans[2 * (row * width + cell)];
    }

    public int end(int row, int cell) {
        return spans[2 * (row * width + cell) + 1];
    }

    /** The physical line of a row, from 1. */
    public long number(int row) {
        return firstNumber + row;
    }

    /** Start and end of each cell by turns, row after row, for row sources to fill. */
    public int[] spans() {
        return spans;
    }

    /** Says what was filled: so many rows, one to a physical line. For row sources. */
    public int filled(byte[] buffer, long firstRow, int rows) {
        bytes = buffer;
        firstNumber = firstRow;
        size = rows;
        return rows;
    }

    /** Shows one of its rows as a row. */
    public void show(int index, Row row) {
        row.begin(number(index));
        row.over(bytes);
        int from = 2 * index * width;
        for (int i = from; i < from + 2 * width; i += 2) {
            row.add(spans[i], spans[i + 1]);
        }
    }
}
