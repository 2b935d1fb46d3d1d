package io.mivrel.intake;

import io.mivrel.model.SourceRecord;
import io.mivrel.rows.Row;
import io.mivrel.text.AmountFormat;
import org.jspecify.annotations.Nullable;

/** Reads the balances that a file states beside its rows, and adds up what its rows move. For one thread. */
final class StatedBalances {
    private final Stated labels;
    private final AmountFormat numbers;
    private long opening = SourceRecord.ABSENT;
    private long closing = SourceRecord.ABSENT;
    private long closingRow;
    private long movement;
    private boolean known = true;

    StatedBalances(Stated labels, AmountFormat numbers) {
        this.labels = labels;
        this.numbers = numbers.withBrackets().withTrailingMinus();
    }

    /** Looks at a row above or below the data. */
    void beside(Row row) {
        if (opening == SourceRecord.ABSENT) {
            opening = figure(row, labels.opening());
        }
        if (closing == SourceRecord.ABSENT) {
            closing = figure(row, labels.closing());
            closingRow = closing == SourceRecord.ABSENT ? 0 : row.number();
        }
    }

    private long figure(Row row, @Nullable String label) {
        if (label == null) {
            return SourceRecord.ABSENT;
        }
        for (int i = 0; i < row.size(); i++) {
            String cell = row.trimmed(i);
            if (!cell.startsWith(label)) {
                continue;
            }
            int colon = cell.indexOf(':', label.length() - 1);
            long here = colon < 0 ? SourceRecord.ABSENT : read(cell.substring(colon + 1));
            for (int next = i + 1; here == SourceRecord.ABSENT && next < row.size(); next++) {
                if (!row.trimmed(next).isEmpty()) {
                    here = read(row.trimmed(next));
                    break;
                }
            }
            return here;
        }
        return SourceRecord.ABSENT;
    }

    private long read(String text) {
        long value = numbers.parse(text);
        return !AmountFormat.isAmount(value) ? SourceRecord.ABSENT : labels.owed() ? -value : value;
    }

    /** Adds what a row moves; {@link SourceRecord#ABSENT} when it could not be read. */
    void add(long amount) {
        known &= amount != SourceRecord.ABSENT;
        movement += amount == SourceRecord.ABSENT ? 0 : amount;
    }

    /** The balance before the rows, or {@link SourceRecord#ABSENT}. */
    long opening() {
        return opening;
    }

    long closing() {
        return closing;
    }

    /** The row that states the closing balance. */
    long closingRow() {
        return closingRow;
    }

    long movement() {
        return movement;
    }

    /** True when both are stated and every amount between them is known. */
    boolean canBeCompared() {
        return known && opening != SourceRecord.ABSENT && closing != SourceRecord.ABSENT;
    }
}
