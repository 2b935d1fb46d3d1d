package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import java.io.IOException;

/** A column of amounts in the currency of the run. */
final class AmountRenderer extends ColumnRenderer {
    private final Field field;
    private final AmountFormat amounts;
    /** The field that a record has the amount in; a side is worked out of it. */
    private final Field read;

    private final boolean plusSide;
    private final boolean minusSide;

    AmountRenderer(DeliveryColumn column, Field field, Kind kind, AmountFormat amounts) {
        super(column, false);
        this.field = field;
        this.amounts = amounts;
        this.plusSide = field == kind.plusSide();
        this.minusSide = field == kind.minusSide();
        this.read = plusSide || minusSide ? kind.amount() : field;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return write(line.number(field), scratch, out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        long value = block.records().number(read, at);
        return write(plusSide ? Math.max(value, 0) : minusSide ? Math.max(-value, 0) : value, scratch, out);
    }

    private long write(long value, CellBuffer scratch, RowWriter out) throws IOException {
        scratch.clear();
        long signed = SourceRecord.ABSENT;
        if (value != SourceRecord.ABSENT && (value != 0 || !column.blankZero())) {
            signed = column.sign().of(value);
            append(signed, amounts, column.zeros(), scratch);
        }
        out.cell(scratch.bytes(), 0, scratch.length());
        return signed;
    }

    /** Writes an amount with its sign where the receiver has it, and noughts before its digits. */
    static void append(long signed, AmountFormat amounts, int zeros, CellBuffer into) {
        boolean signBehind = signed < 0 && (amounts.brackets() || amounts.trailingMinus());
        amounts.append(signBehind ? -signed : signed, into);
        if (!signBehind && zeros <= into.length()) {
            return;
        }
        String plain = into.toString();
        String before = plain.startsWith("-") ? "-" : signBehind && amounts.brackets() ? "(" : "";
        String behind = !signBehind ? "" : amounts.brackets() ? ")" : "-";
        String digits = plain.startsWith("-") ? plain.substring(1) : plain;
        int lacking = zeros - before.length() - digits.length() - behind.length();
        into.clear().append(before + "0".repeat(Math.max(0, lacking)) + digits + behind);
    }

    @Override
    long readBack(byte[] bytes, int from, int to) {
        return amounts.parse(bytes, from, to);
    }

    /** The part of an amount for the control totals: nil for a blank, with the books' sign. */
    long signed(long value) {
        return value == SourceRecord.ABSENT ? 0 : column.sign().of(value);
    }
}
