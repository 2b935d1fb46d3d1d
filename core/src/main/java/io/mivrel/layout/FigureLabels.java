package io.mivrel.layout;

import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Labels of the balances that a file states beside its rows, above or below them. The figure stands in the same cell behind
 * the label, or in the next cell that is filled.
 *
 * @param opening how the label of the balance before the rows begins; {@code null} for none
 * @param closing the same of the balance after them
 * @param moneyIn how the label of the sum of all that comes in begins; {@code null} for none
 * @param moneyOut the same of what goes out, which may be written with a minus
 * @param count the same of the number of movements
 * @param owed true when the balances say what is owed, as those of a card company
 * @param carried how rows begin that carry the balance over, as from page to page
 * @param totals how rows begin that add up the amounts above them: since the row before of this kind, or since the first
 */
public record FigureLabels(
        @Nullable String opening,
        @Nullable String closing,
        @Nullable String moneyIn,
        @Nullable String moneyOut,
        @Nullable String count,
        boolean owed,
        List<String> carried,
        List<String> totals) {
    /** Nothing is stated. */
    public static final FigureLabels NOTHING = new FigureLabels(null, null, false);

    public FigureLabels {
        carried = List.copyOf(carried);
        totals = List.copyOf(totals);
    }

    /** Balances beside the rows only. */
    public FigureLabels(@Nullable String opening, @Nullable String closing, boolean owed) {
        this(opening, closing, null, null, null, owed, List.of(), List.of());
    }

    /** The same with sums of both sides and a number of movements. */
    public FigureLabels turningOver(@Nullable String in, @Nullable String out, @Nullable String number) {
        return new FigureLabels(opening, closing, in, out, number, owed, carried, totals);
    }

    /** How rows begin that state figures, above, below or between the others. */
    public List<String> labels() {
        return Stream.concat(Stream.of(opening, closing, moneyIn, moneyOut, count), totals.stream())
                .filter(Objects::nonNull)
                .toList();
    }

    /** The same with rows among the data that carry the balance over or add up the amounts. */
    public FigureLabels among(List<String> carriedOver, List<String> addedUp) {
        return new FigureLabels(opening, closing, moneyIn, moneyOut, count, owed, carriedOver, addedUp);
    }
}
