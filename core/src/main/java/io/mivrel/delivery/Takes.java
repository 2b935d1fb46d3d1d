package io.mivrel.delivery;

import io.mivrel.model.BankBatch;
import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.FieldTable;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordRange;
import java.util.Arrays;
import java.util.List;

/** The kind of documents that a delivery takes. Every document can be delivered as the journal it amounts to. */
public enum Takes {
    BANK_TRANSACTIONS("bank transactions", BankLines.TABLE),
    JOURNALS("journals", JournalLines.TABLE),
    INVOICES("invoices", InvoiceLines.TABLE);

    private final String words;
    private final FieldTable table;

    Takes(String words, FieldTable table) {
        this.words = words;
        this.table = table;
    }

    /** As settings write it. */
    public String words() {
        return words;
    }

    /** The fields of a delivered line. */
    public FieldTable table() {
        return table;
    }

    /** True when documents made of such records can be delivered so. */
    public boolean accepts(FieldTable records) {
        return this == JOURNALS || table == records;
    }

    /** The document in the form that is delivered. */
    Document of(Document document) {
        return this == JOURNALS ? document.journal() : document;
    }

    /** True when the delivered lines are the records of such documents, one for one. */
    boolean takesAsRead(DocumentBlock batch) {
        return this == (batch instanceof BankBatch ? BANK_TRANSACTIONS : JOURNALS);
    }

    /** The records that are the delivered lines one for one, or {@code null} when the lines are the document's own. */
    RecordRange asRead(Document delivered) {
        return switch (this) {
            case JOURNALS -> ((Journal) delivered).asRead();
            case BANK_TRANSACTIONS -> ((BankTransaction) delivered).records();
            case INVOICES -> null;
        };
    }

    /** How many lines a document has in the form that is delivered. */
    int lines(Document delivered) {
        if (delivered instanceof Journal journal) {
            return journal.asRead() != null
                    ? journal.asRead().size()
                    : journal.lines().size();
        }
        return delivered instanceof Invoice invoice ? invoice.lines().size() : 1;
    }

    /** The kind with these words, or {@code null}. */
    public static Takes of(String words) {
        return Arrays.stream(values())
                .filter(t -> t.words.equals(words))
                .findFirst()
                .orElse(null);
    }

    public static List<String> allWords() {
        return Arrays.stream(values()).map(Takes::words).toList();
    }

    /** What the records of a table become; the natural form to deliver them in. */
    public static Takes natural(FieldTable records) {
        return Arrays.stream(values())
                .filter(t -> t.table == records)
                .findFirst()
                .orElseThrow();
    }

    @Override
    public String toString() {
        return words;
    }
}
