package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;

/** A column with a word for the side that an amount is on. */
final class SideRenderer extends ColumnRenderer {
    private final Sides sides;
    private final Field field;

    SideRenderer(DeliveryColumn column, Sides sides, Field field, Kind kind) {
        super(column, true);
        this.sides = sides;
        this.field = field == kind.plusSide() || field == kind.minusSide() ? kind.amount() : field;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return write(line.number(field), scratch, out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        return write(block.records().number(field, at), scratch, out);
    }

    private long write(long amount, CellBuffer scratch, RowWriter out) throws IOException {
        scratch.clear();
        if (amount != SourceRecord.ABSENT) {
            scratch.append(sides.of(amount));
        }
        out.cell(scratch.bytes(), 0, scratch.length());
        return Hash64.of(scratch.bytes(), 0, scratch.length());
    }
}
