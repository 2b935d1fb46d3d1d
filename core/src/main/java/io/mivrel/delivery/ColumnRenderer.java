package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.util.Objects;

/** Writes one column's cells and reads them back. Compiled once from a {@link DeliveryColumn}; for one thread. */
abstract class ColumnRenderer {
    private static final DatePattern ISO = DatePattern.of("uuuu-MM-dd");

    final DeliveryColumn column;
    /** Whether the value of a cell is the hash of its bytes; asked before {@link #readBack}, which is dearer to call. */
    final boolean hashed;

    ColumnRenderer(DeliveryColumn column, boolean hashed) {
        this.column = column;
        this.hashed = hashed;
    }

    static ColumnRenderer of(DeliveryColumn column, Kind kind, AmountFormat amounts, Counter counter) {
        Field field = column.field();
        if (column.counts() != null) {
            return new CountRenderer(column, column.counts(), counter);
        }
        if (field == null) {
            return new ConstantRenderer(column, Objects.requireNonNull(column.constant()));
        }
        if (column.sides() != null) {
            return new SideRenderer(column, column.sides(), field, kind);
        }
        return switch (field.type()) {
            case AMOUNT ->
                field.currency() == null
                        ? new AmountRenderer(column, field, kind, amounts)
                        : new ForeignAmountRenderer(column, field, field.currency(), amounts);
            case DATE ->
                new DateRenderer(column, field, column.dateCell() ? ISO : Objects.requireNonNull(column.date()));
            case TEXT, CODE, DECIMAL -> new WordRenderer(column, field, amounts.decimalMark());
        };
    }

    /**
     * Writes the cell of a line; answers the value that must be found again when it is read back. {@code scratch} is for
     * building.
     */
    abstract long write(Line line, CellBuffer scratch, RowWriter out) throws IOException;

    /**
     * The same of a record in columns.
     *
     * @param document its document in the block
     * @param at its place among the records
     */
    abstract long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out)
            throws IOException;

    /** Rows and documents of a file so far, the present ones among them. */
    static final class Counter {
        long rows;
        long documents;
    }

    /** The value of a cell that was read back, comparable with what {@link #write} answered. */
    long readBack(byte[] bytes, int from, int to) {
        return Hash64.of(bytes, from, to);
    }
}
