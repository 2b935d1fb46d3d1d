package io.mivrel.model;

import io.mivrel.text.Printable;
import java.util.Objects;

/**
 * One thing noticed: which rule, how severe it is here, where, in which field (a column title or field name; empty for the whole row), the
 * value found (clipped to {@value #CLIP} characters; empty for none), why it is wrong, and what to do about it (empty
 * when there is nothing to suggest). Never null inside. Immutable.
 */
public record Finding(
        FindingRule rule,
        Severity severity,
        Origin origin,
        String field,
        String value,
        String reason,
        String suggestion) {

    /** The longest value that a finding repeats; the rest is replaced by three dots. */
    public static final int CLIP = 60;

    public Finding {
        Objects.requireNonNull(rule);
        Objects.requireNonNull(severity);
        Objects.requireNonNull(origin);
        Objects.requireNonNull(field);
        Objects.requireNonNull(reason);
        Objects.requireNonNull(suggestion);
        value = clip(value);
    }

    /** As severe as its rule. */
    public Finding(FindingRule rule, Origin origin, String field, String value, String reason, String suggestion) {
        this(rule, rule.severity(), origin, field, value, reason, suggestion);
    }

    /** The same where it holds nothing, because what it doubts is proved otherwise. */
    public Finding asCaution() {
        return new Finding(rule, Severity.CAUTION, origin, field, value, reason, suggestion);
    }

    /** The same, of this file when it does not say which. */
    public Finding ofFile(String file) {
        return origin.file().isEmpty()
                ? new Finding(
                        rule,
                        severity,
                        new Origin(file, origin.sheet(), origin.row()),
                        field,
                        value,
                        reason,
                        suggestion)
                : this;
    }

    /** True when it holds the document it belongs to. */
    public boolean blocks() {
        return severity == Severity.BLOCKER;
    }

    @Override
    public String toString() {
        return severity.word() + " at " + origin + (field.isEmpty() ? "" : ", " + field)
                + (value.isEmpty() ? "" : " '" + value + "'") + ": " + reason
                + (suggestion.isEmpty() ? "" : " (" + suggestion + ")") + " [" + rule.id() + "]";
    }

    /** Cuts a text to {@link #CLIP} characters and makes it {@linkplain Printable#of fit for a screen}. */
    public static String clip(String text) {
        return Printable.of(text.length() > CLIP ? text.substring(0, CLIP) + "..." : text);
    }
}
