package io.mivrel.checking;

import io.mivrel.books.Books;
import io.mivrel.books.Nearest;
import io.mivrel.books.Party;
import io.mivrel.model.BankBatch;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.SpanMap;
import java.util.Collection;
import java.util.function.Consumer;

/** Tax codes and parties must be in the books, and a party on the right side. */
final class CodeCheck implements Check {
    private final Books books;
    private final SpanMap<String> taxCodes;
    private final SpanMap<String> parties;

    CodeCheck(Books books) {
        this.books = books;
        this.taxCodes = SpanMap.ofKeys(books.taxCodeCodes());
        this.parties = SpanMap.ofKeys(books.partyCodes());
    }

    @Override
    public void passes(DocumentBlock batch, boolean[] marked) {
        RecordBlock records = batch.records();
        for (int i = 0; i < batch.size(); i++) {
            marked[i] = marked[i]
                    && (batch instanceof BankBatch lines
                            ? passes(lines.coding(i))
                            : allKnown(records, batch.from(i), batch.to(i)));
        }
    }

    private boolean passes(Coding coding) {
        return (coding.taxCode() == null || books.taxCode(coding.taxCode()) != null)
                && (coding.party() == null || books.party(coding.party()) != null);
    }

    @Override
    public boolean passes(Document document) {
        if (document instanceof BankTransaction transaction) {
            return passes(transaction.coding());
        }
        RecordRange lines = document instanceof Journal journal ? journal.asRead() : null;
        return lines != null && allKnown(lines.batch(), lines.from(), lines.to());
    }

    private boolean allKnown(RecordBlock lines, int from, int to) {
        return allKnown(lines, JournalLines.TAX_CODE, taxCodes, from, to)
                && allKnown(lines, JournalLines.PARTY, parties, from, to);
    }

    private static boolean allKnown(RecordBlock lines, Field field, SpanMap<String> known, int from, int to) {
        if (lines.lacks(field)) {
            return true;
        }
        for (int i = from; i < to; i++) {
            int start = lines.textStart(field, i);
            int end = lines.textEnd(field, i);
            if (start < end && known.get(lines.textBytes(), start, end) == null) {
                return false;
            }
        }
        return true;
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (document instanceof Journal) {
            each(document, JournalLines.TAX_CODE, JournalLines.PARTY, findings);
        } else if (document instanceof BankTransaction transaction) {
            taxCode(transaction.record(), transaction.coding().taxCode(), findings);
            party(transaction.record(), transaction.coding().party(), findings);
        } else if (document instanceof Invoice invoice) {
            for (SourceRecord line : invoice.records()) {
                taxCode(line, line.text(InvoiceLines.TAX_CODE), findings);
            }
            SourceRecord first = invoice.records().get(0);
            Party party = party(first, first.text(InvoiceLines.PARTY), findings);
            if (party != null && party.isCustomer() != invoice.kind().isSale()) {
                findings.accept(new Finding(
                        Rule.PARTY_UNSUITABLE,
                        first.origin(),
                        "party",
                        party.code(),
                        party.name() + " is a " + (party.isCustomer() ? "customer" : "supplier") + ", but this is a "
                                + invoice.kind().word(),
                        "correct the party or the kind"));
            }
        }
    }

    private void each(Document document, Field taxCode, Field party, Consumer<Finding> findings) {
        for (SourceRecord line : document.records()) {
            taxCode(line, line.text(taxCode), findings);
            party(line, line.text(party), findings);
        }
    }

    private void taxCode(SourceRecord line, String code, Consumer<Finding> findings) {
        if (code != null && books.taxCode(code) == null) {
            findings.accept(new Finding(
                    Rule.TAX_CODE_UNKNOWN,
                    line.origin(),
                    "tax code",
                    code,
                    "the books have " + String.join(", ", books.taxCodeCodes()),
                    meant(code, books.taxCodeCodes())));
        }
    }

    private Party party(SourceRecord line, String code, Consumer<Finding> findings) {
        if (code == null) {
            return null;
        }
        Party party = books.party(code);
        if (party == null) {
            findings.accept(new Finding(
                    Rule.PARTY_UNKNOWN,
                    line.origin(),
                    "party",
                    code,
                    "is neither a customer nor a supplier of the books",
                    meant(code, books.partyCodes())));
        }
        return party;
    }

    private static String meant(String code, Collection<String> known) {
        String near = Nearest.one(code, known);
        return near == null ? "" : "was " + near + " meant?";
    }
}
