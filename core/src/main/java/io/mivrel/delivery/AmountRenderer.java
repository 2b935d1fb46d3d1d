package io.mivrel.delivery;

import io.mivrel.model.BankLines;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
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
    long writeAsRead(Document document, RecordBlock batch, int at, int index, CellBuffer scratch, RowWriter out)
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
        if (value == SourceRecord.ABSENT || (value == 0 && column.blankZero())) {
            return SourceRecord.ABSENT;
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
    long readBack(byte[] bytes, int from, int to) {
        return amounts.parse(bytes, from, to);
    }

    /** The part of an amount for the control totals: nil for a blank, with the books' sign. */
    long signed(long value) {
        return value == SourceRecord.ABSENT ? 0 : column.minus() ? -value : value;
    }
}
