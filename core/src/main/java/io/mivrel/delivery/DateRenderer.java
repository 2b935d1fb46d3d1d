package io.mivrel.delivery;

import io.mivrel.cells.CellBuffer;
import io.mivrel.cells.DatePattern;
import io.mivrel.model.Document;
import io.mivrel.model.Record;
import io.mivrel.model.RecordBatch;
import java.io.IOException;
import java.util.Arrays;

/** A column of dates. The same day tends to come many times in a row, so the last one is kept, written and read. */
final class DateRenderer extends ColumnRenderer {
    private final LineValues.Number numbers;
    private final CellBuffer written = new CellBuffer();
    private long writtenDay = Record.ABSENT;
    private byte[] read = new byte[0];
    private long readDay = Record.ABSENT;

    DateRenderer(DeliveryColumn column) {
        super(column);
        this.numbers = LineValues.number(column.field());
    }

    @Override
    long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out) throws IOException {
        return write(numbers.of(document, line), out);
    }

    @Override
    long writeAsRead(Document document, RecordBatch batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException {
        return write(batch.number(column.field(), at), out);
    }

    private long write(long day, RowWriter out) throws IOException {
        if (day != writtenDay) {
            written.clear();
            if (day != Record.ABSENT) {
                column.date().append(day, written);
            }
            writtenDay = day;
        }
        out.cell(written.bytes(), 0, written.length());
        return day;
    }

    @Override
    long readBack(byte[] bytes, int from, int to) {
        if (!Arrays.equals(read, 0, read.length, bytes, from, to)) {
            long day = column.date().parse(bytes, from, to);
            read = Arrays.copyOfRange(bytes, from, to);
            readDay = day == DatePattern.BLANK ? Record.ABSENT : day;
        }
        return readDay;
    }
}
