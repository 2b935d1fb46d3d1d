package io.mivrel.posting;

import io.mivrel.money.Money;
import java.util.Currency;
import java.util.Map;
import java.util.TreeMap;

/** What entries do to the balances: debits and credits by account and currency. For one thread. */
public final class BalanceChanges {
    /** An account in one currency. */
    public record Place(String account, String currency) implements Comparable<Place> {
        @Override
        public int compareTo(Place other) {
            int order = account.compareTo(other.account);
            return order != 0 ? order : currency.compareTo(other.currency);
        }

        public Money money(long minor) {
            return new Money(minor, Currency.getInstance(currency));
        }
    }

    /**
     * Both sides of an account.
     *
     * @param debit in minor units, not negative unless entries were taken away
     * @param credit the same, as a positive figure
     * @param lines how many lines
     */
    public record Sides(long debit, long credit, long lines) {
        public static final Sides NONE = new Sides(0, 0, 0);

        public long net() {
            return Math.subtractExact(debit, credit);
        }

        public Sides plus(Sides other) {
            return new Sides(
                    Math.addExact(debit, other.debit),
                    Math.addExact(credit, other.credit),
                    Math.addExact(lines, other.lines));
        }
    }

    private final Map<Place, Sides> sides = new TreeMap<>();

    /** Adds an entry. */
    public BalanceChanges add(Entry entry) {
        entry.lines().forEach(line -> add(entry, line, 1));
        return this;
    }

    /** Takes an entry away. */
    public BalanceChanges subtract(Entry entry) {
        entry.lines().forEach(line -> add(entry, line, -1));
        return this;
    }

    private void add(Entry entry, EntryLine line, int sign) {
        long debit = Math.max(0, line.minor());
        long credit = Math.max(0, Math.negateExact(line.minor()));
        add(
                new Place(line.account(), entry.currency().getCurrencyCode()),
                new Sides(sign * debit, sign * credit, sign));
    }

    public void add(Place place, Sides more) {
        sides.merge(place, more, Sides::plus);
    }

    public void add(BalanceChanges other) {
        other.sides.forEach(this::add);
    }

    /** By account and currency, in their order. */
    public Map<Place, Sides> sides() {
        return sides;
    }

    /** Debit less credit of a place; 0 where there is nothing. */
    public long net(Place place) {
        return sides.getOrDefault(place, Sides.NONE).net();
    }

    public boolean isNil() {
        return sides.values().stream().allMatch(s -> s.net() == 0);
    }
}
