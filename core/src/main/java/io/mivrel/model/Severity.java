package io.mivrel.model;

import java.util.Locale;

/** How much a finding matters, worst first. */
public enum Severity {
    /** The document it belongs to is held. */
    BLOCKER,
    /** The document is delivered, and a person should look. */
    CAUTION,
    /** Worth knowing; nothing to do. */
    NOTE;

    /** The word as people read it, such as {@code blocker}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
