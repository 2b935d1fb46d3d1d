package io.mivrel.model;

import java.time.LocalDate;
import java.util.List;

/** A journal: lines that should sum to nil under one reference and date. */
public record Journal(String reference, LocalDate date, List<JournalLine> lines, List<Record> records)
        implements Document {

    public Journal {
        lines = List.copyOf(lines);
        records = List.copyOf(records);
    }

    /** Debits less credits, in minor units; nil when it balances. */
    public long difference() {
        long sum = 0;
        for (JournalLine line : lines) {
            sum = Math.addExact(sum, line.amount());
        }
        return sum;
    }

    @Override
    public Journal journal() {
        return this;
    }

    @Override
    public void addTo(Totals totals) {
        for (Record record : records) {
            long amount = record.number(JournalLines.AMOUNT);
            if (amount != Record.ABSENT) {
                totals.add(amount);
            }
        }
    }
}
