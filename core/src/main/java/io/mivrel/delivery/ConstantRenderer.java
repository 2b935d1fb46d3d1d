package io.mivrel.delivery;

import io.mivrel.model.Document;
import io.mivrel.model.RecordBlock;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** A column with the same text in every row. */
final class ConstantRenderer extends ColumnRenderer {
    private final byte[] bytes;

    ConstantRenderer(DeliveryColumn column) {
        super(column, true);
        this.bytes = column.constant().getBytes(StandardCharsets.UTF_8);
    }

    @Override
    long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out) throws IOException {
        out.cell(bytes, 0, bytes.length);
        return Hash64.of(bytes, 0, bytes.length);
    }

    @Override
    long writeAsRead(Document document, RecordBlock batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException {
        return write(document, null, index, scratch, out);
    }

    @Override
    void render(AsRead lines, int from, int to, CellColumn out) {
        out.same(bytes, to - from);
    }
}
