package io.mivrel.intake;

import io.mivrel.model.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.JournalLines;
import java.util.List;
import java.util.Set;

/**
 * How a kind of record comes to its one signed amount: given as such, or on one of two sides that exclude each other.
 * Invoice lines have no sides; their net may be quantity times price.
 */
record AmountRule(Field amount, Field plusSide, Field minusSide) {

    static AmountRule of(FieldTable table) {
        if (table == BankLines.TABLE) {
            return new AmountRule(BankLines.AMOUNT, BankLines.MONEY_IN, BankLines.MONEY_OUT);
        }
        if (table == JournalLines.TABLE) {
            return new AmountRule(JournalLines.AMOUNT, JournalLines.DEBIT, JournalLines.CREDIT);
        }
        return new AmountRule(InvoiceLines.NET, null, null);
    }

    boolean hasSides() {
        return plusSide != null;
    }

    List<String> gaps(Set<Field> given) {
        if (hasSides()) {
            boolean sides = given.contains(plusSide) || given.contains(minusSide);
            if (given.contains(amount) && sides) {
                return List.of(
                        "give either 'amount' or '" + plusSide.name() + "' and '" + minusSide.name() + "', not both");
            }
            if (!given.contains(amount) && !(given.contains(plusSide) && given.contains(minusSide))) {
                return List.of(
                        "an amount is required: 'amount', or '" + plusSide.name() + "' and '" + minusSide.name() + "'");
            }
            return List.of();
        }
        boolean reckoned = given.contains(InvoiceLines.QUANTITY) && given.contains(InvoiceLines.PRICE);
        return given.contains(amount) || reckoned
                ? List.of()
                : List.of("an amount is required: 'net', or 'quantity' and 'price'");
    }
}
