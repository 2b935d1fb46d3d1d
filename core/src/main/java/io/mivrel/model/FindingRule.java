package io.mivrel.model;

/** What a finding refers to: a {@link Rule} of Mivrel, or an {@link OwnRule} of a program with checks of its own. */
public interface FindingRule {
    /** The permanent name, such as {@code account-unknown}. */
    String id();

    Severity severity();

    /** What it means, in one sentence. */
    String meaning();

    /** What to do about it in general; a finding's own suggestion is more precise. */
    String remedy();
}
