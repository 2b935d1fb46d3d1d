package io.mivrel.drafting;

import io.mivrel.books.Account;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.TaxCode;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceKind;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.Money;
import io.mivrel.model.Origin;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/**
 * Invoice lines with the same number become one document. Its double entry: the control account takes the gross, the
 * lines' accounts the net, and the tax codes' accounts the tax. Tax that a line does not give is its code's rate of the
 * net, rounded half up.
 */
public final class InvoiceDrafter implements Drafter {
    private final Books books;
    private final String receivables;
    private final String payables;
    private final Headings headings = new Headings(InvoiceLines.TABLE);

    /** The books must have a control account for the kinds of documents that come; see {@link #missingAccounts}. */
    public InvoiceDrafter(Books books) {
        this.books = books;
        this.receivables = code(books, AccountUse.RECEIVABLES);
        this.payables = code(books, AccountUse.PAYABLES);
    }

    private static String code(Books books, AccountUse use) {
        return books.accountFor(use).map(Account::code).orElse(null);
    }

    /** The uses that the chart needs for invoices and has no account for. */
    public static List<AccountUse> missingAccounts(Books books) {
        return List.of(AccountUse.RECEIVABLES, AccountUse.PAYABLES).stream()
                .filter(use -> books.accountFor(use).isEmpty())
                .toList();
    }

    @Override
    public Document draft(RecordRange records, Consumer<Finding> findings) {
        headings.compare(records, findings);
        SourceRecord first = records.get(0);
        String number = first.text(InvoiceLines.NUMBER);
        InvoiceKind kind = InvoiceKind.of(first.text(InvoiceLines.KIND));
        boolean sound = kind != null;
        List<InvoiceLine> lines = new ArrayList<>(records.size());
        for (SourceRecord record : records) {
            sound &= record.isValid();
            long net = record.number(InvoiceLines.NET);
            if (net != SourceRecord.ABSENT) {
                lines.add(new InvoiceLine(net, tax(record, net), record));
            }
        }
        if (kind == null && first.has(InvoiceLines.KIND)) {
            findings.accept(unknownKind(first));
        }
        Journal entry = new Journal(
                number, first.date(InvoiceLines.DATE), sound ? entry(kind, first, lines) : List.of(), records);
        return new Invoice(number, kind, first.date(InvoiceLines.DATE), lines, records, entry);
    }

    private static Finding unknownKind(SourceRecord first) {
        Origin origin = first.origin();
        String word = first.text(InvoiceLines.KIND);
        return new Finding(
                Rule.VALUE_UNKNOWN,
                origin,
                InvoiceLines.KIND.name(),
                word,
                "a document is one of " + String.join(", ", InvoiceKind.words()),
                "translate it under 'values' in the layout");
    }

    private long tax(SourceRecord record, long net) {
        long given = record.number(InvoiceLines.TAX);
        if (given != SourceRecord.ABSENT) {
            return given;
        }
        TaxCode code = books.taxCode(record.text(InvoiceLines.TAX_CODE));
        return code == null ? 0 : Money.taxOn(net, code.rate());
    }

    private List<JournalLine> entry(InvoiceKind kind, SourceRecord first, List<InvoiceLine> lines) {
        int sign = kind.controlSign();
        String partyCode = first.text(InvoiceLines.PARTY);
        Party party = books.party(partyCode);
        String title = kind.word() + " " + first.text(InvoiceLines.NUMBER) + (party == null ? "" : ", " + party.name());
        List<JournalLine> entry = new ArrayList<>(lines.size() + 2);
        long gross = 0;
        Map<String, Long> taxes = new LinkedHashMap<>();
        for (InvoiceLine line : lines) {
            SourceRecord r = line.source();
            gross = Math.addExact(gross, line.gross());
            String taxCode = r.text(InvoiceLines.TAX_CODE);
            if (line.tax() != 0) {
                taxes.merge(taxCode, line.tax(), Math::addExact);
            }
            entry.add(new JournalLine(
                    r.text(InvoiceLines.ACCOUNT),
                    -sign * line.net(),
                    null,
                    taxCode,
                    null,
                    r.text(InvoiceLines.DEPARTMENT),
                    r));
        }
        String control = kind.isSale() ? receivables : payables;
        entry.add(0, new JournalLine(control, sign * gross, title, null, partyCode, null, first));
        for (Map.Entry<String, Long> tax : taxes.entrySet()) {
            TaxCode code = books.taxCode(tax.getKey());
            String account = code == null ? null : code.account();
            entry.add(new JournalLine(account, -sign * tax.getValue(), title, tax.getKey(), null, null, first));
        }
        return entry;
    }
}
