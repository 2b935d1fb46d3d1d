package io.mivrel.money;

import java.util.Currency;
import java.util.Objects;

/**
 * Control totals of one currency: how many amounts, and the sums of the positive ones (debit, or money in) and of the
 * negative ones (credit, or money out), both kept as positive minor units. A counter for one thread. An amount of another
 * currency throws {@link IllegalArgumentException}; a sum that does not fit a {@code long} throws {@link
 * ArithmeticException} rather than wrap.
 */
public final class Totals {
    private final Currency currency;
    private long count;
    private long debit;
    private long credit;

    public Totals(Currency currency) {
        this.currency = Objects.requireNonNull(currency);
    }

    public Currency currency() {
        return currency;
    }

    /** Adds one signed amount in minor units of a currency, which must be that of these totals. */
    public void add(long minor, Currency of) {
        if (of != currency) {
            Money.requireSame(currency, of);
        }
        count++;
        if (minor >= 0) {
            debit = Math.addExact(debit, minor);
        } else {
            credit = Math.subtractExact(credit, minor);
        }
    }

    public void add(Money amount) {
        add(amount.minor(), amount.currency());
    }

    /** Adds other totals of the same currency. */
    public void add(Totals other) {
        Money.requireSame(currency, other.currency);
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

    /** True when currency, both sides and the count agree. */
    public boolean agreesWith(Totals other) {
        return currency.equals(other.currency)
                && count == other.count
                && debit == other.debit
                && credit == other.credit;
    }

    @Override
    public String toString() {
        return count + " amounts, debit " + Money.show(debit, currency) + ", credit " + Money.show(credit, currency);
    }
}
