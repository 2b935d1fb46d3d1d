package io.mivrel.kinds;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.TaxCode;
import io.mivrel.checking.Imbalance;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Currency;
import java.util.function.Consumer;

/**
 * What only an invoice can be wrong about: accounts and parties of the wrong side, quantity times price, tax by rate, lines
 * against the stated total, and the due date.
 */
final class InvoiceCheck implements Drafter.OwnCheck {
    private final Books books;

    InvoiceCheck(Books books) {
        this.books = books;
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        InvoiceKind kind = InvoiceKind.of(document.heading().text(InvoiceLines.DOCUMENT_KIND));
        if (kind == null) {
            return;
        }
        document.lines().forEach(line -> account(line, kind, findings));
        party(document.heading(), kind, findings);
        sign(document, kind, findings);
        for (Line line : document.lines()) {
            if (document.heading().number(InvoiceLines.TOTAL) >= 0) {
                net(line, findings);
            }
            tax(line, findings);
        }
        total(document, findings);
        due(document, findings);
    }

    private void account(Line line, InvoiceKind kind, Consumer<Finding> findings) {
        Account account = books.account(line.account());
        if (account == null || account.status() != AccountStatus.OPEN) {
            return;
        }
        boolean control = account.holdsMoney() || account.isControl() || account.use() == AccountUse.TAX;
        boolean wrongSide = kind.isSale() && account.type() == AccountType.EXPENSE
                || !kind.isSale() && account.type() == AccountType.INCOME;
        if (control || wrongSide) {
            String nature = control ? account.use().word() : account.type().word();
            report(
                    Rule.ACCOUNT_UNSUITABLE,
                    line.source().origin(),
                    "account",
                    account.code(),
                    account.name() + " is of kind '" + nature + "', not for a line of this " + kind.word(),
                    "use an account of type " + (kind.isSale() ? "income" : "expense or asset"),
                    findings);
        }
    }

    private void party(Line heading, InvoiceKind kind, Consumer<Finding> findings) {
        Party party = books.party(heading.party());
        if (party != null && party.isCustomer() != kind.isSale()) {
            report(
                    Rule.PARTY_UNSUITABLE,
                    heading.source().origin(),
                    "party",
                    party.code(),
                    party.name() + " is a " + (party.isCustomer() ? "customer" : "supplier") + ", but this is a "
                            + kind.word(),
                    "correct the party or the kind",
                    findings);
        }
    }

    private void due(Document document, Consumer<Finding> findings) {
        long due = document.heading().number(InvoiceLines.DUE);
        if (due != SourceRecord.ABSENT && due < document.day()) {
            report(
                    Rule.DUE_BEFORE_DATE,
                    document.origin(),
                    "due date",
                    LocalDate.ofEpochDay(due).toString(),
                    "the document is dated " + document.date(),
                    "are the two dates swapped?",
                    findings);
        }
    }

    private void net(Line line, Consumer<Finding> findings) {
        BigDecimal quantity = line.decimal(InvoiceLines.QUANTITY);
        BigDecimal price = line.decimal(InvoiceLines.PRICE);
        if (quantity == null || price == null) {
            return;
        }
        long net = line.minor();
        Currency currency = line.currency();
        long computed;
        try {
            computed = Money.extend(quantity, price, currency);
        } catch (ArithmeticException tooLarge) {
            computed = SourceRecord.ABSENT;
        }
        if (computed != net) {
            boolean swapped =
                    Math.abs(computed) != Math.abs(net) && Imbalance.areSwapped(Math.abs(computed), Math.abs(net));
            report(
                    Rule.NET_DIFFERS,
                    line.source().origin(),
                    "net",
                    Money.show(net, currency),
                    quantity.toPlainString() + " x " + price.toPlainString() + " = "
                            + (computed == SourceRecord.ABSENT ? "too large" : Money.show(computed, currency)),
                    swapped ? "two digits are probably swapped" : "compare with the document",
                    findings);
        }
    }

    private void tax(Line line, Consumer<Finding> findings) {
        TaxCode code = books.taxCode(line.taxCode());
        long tax = line.number(InvoiceLines.TAX);
        Currency currency = line.currency();
        if (code == null) {
            if (tax != 0 && line.taxCode() == null) {
                // Nobody could say to which account it goes, so this is not for a person to override.
                report(
                        Rule.VALUE_MISSING,
                        line.source().origin(),
                        "tax code",
                        "",
                        "the line has tax of " + Money.show(tax, currency) + " but no tax code",
                        "give the tax code",
                        findings);
            }
            return;
        }
        long computed = Money.taxOn(line.minor(), code.rate());
        if (Math.abs(computed - tax) > 1) {
            report(
                    Rule.TAX_DIFFERS,
                    line.source().origin(),
                    "tax",
                    Money.show(tax, currency),
                    code.rate().stripTrailingZeros().toPlainString() + "% of " + Money.show(line.minor(), currency)
                            + " is " + Money.show(computed, currency),
                    "is " + code.code() + " the right tax code?",
                    findings);
        }
    }

    private void total(Document document, Consumer<Finding> findings) {
        long stated = document.heading().source().number(InvoiceLines.TOTAL);
        long gross = document.heading().number(InvoiceLines.TOTAL);
        if (stated == SourceRecord.ABSENT || stated == gross) {
            return;
        }
        String suggestion = "compare with the document";
        for (Line line : document.lines()) {
            if (gross - stated == line.number(InvoiceLines.GROSS)) {
                suggestion = "row " + line.source().row() + " is probably one line too many";
            }
        }
        Currency currency = document.heading().currency();
        report(
                Rule.TOTAL_DIFFERS,
                document.origin(),
                "total",
                Money.show(stated, currency),
                "the lines add up to " + Money.show(gross, currency) + ", "
                        + Money.show(Math.abs(gross - stated), currency) + (gross > stated ? " more" : " less"),
                suggestion,
                findings);
    }

    // Figures are positive, also of a credit: one that comes to less than nil would be posted backwards.
    private void sign(Document document, InvoiceKind kind, Consumer<Finding> findings) {
        Line heading = document.heading();
        long gross = heading.number(InvoiceLines.TOTAL);
        if (gross < 0) {
            report(
                    Rule.DOCUMENT_SIGN,
                    document.origin(),
                    "kind",
                    kind.word(),
                    "the document comes to " + Money.show(gross, heading.currency())
                            + (kind.isCredit()
                                    ? ", read by the way the layout says credits are written"
                                    : ", and one of this kind asks for money"),
                    kind.isCredit()
                            ? "are credits written with a minus in this file? Say 'credits: negative' in the layout, or"
                                    + " 'credits: positive'; if other credits of the file differ, this one is wrong"
                            : "is it a " + (kind.isSale() ? "credit note" : "supplier credit") + "?",
                    findings);
            return;
        }
        boolean stated = heading.source().number(InvoiceLines.TOTAL) != SourceRecord.ABSENT;
        for (Line line : document.lines()) {
            if (!stated && line.minor() < 0) {
                report(
                        Rule.LINE_NEGATIVE,
                        line.source().origin(),
                        "net",
                        Money.show(line.minor(), line.currency()),
                        "the line takes from its document, which states no total to prove that",
                        "is the sign right?",
                        findings);
            }
        }
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
