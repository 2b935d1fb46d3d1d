package io.mivrel.delivery;

import java.io.Closeable;
import java.io.IOException;

/** Takes the cells of rows in their order and writes them in some file format. */
public interface RowWriter extends Closeable {

    /** The next cell of the row: the UTF-8 bytes from {@code from} up to {@code to}, unquoted. */
    void cell(byte[] bytes, int from, int to) throws IOException;

    void endRow() throws IOException;
}
