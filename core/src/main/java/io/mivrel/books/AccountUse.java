package io.mivrel.books;

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
        return name().toLowerCase(java.util.Locale.ROOT);
    }
}
