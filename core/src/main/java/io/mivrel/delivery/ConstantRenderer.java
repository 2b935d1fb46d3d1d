package io.mivrel.delivery;

import io.mivrel.cells.CellBuffer;
import io.mivrel.cells.Hash64;
import io.mivrel.model.Document;
import io.mivrel.model.RecordBatch;
import java.io.IOException;

/** A column with the same text in every row. */
final class ConstantRenderer extends ColumnRenderer {
    private final char[] chars;

    ConstantRenderer(DeliveryColumn column) {
        super(column);
        this.chars = column.constant().toCharArray();
    }

    @Override
    long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out) throws IOException {
        out.cell(chars, 0, chars.length);
        return Hash64.of(chars, 0, chars.length);
    }

    @Override
    long writeAsRead(Document document, RecordBatch batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException {
        return write(document, null, index, scratch, out);
    }

    @Override
    long readBack(char[] read, int from, int to) {
        return Hash64.of(read, from, to);
    }
}
