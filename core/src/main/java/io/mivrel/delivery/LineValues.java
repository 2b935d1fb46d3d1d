package io.mivrel.delivery;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.Record;
import java.util.Map;

/** Gets the value of a field for a line of a document in the form that is delivered. */
final class LineValues {
    /** A text or decimal value; {@code null} when blank. */
    interface Text {
        Object of(Document document, int line);
    }

    /** An amount or an epoch day; {@link Record#ABSENT} when blank. */
    interface Number {
        long of(Document document, int line);
    }

    private interface OfJournal {
        Object of(Journal journal, JournalLine line, int index);
    }

    private static final Map<Field, OfJournal> JOURNAL_TEXTS = Map.of(
            JournalLines.REFERENCE, (j, l, i) -> j.reference(),
            JournalLines.ACCOUNT, (j, l, i) -> l.account(),
            JournalLines.NARRATIVE, (j, l, i) -> l.narrative(),
            JournalLines.TAX_CODE, (j, l, i) -> l.taxCode(),
            JournalLines.PARTY, (j, l, i) -> l.party(),
            JournalLines.DEPARTMENT, (j, l, i) -> l.department(),
            JournalLines.LINE, (j, l, i) -> Integer.toString(i + 1),
            JournalLines.SOURCE_FILE, (j, l, i) -> l.source().file(),
            JournalLines.SOURCE_ROW, (j, l, i) -> Long.toString(l.source().row()));

    private LineValues() {}

    /** For fields of text, code and number. */
    static Text text(Field field) {
        OfJournal ofJournal = JOURNAL_TEXTS.get(field);
        if (ofJournal != null) {
            return (d, i) -> {
                Journal journal = (Journal) d;
                return ofJournal.of(journal, journal.lines().get(i), i);
            };
        }
        if (field == BankLines.ENTRY) {
            return (d, i) -> ((BankTransaction) d).codingEntry();
        }
        if (field == BankLines.BANK_ACCOUNT) {
            return (d, i) -> ((BankTransaction) d).bankAccount();
        }
        if (field == InvoiceLines.LINE) {
            return (d, i) -> Integer.toString(i + 1);
        }
        if (field == BankLines.SOURCE_FILE || field == InvoiceLines.SOURCE_FILE) {
            return (d, i) -> source(d, i).file();
        }
        if (field == BankLines.SOURCE_ROW || field == InvoiceLines.SOURCE_ROW) {
            return (d, i) -> Long.toString(source(d, i).row());
        }
        if (field.type() == io.mivrel.model.FieldType.DECIMAL) {
            return (d, i) -> source(d, i).decimal(field);
        }
        return (d, i) -> source(d, i).text(field);
    }

    /** For fields of date and amount. */
    static Number number(Field field) {
        if (field == JournalLines.DATE) {
            return (d, i) -> d.date().toEpochDay();
        }
        if (field == JournalLines.AMOUNT) {
            return (d, i) -> ((Journal) d).lines().get(i).amount();
        }
        if (field == JournalLines.DEBIT) {
            return (d, i) -> ((Journal) d).lines().get(i).debit();
        }
        if (field == JournalLines.CREDIT) {
            return (d, i) -> ((Journal) d).lines().get(i).credit();
        }
        if (field == BankLines.MONEY_IN) {
            return (d, i) -> Math.max(0, ((BankTransaction) d).amount());
        }
        if (field == BankLines.MONEY_OUT) {
            return (d, i) -> Math.max(0, -((BankTransaction) d).amount());
        }
        if (field == InvoiceLines.NET) {
            return (d, i) -> line(d, i).net();
        }
        if (field == InvoiceLines.TAX) {
            return (d, i) -> line(d, i).tax();
        }
        if (field == InvoiceLines.GROSS) {
            return (d, i) -> line(d, i).gross();
        }
        if (field == InvoiceLines.TOTAL) {
            return (d, i) -> ((Invoice) d).gross();
        }
        return (d, i) -> source(d, i).number(field);
    }

    private static InvoiceLine line(Document document, int line) {
        return ((Invoice) document).lines().get(line);
    }

    private static Record source(Document document, int line) {
        return document instanceof Invoice ? line(document, line).source() : document.records().get(line);
    }
}
