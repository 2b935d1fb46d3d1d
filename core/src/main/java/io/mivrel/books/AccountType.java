package io.mivrel.books;

import java.util.Locale;

/** The nature of an account. */
public enum AccountType {
    ASSET,
    LIABILITY,
    EQUITY,
    INCOME,
    EXPENSE;

    /** The word of the chart file. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
