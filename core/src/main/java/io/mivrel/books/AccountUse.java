package io.mivrel.books;

import java.util.Locale;

/** What an account serves for, where that matters to a check or to a double entry. */
public enum AccountUse {
    GENERAL,
    BANK,
    CARD,
    /** Control account of the customers. */
    RECEIVABLES,
    /** Control account of the suppliers. */
    PAYABLES,
    TAX,
    CLEARING,
    /** Between own bank and card accounts: a transfer goes onto it with one statement and off it with the other. */
    TRANSFER,
    SUSPENSE;

    /** The word of the chart file. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
