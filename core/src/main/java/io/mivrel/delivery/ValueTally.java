package io.mivrel.delivery;

import io.mivrel.model.Kind;
import io.mivrel.money.Totals;
import io.mivrel.text.Hash64;
import java.util.Currency;
import org.jspecify.annotations.Nullable;

/**
 * One side of the comparison between what was meant and what is in the file: rows, control totals of the amount, and a
 * fingerprint of all values in their order. Kept once while writing and once, independently, while reading back.
 */
final class ValueTally {
    private final Totals totals;
    private final Currency currency;
    /** The column with the amount, or with its positive side; -1 when the sheet carries none. */
    private final int plusPlace;
    /** The column with the other side; -1 for none. */
    private final int minusPlace;

    private final @Nullable AmountRenderer plus;
    private final @Nullable AmountRenderer minus;
    private long rows;
    private long fingerprint;

    ValueTally(ColumnRenderer[] columns, Sheet sheet, Kind takes, Currency currency) {
        this.totals = new Totals(currency);
        this.currency = currency;
        int one = sheet.carriesAmount(takes) ? sheet.place(takes.amount()) : -1;
        if (one < 0 && takes.grossAmount() != null && sheet.carriesAmount(takes)) {
            one = sheet.place(takes.grossAmount());
        }
        boolean sides = one < 0 && sheet.carriesAmount(takes);
        this.plusPlace = sides ? sheet.place(takes.plusSide()) : one;
        this.minusPlace = sides ? sheet.place(takes.minusSide()) : -1;
        this.plus = plusPlace < 0 ? null : (AmountRenderer) columns[plusPlace];
        this.minus = minusPlace < 0 ? null : (AmountRenderer) columns[minusPlace];
    }

    /** Adds a row of values as {@link ColumnRenderer#write} or {@link ColumnRenderer#readBack} gave them. */
    void row(long[] values) {
        rows++;
        long h = fingerprint;
        for (long value : values) {
            h = Hash64.add(h, value);
        }
        fingerprint = h;
        if (plus != null) {
            long amount = plus.signed(values[plusPlace]);
            totals.add(minus == null ? amount : amount - minus.signed(values[minusPlace]), currency);
        }
    }

    long rows() {
        return rows;
    }

    Totals totals() {
        return totals;
    }

    boolean agreesWith(ValueTally other) {
        return rows == other.rows && fingerprint == other.fingerprint && totals.agreesWith(other.totals);
    }

    @Override
    public String toString() {
        return rows + " rows, " + totals;
    }
}
