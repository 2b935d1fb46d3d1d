package io.mivrel.run;

import io.mivrel.cells.Hash64;
import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.Record;
import io.mivrel.model.RecordBatch;
import io.mivrel.model.RecordRange;

/**
 * What makes a document the same from run to run, version 2: {@code identity} is what it is called, {@code content} its
 * figures as the source has them, before coding. A bank line is called by nothing but its content, so both are equal.
 * Narratives of journals and invoices do not count: correcting a text makes no new document.
 */
record Fingerprint(long identity, long content) {

    static Fingerprint of(Document document) {
        if (document instanceof BankTransaction transaction) {
            return of(transaction);
        }
        if (document instanceof Invoice invoice) {
            return of(invoice);
        }
        Journal journal = (Journal) document;
        return journal.asRead() != null ? of(journal.asRead()) : of(journal);
    }

    private static Fingerprint of(BankTransaction transaction) {
        Record source = transaction.record();
        // The hash that a string keeps, the same everywhere, is enough for an account.
        long h = Hash64.add(1, transaction.bankAccount().hashCode());
        h = Hash64.add(h, source.number(BankLines.DATE));
        h = Hash64.add(h, source.number(BankLines.AMOUNT));
        h = Hash64.add(h, source.number(BankLines.BALANCE));
        if (source.has(BankLines.BANK_REFERENCE)) {
            byte[] texts = source.textBytes();
            int start = source.textStart(BankLines.BANK_REFERENCE);
            return counted(Hash64.add(h, texts, start, source.textEnd(BankLines.BANK_REFERENCE)));
        }
        if (!source.has(BankLines.BALANCE)) {
            // With a balance the text is not needed, and a layout that joins it otherwise changes nothing.
            byte[] texts = source.textBytes();
            h = Hash64.add(h, texts, source.textStart(BankLines.REFERENCE), source.textEnd(BankLines.REFERENCE));
            h = Hash64.add(
                    h, Hash64.of(texts, source.textStart(BankLines.NARRATIVE), source.textEnd(BankLines.NARRATIVE)));
        }
        return counted(h);
    }

    private static Fingerprint counted(long hash) {
        return new Fingerprint(hash, hash);
    }

    private static Fingerprint of(Invoice invoice) {
        Record source = invoice.records().get(0);
        long identity = Hash64.add(2, source.text(InvoiceLines.KIND));
        identity = Hash64.add(identity, source.text(InvoiceLines.PARTY));
        identity = Hash64.add(identity, invoice.reference());
        long content = Hash64.add(identity, invoice.day());
        for (InvoiceLine line : invoice.lines()) {
            content = Hash64.add(content, line.source().text(InvoiceLines.ACCOUNT));
            content = Hash64.add(content, line.net());
            content = Hash64.add(content, line.tax());
        }
        return new Fingerprint(identity, content);
    }

    private static Fingerprint of(Journal journal) {
        long identity = Hash64.add(3, journal.reference());
        long content = Hash64.add(identity, journal.day());
        for (JournalLine line : journal.lines()) {
            content = Hash64.add(Hash64.add(content, line.account()), line.amount());
        }
        return new Fingerprint(identity, content);
    }

    // The same by column.
    private static Fingerprint of(RecordRange lines) {
        RecordBatch batch = lines.batch();
        byte[] texts = batch.textBytes();
        int first = lines.from();
        long identity = Hash64.add(
                3, texts, batch.textStart(JournalLines.REFERENCE, first), batch.textEnd(JournalLines.REFERENCE, first));
        long content = Hash64.add(identity, batch.number(JournalLines.DATE, first));
        for (int i = first; i < lines.to(); i++) {
            int account = batch.textStart(JournalLines.ACCOUNT, i);
            content = Hash64.add(content, texts, account, batch.textEnd(JournalLines.ACCOUNT, i));
            content = Hash64.add(content, batch.number(JournalLines.AMOUNT, i));
        }
        return new Fingerprint(identity, content);
    }

    /** True when equal ones are told apart only by how many there are. */
    boolean isCounted() {
        return identity == content;
    }
}
