package io.mivrel.intake;

import io.mivrel.cells.Spans;
import java.util.Arrays;

/**
 * A view of one row: its cells are spans of a character buffer that belongs to the row source, so a row is valid only
 * until the next one is asked for, and a string is made only of a cell that is kept. Cell numbers count from 0.
 */
public final class Row {
    private char[] chars = new char[0];
    private int[] starts = new int[32];
    private int[] ends = new int[32];
    private int size;
    private long number;
    private RowFault fault;
    private boolean quoteInside;

    /** Empties it for the row that begins at the given physical line, counted from 1. For row sources. */
    public void begin(long physicalRow) {
        number = physicalRow;
        size = 0;
        fault = null;
        quoteInside = false;
    }

    /** Sets the buffer that the spans refer to. For row sources. */
    public void over(char[] buffer) {
        chars = buffer;
    }

    /** Adds a cell. For row sources. */
    public void add(int start, int end) {
        if (size == starts.length) {
            starts = Arrays.copyOf(starts, size * 2);
            ends = Arrays.copyOf(ends, size * 2);
        }
        starts[size] = start;
        ends[size++] = end;
    }

    /** Moves the end of a cell, after doubled quotes were made single. For row sources. */
    public void end(int cell, int end) {
        ends[cell] = end;
    }

    public void fault(RowFault found) {
        fault = found;
    }

    public void quoteInside() {
        quoteInside = true;
    }

    public char[] chars() {
        return chars;
    }

    public int size() {
        return size;
    }

    public int start(int cell) {
        return starts[cell];
    }

    public int end(int cell) {
        return ends[cell];
    }

    /** The first physical line of the row in its file, from 1. */
    public long number() {
        return number;
    }

    /** What is wrong with the row as a whole, or {@code null}. */
    public RowFault fault() {
        return fault;
    }

    public boolean hasQuoteInside() {
        return quoteInside;
    }

    /** The cell as a string, as it stands. */
    public String text(int cell) {
        return new String(chars, starts[cell], ends[cell] - starts[cell]);
    }

    /** The cell as a string without blanks around it. */
    public String trimmed(int cell) {
        int start = Spans.trimStart(chars, starts[cell], ends[cell]);
        return new String(chars, start, Spans.trimEnd(chars, start, ends[cell]) - start);
    }

    /** True when no cell holds more than blanks. */
    public boolean isBlank() {
        for (int i = 0; i < size; i++) {
            if (Spans.trimStart(chars, starts[i], ends[i]) < ends[i]) {
                return false;
            }
        }
        return true;
    }
}
