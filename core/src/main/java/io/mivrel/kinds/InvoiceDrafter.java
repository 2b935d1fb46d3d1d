package io.mivrel.kinds;

import io.mivrel.books.Account;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.TaxCode;
import io.mivrel.drafting.DocumentTree;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Invoice lines with the same number become one document. Its double entry: the control account takes the gross, the
 * lines' accounts the net, and the tax codes' accounts the tax. Tax that a line does not give is its code's rate of the
 * net, rounded half up.
 */
final class InvoiceDrafter implements Drafter {
    private final Books books;

    InvoiceDrafter(DraftingContext context) {
        this.books = context.books();
    }

    @Override
    public List<String> gaps() {
        return List.of(AccountUse.RECEIVABLES, AccountUse.PAYABLES).stream()
                .filter(use -> books.accountFor(use).isEmpty())
                .map(use -> "the chart has no account with the use '" + use.word() + "', which invoices need")
                .toList();
    }

    @Override
    public Document draft(RecordRange records, @Nullable Coding coding, Consumer<Finding> findings) {
        Line heading = DocumentTree.of(
                InvoiceLines.KIND, records, record -> record.number(InvoiceLines.NET) != SourceRecord.ABSENT, findings);
        long total = 0;
        for (Line line : heading.children()) {
            long tax = tax(line);
            long gross = Math.addExact(line.minor(), tax);
            line.put(InvoiceLines.TAX, tax).put(InvoiceLines.GROSS, gross);
            total = Math.addExact(total, gross);
        }
        // What the document states is compared with this; what is delivered is what its lines come to.
        heading.put(InvoiceLines.TOTAL, total);
        String word = heading.text(InvoiceLines.DOCUMENT_KIND);
        if (word != null && InvoiceKind.of(word) == null) {
            findings.accept(unknownKind(heading.source(), word));
        }
        return new Document(InvoiceLines.KIND, records, heading, heading.text(InvoiceLines.NUMBER), this);
    }

    private static Finding unknownKind(SourceRecord first, String word) {
        return new Finding(
                Rule.VALUE_UNKNOWN,
                first.origin(),
                InvoiceLines.DOCUMENT_KIND.name(),
                word,
                "a document is one of " + String.join(", ", InvoiceKind.words()),
                "translate it under 'values' in the layout");
    }

    private long tax(Line line) {
        long given = line.number(InvoiceLines.TAX);
        if (given != SourceRecord.ABSENT) {
            return given;
        }
        TaxCode code = books.taxCode(line.taxCode());
        return code == null ? 0 : Money.taxOn(line.minor(), code.rate());
    }

    @Override
    public Document journal(Document document) {
        Line journal = JournalDrafter.heading(document);
        InvoiceKind kind = InvoiceKind.of(document.heading().text(InvoiceLines.DOCUMENT_KIND));
        if (kind != null && document.isValid()) {
            enter(journal, document, kind);
        }
        return JournalDrafter.journal(document, journal);
    }

    private void enter(Line journal, Document document, InvoiceKind kind) {
        int sign = kind.controlSign();
        Line heading = document.heading();
        SourceRecord first = heading.source();
        String partyCode = heading.party();
        Party party = books.party(partyCode);
        String title = kind.word() + " " + document.reference() + (party == null ? "" : ", " + party.name());
        AccountUse control = kind.isSale() ? AccountUse.RECEIVABLES : AccountUse.PAYABLES;
        String controlAccount = books.accountFor(control).map(Account::code).orElse(null);
        JournalDrafter.line(journal, first, controlAccount, sign * heading.number(InvoiceLines.TOTAL), title)
                .put(JournalLines.PARTY, partyCode);
        Map<String, Long> taxes = new LinkedHashMap<>();
        for (Line line : document.lines()) {
            long tax = line.number(InvoiceLines.TAX);
            if (tax != 0) {
                taxes.merge(line.taxCode(), tax, Math::addExact);
            }
            String narrative = line.text(InvoiceLines.NARRATIVE);
            Line entered = JournalDrafter.line(journal, line.source(), line.account(), -sign * line.minor(), narrative)
                    .put(JournalLines.TAX_CODE, line.taxCode());
            JournalDrafter.handOn(InvoiceLines.KIND.dimensions(), line, entered);
        }
        taxes.forEach((taxCode, tax) -> {
            TaxCode code = books.taxCode(taxCode);
            JournalDrafter.line(journal, first, code == null ? null : code.account(), -sign * tax, title)
                    .put(JournalLines.TAX_CODE, taxCode);
        });
    }

    @Override
    public OwnCheck ownCheck() {
        return new InvoiceCheck(books);
    }
}
