package io.mivrel.checking;

import io.mivrel.books.Books;
import io.mivrel.books.TaxCode;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Money;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.function.Consumer;

/** Quantity times price, tax by rate, lines against the stated total, and the due date. */
final class InvoiceCheck implements Check {
    private final Books books;
    private final int decimals;

    InvoiceCheck(Books books) {
        this.books = books;
        this.decimals = books.decimals();
    }

    @Override
    public boolean passes(Document document) {
        return !(document instanceof Invoice);
    }

    @Override
    public void passes(DocumentBlock batch, boolean[] marked) {
        // There is no invoice among them.
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (!(document instanceof Invoice invoice)) {
            return;
        }
        for (InvoiceLine line : invoice.lines()) {
            net(line, findings);
            tax(line, findings);
        }
        total(invoice, findings);
        LocalDate due = invoice.records().get(0).date(InvoiceLines.DUE);
        if (due != null && due.isBefore(invoice.date())) {
            report(
                    Rule.DUE_BEFORE_DATE,
                    invoice.origin(),
                    "due date",
                    due.toString(),
                    "the document is dated " + invoice.date(),
                    "are the two dates swapped?",
                    findings);
        }
    }

    private void net(InvoiceLine line, Consumer<Finding> findings) {
        SourceRecord source = line.source();
        BigDecimal quantity = source.decimal(InvoiceLines.QUANTITY);
        BigDecimal price = source.decimal(InvoiceLines.PRICE);
        if (quantity == null || price == null) {
            return;
        }
        long reckoned;
        try {
            reckoned = Money.extend(quantity, price, decimals);
        } catch (ArithmeticException tooLarge) {
            reckoned = SourceRecord.ABSENT;
        }
        if (reckoned != line.net()) {
            report(
                    Rule.NET_DIFFERS,
                    source.origin(),
                    "net",
                    Money.show(line.net(), decimals),
                    quantity.toPlainString() + " x " + price.toPlainString() + " = "
                            + (reckoned == SourceRecord.ABSENT ? "too large" : Money.show(reckoned, decimals)),
                    Math.abs(reckoned) != Math.abs(line.net())
                                    && Imbalance.areSwapped(Math.abs(reckoned), Math.abs(line.net()))
                            ? "two digits are probably swapped"
                            : "compare with the document",
                    findings);
        }
    }

    private void tax(InvoiceLine line, Consumer<Finding> findings) {
        SourceRecord source = line.source();
        TaxCode code = books.taxCode(source.text(InvoiceLines.TAX_CODE));
        if (code == null) {
            if (line.tax() != 0 && !source.has(InvoiceLines.TAX_CODE)) {
                report(
                        Rule.TAX_DIFFERS,
                        source.origin(),
                        "tax",
                        Money.show(line.tax(), decimals),
                        "the line has tax but no tax code",
                        "give the tax code",
                        findings);
            }
            return;
        }
        long reckoned = Money.taxOn(line.net(), code.rate());
        if (Math.abs(reckoned - line.tax()) > 1) {
            report(
                    Rule.TAX_DIFFERS,
                    source.origin(),
                    "tax",
                    Money.show(line.tax(), decimals),
                    code.rate().stripTrailingZeros().toPlainString() + "% of " + Money.show(line.net(), decimals)
                            + " is " + Money.show(reckoned, decimals),
                    "is " + code.code() + " the right tax code?",
                    findings);
        }
    }

    private void total(Invoice invoice, Consumer<Finding> findings) {
        long stated = invoice.records().get(0).number(InvoiceLines.TOTAL);
        long gross = invoice.gross();
        if (stated == SourceRecord.ABSENT || stated == gross) {
            return;
        }
        String suggestion = "compare with the document";
        for (InvoiceLine line : invoice.lines()) {
            if (gross - stated == line.gross()) {
                suggestion = "row " + line.source().row() + " is probably one line too many";
            }
        }
        report(
                Rule.TOTAL_DIFFERS,
                invoice.origin(),
                "total",
                Money.show(stated, decimals),
                "the lines add up to " + Money.show(gross, decimals) + ", "
                        + Money.show(Math.abs(gross - stated), decimals) + (gross > stated ? " more" : " less"),
                suggestion,
                findings);
    }

    private static void report(
            Rule rule,
            Origin origin,
            String field,
            String value,
            String reason,
            String suggestion,
            Consumer<Finding> findings) {
        findings.accept(new Finding(rule, origin, field, value, reason, suggestion));
    }
}
