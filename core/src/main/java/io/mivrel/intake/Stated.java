package io.mivrel.intake;

import org.jspecify.annotations.Nullable;

/**
 * Labels of the balances that a file states beside its rows, above or below them. The figure stands in the same cell behind
 * the label, or in the next cell that is filled.
 *
 * @param opening how the label of the balance before the rows begins; {@code null} for none
 * @param closing the same of the balance after them
 * @param owed true when the balances say what is owed, as those of a card company
 */
public record Stated(@Nullable String opening, @Nullable String closing, boolean owed) {
    /** Nothing is stated. */
    public static final Stated NOTHING = new Stated(null, null, false);
}
