package io.mivrel.intake;

import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowOrder;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Tries whether balances follow from amounts when rows are read in some order, by the same arithmetic as a run. Rows of several
 * accounts have balances of their own. For one thread.
 */
public final class BalanceTrial {
    private final RowOrder order;
    private final long opening;
    private final long closing;
    private final Map<String, BalanceChain> chains = new LinkedHashMap<>();
    private long row;
    private long first = SourceRecord.ABSENT;
    private boolean moves;

    /** The balances before and after all rows are {@link SourceRecord#ABSENT} where they are not stated. */
    public BalanceTrial(RowOrder order, long opening, long closing) {
        this.order = order;
        this.opening = opening;
        this.closing = closing;
    }

    /** Takes the next row of an account; day, amount and balance are {@link SourceRecord#ABSENT} where not known. */
    public void step(String account, long day, long amount, long balance) {
        row++;
        chains.computeIfAbsent(account, a -> new BalanceChain(order, null)).step(row, day, amount, balance, true);
        if (balance != SourceRecord.ABSENT) {
            moves |= first != SourceRecord.ABSENT && first != balance;
            first = balance;
        }
    }

    /** All rows were taken. */
    public void finish() {
        boolean one = chains.size() == 1;
        chains.values()
                .forEach(chain ->
                        chain.finish(one ? opening : SourceRecord.ABSENT, one ? closing : SourceRecord.ABSENT));
    }

    /** Steps from one balance to the next that could be tried. */
    public long steps() {
        return chains.values().stream()
                .mapToLong(chain -> chain.steps() + (chain.endsAsStated() == null ? 0 : 1))
                .sum();
    }

    /** Steps that hold. */
    public long holds() {
        return steps()
                - chains.values().stream()
                        .mapToLong(chain -> chain.broken() + (Boolean.FALSE.equals(chain.endsAsStated()) ? 1 : 0))
                        .sum();
    }

    /** The balance before the first row, as it is written; {@link SourceRecord#ABSENT} where it is not known. */
    public long opening() {
        return chains.size() == 1 ? chains.values().iterator().next().opening() : SourceRecord.ABSENT;
    }

    /** The balance after the last row, likewise. */
    public long closing() {
        return chains.size() == 1 ? chains.values().iterator().next().closing() : SourceRecord.ABSENT;
    }

    /** True when the balances differ: one that never moves tells nothing. */
    public boolean moves() {
        return moves || opening != SourceRecord.ABSENT && first != SourceRecord.ABSENT && opening != first;
    }
}
