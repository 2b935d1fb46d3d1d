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
    SUSPENSE;

    /** The word of the chart file. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
