package io.mivrel.intake;

/**
 * Sound rows of a file that no balance and no stated total covers. Amounts in minor units.
 *
 * @param rows how many
 * @param in what comes in on them, positive
 * @param out what goes out on them, positive
 * @param firstRow the first of them; 0 when there is none
 */
public record Unproved(long rows, long in, long out, long firstRow) {
    /** Every row is covered. */
    public static final Unproved NONE = new Unproved(0, 0, 0, 0);

    /** The same with one row more. */
    Unproved and(long row, long amount) {
        return plus(new Unproved(1, Math.max(amount, 0), Math.max(-amount, 0), row));
    }

    Unproved plus(Unproved other) {
        return new Unproved(
                rows + other.rows,
                Math.addExact(in, other.in),
                Math.addExact(out, other.out),
                firstRow == 0 ? other.firstRow : firstRow);
    }
}
