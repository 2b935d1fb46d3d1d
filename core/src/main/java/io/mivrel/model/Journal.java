package io.mivrel.model;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/**
 * A journal: lines that should sum to nil under one reference and date. One whose lines are its records, one for one,
 * makes its lines when they are first asked for, since most journals of a ledger are checked and delivered without. For
 * one thread at a time; otherwise immutable.
 */
public final class Journal implements Document {
    private final List<SourceRecord> records;
    private final RecordRange asRead;
    private String reference;
    private LocalDate date;
    private List<JournalLine> lines;

    /** A journal with lines of its own, made of these records. */
    public Journal(String reference, LocalDate date, List<JournalLine> lines, List<SourceRecord> records) {
        this.reference = reference;
        this.date = date;
        this.lines = List.copyOf(lines);
        this.records = List.copyOf(records);
        this.asRead = null;
    }

    private Journal(RecordRange asRead) {
        this.records = asRead;
        this.asRead = asRead;
    }

    /** A journal whose lines are sound journal line records that agree on reference and date. */
    public static Journal asRead(RecordRange records) {
        return new Journal(records);
    }

    /** The records that are its lines one for one; {@code null} when it has lines of its own. */
    public RecordRange asRead() {
        return asRead;
    }

    @Override
    public String reference() {
        if (reference == null && asRead != null) {
            reference = asRead.batch().text(JournalLines.REFERENCE, asRead.from());
        }
        return reference;
    }

    @Override
    public LocalDate date() {
        if (date == null && asRead != null) {
            date = LocalDate.ofEpochDay(day());
        }
        return date;
    }

    @Override
    public long day() {
        return asRead != null ? asRead.batch().number(JournalLines.DATE, asRead.from()) : Document.super.day();
    }

    public List<JournalLine> lines() {
        if (lines == null) {
            List<JournalLine> made = new ArrayList<>(asRead.size());
            for (SourceRecord record : asRead) {
                made.add(JournalLine.asRead(record));
            }
            lines = List.copyOf(made);
        }
        return lines;
    }

    @Override
    public List<SourceRecord> records() {
        return records;
    }

    /** Debits less credits, in minor units; nil when it balances. */
    public long difference() {
        long sum = 0;
        if (asRead != null) {
            for (int i = asRead.from(); i < asRead.to(); i++) {
                sum = Math.addExact(sum, asRead.batch().number(JournalLines.AMOUNT, i));
            }
            return sum;
        }
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
    public boolean isValid() {
        return asRead != null || Document.super.isValid();
    }

    @Override
    public void addTo(Totals totals) {
        if (asRead != null) {
            for (int i = asRead.from(); i < asRead.to(); i++) {
                totals.add(asRead.batch().number(JournalLines.AMOUNT, i));
            }
            return;
        }
        for (SourceRecord record : records) {
            long amount = record.number(JournalLines.AMOUNT);
            if (amount != SourceRecord.ABSENT) {
                totals.add(amount);
            }
        }
    }
}
