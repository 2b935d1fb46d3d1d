package io.mivrel.books;

import java.util.Locale;

/** Whether a journal may post to an account. */
public enum AccountStatus {
    OPEN,
    CLOSED,
    /** Written by the receiver only, from its own documents. */
    RESERVED;

    /** The word of the chart file. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
