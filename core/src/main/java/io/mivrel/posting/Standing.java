package io.mivrel.posting;

import java.util.Locale;

/** Where an entry stands in a ledger. */
public enum Standing {
    /** Waits, counts in the balances with drafts, and can be removed. */
    DRAFT,
    /** Posted for good; can only be reversed. */
    FINAL,
    /** Posted for good, and reversed by another entry; both count. */
    REVERSED,
    /** Taken out while it was a draft; does not count. */
    REMOVED;

    /** True when it counts as there: it was neither removed nor reversed. */
    public boolean isLive() {
        return this == DRAFT || this == FINAL;
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
