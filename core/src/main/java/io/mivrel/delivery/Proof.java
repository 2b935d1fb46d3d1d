package io.mivrel.delivery;

import io.mivrel.model.Field;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Totals;
import io.mivrel.text.Hash64;
import java.util.Arrays;

/**
 * One side of the comparison between what was meant and what is in the file: rows, control totals of the amount, and a
 * fingerprint of all values in their order. Kept once while writing and once, independently, while reading back.
 */
final class Proof {
    private final Totals totals = new Totals();
    private final int[] amountColumns;
    private final AmountRenderer plus;
    /** The other side, where the amount stands in two columns; else {@code null}. */
    private final AmountRenderer minus;

    private long rows;
    private long fingerprint;

    Proof(ColumnRenderer[] columns, Takes takes) {
        this.amountColumns = amountColumns(columns, takes);
        this.plus = (AmountRenderer) columns[amountColumns[0]];
        this.minus = amountColumns.length == 2 ? (AmountRenderer) columns[amountColumns[1]] : null;
    }

    // The one column with the signed amount, or the two columns of its sides.
    private static int[] amountColumns(ColumnRenderer[] columns, Takes takes) {
        int one = find(columns, takes == Takes.INVOICES ? InvoiceLines.NET.name() : "amount");
        if (one < 0 && takes == Takes.INVOICES) {
            one = find(columns, InvoiceLines.GROSS.name());
        }
        if (one >= 0) {
            return new int[] {one};
        }
        return takes == Takes.JOURNALS
                ? new int[] {find(columns, "debit"), find(columns, "credit")}
                : new int[] {find(columns, "money in"), find(columns, "money out")};
    }

    private static int find(ColumnRenderer[] columns, String name) {
        for (int i = 0; i < columns.length; i++) {
            Field field = columns[i].column.field();
            if (field != null && field.name().equals(name)) {
                return i;
            }
        }
        return -1;
    }

    /** Adds the values of rows as {@link ColumnRenderer#render} gave them. */
    void rows(CellColumn[] columns, int count) {
        for (int row = 0; row < count; row++) {
            long h = fingerprint;
            for (CellColumn column : columns) {
                h = Hash64.add(h, column.value(row));
            }
            fingerprint = h;
            add(columns[amountColumns[0]].value(row), minus == null ? 0 : columns[amountColumns[1]].value(row));
        }
        rows += count;
    }

    /** Adds a row of values as {@link ColumnRenderer#write} or {@link ColumnRenderer#readBack} gave them. */
    void row(long[] values) {
        rows++;
        long h = fingerprint;
        for (long value : values) {
            h = Hash64.add(h, value);
        }
        fingerprint = h;
        add(values[amountColumns[0]], minus == null ? 0 : values[amountColumns[1]]);
    }

    private void add(long one, long other) {
        long amount = plus.signed(one);
        totals.add(minus == null ? amount : amount - minus.signed(other));
    }

    long rows() {
        return rows;
    }

    Totals totals() {
        return totals;
    }

    boolean agreesWith(Proof other) {
        return rows == other.rows && fingerprint == other.fingerprint && totals.agreesWith(other.totals);
    }

    @Override
    public String toString() {
        return rows + " rows, " + totals + ", amounts in column " + Arrays.toString(amountColumns);
    }
}
