package io.mivrel.money;

import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Control totals of amounts in several currencies, each kept apart. A counter for one thread. */
public final class CurrencyTotals {
    private final Map<Currency, Totals> totals = new LinkedHashMap<>();
    /** That of the last amount, since the next is mostly in the same currency. */
    private Totals last;

    /** Counts from nothing; {@code main} comes first, whether or not there are amounts in it. */
    public CurrencyTotals(Currency main) {
        last = new Totals(main);
        totals.put(main, last);
    }

    /** Adds one signed amount in minor units of a currency. */
    public void add(long minor, Currency of) {
        if (of != last.currency()) {
            last = totals.computeIfAbsent(of, Totals::new);
        }
        last.add(minor, of);
    }

    /** Adds totals of one currency. */
    public void add(Totals other) {
        totals.computeIfAbsent(other.currency(), Totals::new).add(other);
    }

    public void add(CurrencyTotals other) {
        other.totals.values().forEach(this::add);
    }

    /** Those of the main currency. */
    public Totals main() {
        return totals.values().iterator().next();
    }

    /** Those of each currency, the main one first. */
    public List<Totals> all() {
        return List.copyOf(totals.values());
    }

    /** True when those of every currency agree; a currency without amounts counts for nothing. */
    public boolean agreesWith(CurrencyTotals other) {
        return covers(other) && other.covers(this);
    }

    private boolean covers(CurrencyTotals other) {
        return other.totals.values().stream()
                .allMatch(theirs -> totals.getOrDefault(theirs.currency(), new Totals(theirs.currency()))
                        .agreesWith(theirs));
    }
}
