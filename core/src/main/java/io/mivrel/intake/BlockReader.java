package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.Record;
import io.mivrel.model.RecordBatch;

/**
 * Reads the rows of a block column by column, which spares the processor much going to and fro: for rows of which there
 * is nothing to tell, as nearly all are. It stops at the first other row, which {@link Intake} reads the usual way, so that
 * what is told of rows is said in one place only. For one thread.
 */
final class BlockReader {
    private final CellReader[] readers;
    private final AmountRule rule;
    private final boolean oneAmount;
    private final boolean turned;
    private final Field date;
    private final long wantedFrom;
    private final long wantedTo;

    private BlockReader(CellReader[] readers, AmountRule rule, Layout layout, Field date, long from, long to) {
        this.readers = readers;
        this.rule = rule;
        this.oneAmount = layout.fields().containsKey(rule.amount());
        this.turned = layout.signs() != Signs.AS_WRITTEN;
        this.date = date;
        this.wantedFrom = from;
        this.wantedTo = to;
    }

    /**
     * A reader for blocks, or {@code null} when the rows of the layout have to be read one by one. A row with a readable
     * date is neither blank nor below the data; {@code dateTitle}, when it is not {@code null}, stands over the dates, so
     * that titles that come again are known from data by it.
     */
    static BlockReader of(
            CellReader[] readers, AmountRule rule, Layout layout, Field date, String dateTitle, long from, long to) {
        boolean hasDate = false;
        for (CellReader reader : readers) {
            if (!reader.readsBlocks()) {
                return null;
            }
            hasDate |= reader.field == date && !reader.takesForDate(dateTitle);
        }
        boolean plain = hasDate && rule.hasSides() && layout.filters().isEmpty();
        return plain ? new BlockReader(readers, rule, layout, date, from, to) : null;
    }

    /**
     * Puts the rows from a place on into the records that come next, without ending them; answers the place of the first
     * row that is not there, the size of the block when all are.
     */
    int read(RowBlock rows, int from, RecordBatch into) {
        int to = rows.size();
        for (CellReader reader : readers) {
            to = reader.read(rows, from, to, into);
        }
        to = settle(from, to, into);
        into.keep(to - from, rows.size() - from);

        for (int i = from; i < to; i++) {
            into.row(i - from, rows.number(i));
        }
        return to;
    }

    // As AmountSettler does, of amounts that it would say nothing of.
    private int settle(int from, int to, RecordBatch into) {
        for (int i = from; i < to; i++) {
            int ahead = i - from;
            long amount;
            if (oneAmount) {
                amount = into.numberAhead(rule.amount(), ahead);
                if (amount == Record.ABSENT || amount == 0) {
                    return i;
                }
            } else {
                long plus = into.numberAhead(rule.plusSide(), ahead);
                long minus = into.numberAhead(rule.minusSide(), ahead);
                boolean isPlus = plus > 0 && (minus == 0 || minus == Record.ABSENT);
                boolean isMinus = minus > 0 && (plus == 0 || plus == Record.ABSENT);
                if (!isPlus && !isMinus) {
                    return i;
                }
                amount = isPlus ? plus : -minus;
            }
            long day = into.numberAhead(date, ahead);
            if (day < wantedFrom || day > wantedTo) {
                return i;
            }
            into.put(rule.amount(), ahead, turned ? -amount : amount);
        }
        return to;
    }
}
