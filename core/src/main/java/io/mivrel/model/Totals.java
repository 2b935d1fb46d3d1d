package io.mivrel.model;

/**
 * Control totals: how many amounts, and the sums of the positive ones (debit, or money in) and of the negative ones
 * (credit, or money out), both kept as positive minor units. A counter for one thread; sums that do not fit a
 * {@code long} throw {@link ArithmeticException} rather than wrap.
 */
public final class Totals {
    private long count;
    private long debit;
    private long credit;

    /** Adds one signed amount in minor units. */
    public void add(long amount) {
        count++;
        if (amount >= 0) {
            debit = Math.addExact(debit, amount);
        } else {
            credit = Math.subtractExact(credit, amount);
        }
    }

    public void add(Totals other) {
        count += other.count;
        debit = Math.addExact(debit, other.debit);
        credit = Math.addExact(credit, other.credit);
    }

    public long count() {
        return count;
    }

    /** Sum of the positive amounts. */
    public long debit() {
        return debit;
    }

    /** Sum of the negative amounts, as a positive figure. */
    public long credit() {
        return credit;
    }

    /** True when both sides and the count agree. */
    public boolean agreesWith(Totals other) {
        return count == other.count && debit == other.debit && credit == other.credit;
    }

    @Override
    public String toString() {
        return count + " amounts, debit " + debit + ", credit " + credit;
    }
}
