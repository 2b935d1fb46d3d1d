package io.mivrel.delivery;

import io.mivrel.model.Document;
import io.mivrel.model.RecordBlock;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;

/** Writes one column's cells and reads them back. Compiled once from a {@link DeliveryColumn}; for one thread. */
abstract class ColumnRenderer {
    final DeliveryColumn column;
    /** Whether the value of a cell is the hash of its bytes; asked before {@link #readBack}, which is dearer to call. */
    final boolean hashed;

    ColumnRenderer(DeliveryColumn column, boolean hashed) {
        this.column = column;
        this.hashed = hashed;
    }

    static ColumnRenderer of(DeliveryColumn column, AmountFormat amounts) {
        if (column.field() == null) {
            return new ConstantRenderer(column);
        }
        return switch (column.field().type()) {
            case AMOUNT -> new AmountRenderer(column, amounts);
            case DATE -> new DateRenderer(column);
            case TEXT -> new TextRenderer(column);
            case CODE, DECIMAL -> new CodeRenderer(column, amounts);
        };
    }

    /**
     * Writes the cell; answers the value that must be found again when it is read back. {@code scratch} is for building.
     */
    abstract long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out)
            throws IOException;

    /**
     * The same, by column, for a document whose lines are its records as they were read.
     *
     * @param at place of the line in the batch
     * @param index place of the line in the document
     */
    abstract long writeAsRead(
            Document document, RecordBlock batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException;

    /** The place of the first of some lines that {@link #render} cannot render; {@code to} when it can render all. */
    int reach(AsRead lines, int from, int to) {
        return to;
    }

    /** Renders the cells of lines whose values lie in their records as they are to be written. */
    abstract void render(AsRead lines, int from, int to, CellColumn out);

    /** The value of a cell that was read back, comparable with what {@link #write} answered. */
    long readBack(byte[] bytes, int from, int to) {
        return Hash64.of(bytes, from, to);
    }
}
