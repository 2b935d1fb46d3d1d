package io.mivrel.model;

import java.time.LocalDate;
import java.util.List;

/**
 * An invoice, credit note, bill or supplier credit.
 *
 * @param kind {@code null} only when the document is not sound
 * @param date date of the document
 * @param entry its double entry, made while drafting; empty lines when the document is not sound
 */
public record Invoice(
        String reference,
        InvoiceKind kind,
        LocalDate date,
        List<InvoiceLine> lines,
        List<SourceRecord> records,
        Journal entry)
        implements Document {

    public Invoice {
        lines = List.copyOf(lines);
        records = List.copyOf(records);
    }

    @Override
    public Journal journal() {
        return entry;
    }

    /** Net and tax of all lines, in minor units as printed. */
    public long gross() {
        long sum = 0;
        for (InvoiceLine line : lines) {
            sum = Math.addExact(sum, line.gross());
        }
        return sum;
    }

    @Override
    public void addTo(Totals totals) {
        for (SourceRecord record : records) {
            long net = record.number(InvoiceLines.NET);
            if (net != SourceRecord.ABSENT) {
                totals.add(signed(record.text(InvoiceLines.KIND), net));
            }
        }
    }

    /** A net amount with the sign it has for the party's account; an unknown kind counts as printed. */
    public static long signed(String kindWord, long net) {
        InvoiceKind of = InvoiceKind.of(kindWord);
        return of == null ? net : of.controlSign() * net;
    }
}
