package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Line;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** A column with the same text in every row. */
final class ConstantRenderer extends ColumnRenderer {
    private final byte[] bytes;
    private final long hash;

    ConstantRenderer(DeliveryColumn column, String text) {
        super(column, true);
        this.bytes = text.getBytes(StandardCharsets.UTF_8);
        this.hash = Hash64.of(bytes, 0, bytes.length);
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return write(out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        return write(out);
    }

    private long write(RowWriter out) throws IOException {
        out.cell(bytes, 0, bytes.length);
        return hash;
    }
}
