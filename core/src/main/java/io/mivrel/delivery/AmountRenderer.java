package io.mivrel.delivery;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.CellBuffer;
import io.mivrel.intake.RowBlock;
import io.mivrel.model.BankLines;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.JournalLines;
import io.mivrel.model.Record;
import io.mivrel.model.RecordBatch;
import java.io.IOException;

/** A column of amounts. */
final class AmountRenderer extends ColumnRenderer {
    private final AmountFormat amounts;
    private final LineValues.Number numbers;
    /** The field of the record that the amount is, or is one side of. */
    private final Field read;

    private final boolean plusSide;
    private final boolean minusSide;

    AmountRenderer(DeliveryColumn column, AmountFormat amounts) {
        super(column, false);
        this.amounts = amounts;
        this.numbers = LineValues.number(column.field());
        this.plusSide = column.field() == JournalLines.DEBIT || column.field() == BankLines.MONEY_IN;
        this.minusSide = column.field() == JournalLines.CREDIT || column.field() == BankLines.MONEY_OUT;
        this.read = !plusSide && !minusSide
                ? column.field()
                : column.field() == JournalLines.DEBIT || column.field() == JournalLines.CREDIT
                        ? JournalLines.AMOUNT
                        : BankLines.AMOUNT;
    }

    @Override
    long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out) throws IOException {
        return write(numbers.of(document, line), scratch, out);
    }

    @Override
    long writeAsRead(Document document, RecordBatch batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException {
        return write(side(batch.number(read, at)), scratch, out);
    }

    // The amount, or the side of it that the column has.
    private long side(long value) {
        return plusSide ? Math.max(value, 0) : minusSide ? Math.max(-value, 0) : value;
    }

    private long write(long value, CellBuffer scratch, RowWriter out) throws IOException {
        long written = append(value, scratch.clear());
        out.cell(scratch.bytes(), 0, scratch.length());
        return written;
    }

    private long append(long value, CellBuffer out) {
        if (value == Record.ABSENT || (value == 0 && column.blankZero())) {
            return Record.ABSENT;
        }
        long signed = column.minus() ? -value : value;
        amounts.append(signed, out);
        return signed;
    }

    @Override
    void render(AsRead lines, int from, int to, CellColumn out) {
        CellBuffer own = out.own();
        for (int i = from; i < to; i++) {
            int start = own.length();
            out.built(start, append(side(lines.records().number(read, i)), own));
        }
    }

    @Override
    void readBack(RowBlock rows, int cell, long[] values) {
        byte[] bytes = rows.bytes();
        for (int i = 0; i < rows.size(); i++) {
            values[i] = readBack(bytes, rows.start(i, cell), rows.end(i, cell));
        }
    }

    @Override
    long readBack(byte[] bytes, int from, int to) {
        return amounts.parse(bytes, from, to);
    }

    /** The part of an amount for the control totals: nil for a blank, with the books' sign. */
    long signed(long value) {
        return value == Record.ABSENT ? 0 : column.minus() ? -value : value;
    }
}
