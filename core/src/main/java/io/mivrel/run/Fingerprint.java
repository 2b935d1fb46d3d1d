package io.mivrel.run;

import io.mivrel.model.BankBatch;
import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Hash64;

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

    /** The identity of a document of a batch. */
    static long identity(DocumentBlock batch, int document) {
        return batch instanceof BankBatch lines
                ? ofBankLine(lines.bankAccount(), lines.records(), document)
                : ofJournal(batch.records(), batch.from(document));
    }

    /** The content of a document of a batch that has this identity. */
    static long content(DocumentBlock batch, int document, long identity) {
        return batch instanceof BankBatch
                ? identity
                : contentOfJournal(batch.records(), batch.from(document), batch.to(document), identity);
    }

    private static Fingerprint of(BankTransaction line) {
        RecordRange records = line.records();
        long hash = ofBankLine(line.bankAccount(), records.batch(), records.from());
        return new Fingerprint(hash, hash);
    }

    private static long ofBankLine(String bankAccount, RecordBlock lines, int index) {
        // The hash that a string keeps, the same everywhere, is enough for an account.
        long h = Hash64.add(1, bankAccount.hashCode());
        long balance = lines.number(BankLines.BALANCE, index);
        h = Hash64.add(h, lines.number(BankLines.DATE, index));
        h = Hash64.add(h, lines.number(BankLines.AMOUNT, index));
        h = Hash64.add(h, balance);
        if (lines.textStart(BankLines.BANK_REFERENCE, index) < lines.textEnd(BankLines.BANK_REFERENCE, index)) {
            return add(h, lines, BankLines.BANK_REFERENCE, index);
        }
        if (balance == SourceRecord.ABSENT) {
            // With a balance the text is not needed, and a layout that joins it otherwise changes nothing.
            h = add(add(h, lines, BankLines.REFERENCE, index), lines, BankLines.NARRATIVE, index);
        }
        return h;
    }

    private static long add(long hash, RecordBlock batch, Field field, int index) {
        return Hash64.add(hash, batch.textBytes(), batch.textStart(field, index), batch.textEnd(field, index));
    }

    private static Fingerprint of(Invoice invoice) {
        SourceRecord source = invoice.records().get(0);
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
        long identity = ofJournal(lines.batch(), lines.from());
        return new Fingerprint(identity, contentOfJournal(lines.batch(), lines.from(), lines.to(), identity));
    }

    private static long ofJournal(RecordBlock lines, int first) {
        return add(3, lines, JournalLines.REFERENCE, first);
    }

    private static long contentOfJournal(RecordBlock lines, int from, int to, long identity) {
        long content = Hash64.add(identity, lines.number(JournalLines.DATE, from));
        for (int i = from; i < to; i++) {
            content = Hash64.add(add(content, lines, JournalLines.ACCOUNT, i), lines.number(JournalLines.AMOUNT, i));
        }
        return content;
    }

    /** True when equal ones are told apart only by how many there are. */
    boolean isCounted() {
        return identity == content;
    }
}
