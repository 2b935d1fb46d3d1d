package io.mivrel.delivery;

import java.io.Closeable;
import java.io.IOException;

/** Takes the cells of rows in their order and writes them in some file format. */
public interface RowWriter extends Closeable {

    /** The next cell of the row: the UTF-8 bytes from {@code from} up to {@code to}, unquoted. */
    void cell(byte[] bytes, int from, int to) throws IOException;

    void endRow() throws IOException;

    /** Whole rows of which each column's cells are at hand; the same as cell after cell. */
    default void rows(CellColumn[] columns, int count) throws IOException {
        for (int row = 0; row < count; row++) {
            row(columns, row);
        }
    }

    /** One of them. */
    default void row(CellColumn[] columns, int row) throws IOException {
        for (CellColumn column : columns) {
            cell(column.bytes(), column.start(row), column.end(row));
        }
        endRow();
    }
}
