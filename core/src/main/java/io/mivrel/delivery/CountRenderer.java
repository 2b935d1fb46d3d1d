package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Line;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;

/** A column of numbers that count rows or documents. */
final class CountRenderer extends ColumnRenderer {
    private final Counting counts;
    private final Counter counter;

    CountRenderer(DeliveryColumn column, Counting counts, Counter counter) {
        super(column, true);
        this.counts = counts;
        this.counter = counter;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return write(scratch, out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        return write(scratch, out);
    }

    private long write(CellBuffer scratch, RowWriter out) throws IOException {
        String number = text(counts == Counting.ROWS ? counter.rows : counter.documents, column.zeros());
        scratch.clear().append(number);
        out.cell(scratch.bytes(), 0, scratch.length());
        return Hash64.of(scratch.bytes(), 0, scratch.length());
    }

    /** A count with noughts in front of it up to so many digits. */
    static String text(long count, int zeros) {
        String digits = Long.toString(count);
        return "0".repeat(Math.max(0, zeros - digits.length())) + digits;
    }
}
