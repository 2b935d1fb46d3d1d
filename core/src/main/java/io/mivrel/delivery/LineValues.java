package io.mivrel.delivery;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.SourceRecord;
import java.util.Map;

/** Gets the value of a field for a line of a document in the form that is delivered. */
final class LineValues {
    /** A code or decimal value; {@code null} when blank. */
    interface Text {
        Object of(Document document, Object line, int index);
    }

    /** A text that lies in its record, or a text of its own that stands instead. */
    interface Span {
        /** The text to use instead of the record's, or {@code null}. */
        String own(Document document, Object line);

        /** The record that the text lies in. */
        SourceRecord record(Object line);

        /** The field of the record that it lies in. */
        Field field(SourceRecord record);
    }

    /** An amount or an epoch day; {@link SourceRecord#ABSENT} when blank. */
    interface Number {
        long of(Document document, Object line);
    }

    private static final Map<Field, Text> JOURNAL_TEXTS = Map.of(
            JournalLines.REFERENCE, (d, l, i) -> d.reference(),
            JournalLines.ACCOUNT, (d, l, i) -> ((JournalLine) l).account(),
            JournalLines.TAX_CODE, (d, l, i) -> ((JournalLine) l).taxCode(),
            JournalLines.PARTY, (d, l, i) -> ((JournalLine) l).party(),
            JournalLines.DEPARTMENT, (d, l, i) -> ((JournalLine) l).department(),
            JournalLines.LINE, (d, l, i) -> Integer.toString(i + 1),
            JournalLines.SOURCE_FILE, (d, l, i) -> source(l).file(),
            JournalLines.SOURCE_ROW, (d, l, i) -> Long.toString(source(l).row()));

    private LineValues() {}

    /** The line that the values are taken from: a journal line, an invoice line, or the record of a bank line. */
    static Object line(Document delivered, int index) {
        if (delivered instanceof Journal journal) {
            return journal.lines().get(index);
        }
        return delivered instanceof Invoice invoice
                ? invoice.lines().get(index)
                : delivered.records().get(index);
    }

    /** The record that a line was made of. */
    static SourceRecord source(Object line) {
        if (line instanceof JournalLine journalLine) {
            return journalLine.source();
        }
        return line instanceof InvoiceLine invoiceLine ? invoiceLine.source() : (SourceRecord) line;
    }

    /** For fields of code and number. */
    static Text text(Field field) {
        Text ofJournal = JOURNAL_TEXTS.get(field);
        if (ofJournal != null) {
            return ofJournal;
        }
        if (field == BankLines.ENTRY) {
            return (d, l, i) -> coding(d).entry();
        }
        if (field == BankLines.ACCOUNT) {
            return (d, l, i) -> coding(d).account();
        }
        if (field == BankLines.TAX_CODE) {
            return (d, l, i) -> coding(d).taxCode();
        }
        if (field == BankLines.PARTY) {
            return (d, l, i) -> coding(d).party();
        }
        if (field == BankLines.BANK_ACCOUNT) {
            return (d, l, i) -> ((BankTransaction) d).bankAccount();
        }
        if (field == InvoiceLines.LINE) {
            return (d, l, i) -> Integer.toString(i + 1);
        }
        if (field == BankLines.SOURCE_FILE || field == InvoiceLines.SOURCE_FILE) {
            return (d, l, i) -> source(l).file();
        }
        if (field == BankLines.SOURCE_ROW || field == InvoiceLines.SOURCE_ROW) {
            return (d, l, i) -> Long.toString(source(l).row());
        }
        if (field.type() == FieldType.DECIMAL) {
            return (d, l, i) -> source(l).decimal(field);
        }
        return (d, l, i) -> source(l).text(field);
    }

    private static BankTransaction.Coding coding(Document document) {
        return ((BankTransaction) document).coding();
    }

    /** For fields of free text. */
    static Span span(Field field) {
        boolean ofJournal = field == JournalLines.NARRATIVE;
        boolean ofBank = field == BankLines.NARRATIVE;
        return new Span() {
            @Override
            public String own(Document document, Object line) {
                return ofJournal
                        ? ((JournalLine) line).ownNarrative()
                        : ofBank ? coding(document).narrative() : null;
            }

            @Override
            public SourceRecord record(Object line) {
                return ofJournal ? ((JournalLine) line).source() : source(line);
            }

            @Override
            public Field field(SourceRecord record) {
                return ofJournal ? JournalLine.narrativeOf(record.table()) : field;
            }
        };
    }

    /** For fields of date and amount. */
    static Number number(Field field) {
        if (field == JournalLines.DATE) {
            return (d, l) -> d.date().toEpochDay();
        }
        if (field == JournalLines.AMOUNT) {
            return (d, l) -> ((JournalLine) l).amount();
        }
        if (field == JournalLines.DEBIT) {
            return (d, l) -> ((JournalLine) l).debit();
        }
        if (field == JournalLines.CREDIT) {
            return (d, l) -> ((JournalLine) l).credit();
        }
        if (field == BankLines.MONEY_IN) {
            return (d, l) -> Math.max(0, ((BankTransaction) d).amount());
        }
        if (field == BankLines.MONEY_OUT) {
            return (d, l) -> Math.max(0, -((BankTransaction) d).amount());
        }
        if (field == InvoiceLines.NET) {
            return (d, l) -> ((InvoiceLine) l).net();
        }
        if (field == InvoiceLines.TAX) {
            return (d, l) -> ((InvoiceLine) l).tax();
        }
        if (field == InvoiceLines.GROSS) {
            return (d, l) -> ((InvoiceLine) l).gross();
        }
        if (field == InvoiceLines.TOTAL) {
            return (d, l) -> ((Invoice) d).gross();
        }
        return (d, l) -> source(l).number(field);
    }
}
