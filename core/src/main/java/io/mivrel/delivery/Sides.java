package io.mivrel.delivery;

import java.util.Objects;

/**
 * The receiver's words for the two sides that an amount can be on; nil is on the first.
 *
 * @param plus for a debit, or money in
 * @param minus for a credit, or money out
 */
public record Sides(String plus, String minus) {
    public Sides {
        Objects.requireNonNull(plus);
        Objects.requireNonNull(minus);
        if (plus.equals(minus)) {
            throw new IllegalArgumentException("the two sides need words that differ, not '" + plus + "' twice");
        }
    }

    String of(long amount) {
        return amount < 0 ? minus : plus;
    }
}
