package io.mivrel.delivery;

import io.mivrel.model.Kind;
import io.mivrel.money.Totals;
import io.mivrel.text.Hash64;
import java.nio.charset.StandardCharsets;
import java.util.Currency;
import java.util.Objects;
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

    /** The column that says the side of the amount, and its word for minus; -1 when the amount has its sign. */
    private final int sidePlace;

    private final long minusWord;

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
        this.sidePlace =
                plusPlace >= 0 && sheet.columns().get(plusPlace).sign() == AmountSign.NONE ? sheet.sidesPlace() : -1;
        byte[] word = sidePlace < 0
                ? new byte[0]
                : Objects.requireNonNull(sheet.columns().get(sidePlace).sides())
                        .minus()
                        .getBytes(StandardCharsets.UTF_8);
        this.minusWord = Hash64.of(word, 0, word.length);
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
            long unsigned = plus.signed(values[plusPlace]);
            long amount = sidePlace >= 0 && values[sidePlace] == minusWord ? -unsigned : unsigned;
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
