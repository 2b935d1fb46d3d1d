package io.mivrel.intake;

import java.io.Closeable;
import java.io.IOException;

/** Hands out the rows of one file in their order. The one interface to implement for a new kind of file. */
public interface RowSource extends Closeable {

    /** The next row, valid until the next call, or {@code null} at the end. */
    Row next() throws IOException;

    /**
     * Passes over physical rows, so that the next one begins at {@code physicalRow} or after it. Faster than reading
     * them, where the format allows; a row must really begin there.
     */
    default void skipTo(long physicalRow) throws IOException {
        throw new UnsupportedOperationException("rows of this source cannot be skipped");
    }
}
