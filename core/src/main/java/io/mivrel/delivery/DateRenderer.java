package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.util.Arrays;

/** A column of dates. The same day tends to come many times in a row, so the last one is kept, written and read. */
final class DateRenderer extends ColumnRenderer {
    private final Field field;
    private final DatePattern pattern;
    private final CellBuffer written = new CellBuffer();
    private long writtenDay = SourceRecord.ABSENT;
    private byte[] read = new byte[0];
    private int readLength = -1;
    private long readDay = SourceRecord.ABSENT;

    DateRenderer(DeliveryColumn column, Field field, DatePattern pattern) {
        super(column, false);
        this.field = field;
        this.pattern = pattern;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return write(line.number(field), out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        return write(block.records().number(field, at), out);
    }

    private long write(long day, RowWriter out) throws IOException {
        if (day != writtenDay) {
            written.clear();
            if (day != SourceRecord.ABSENT) {
                pattern.append(day, written);
            }
            writtenDay = day;
        }
        out.cell(written.bytes(), 0, written.length());
        return day;
    }

    @Override
    long readBack(byte[] bytes, int from, int to) {
        if (to - from != readLength || !Spans.same(bytes, from, read, 0, readLength)) {
            long day = pattern.parse(bytes, from, to);
            readLength = to - from;
            read = Arrays.copyOf(Arrays.copyOfRange(bytes, from, to), readLength + Long.BYTES);
            readDay = day == DatePattern.BLANK ? SourceRecord.ABSENT : day;
        }
        return readDay;
    }
}
