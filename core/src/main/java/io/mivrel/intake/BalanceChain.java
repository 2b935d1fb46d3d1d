package io.mivrel.intake;

import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.RowOrder;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Follows the balances of one file: those beside its rows, in each row or only in some, and those stated before and after
 * all rows. The rows between two balances make a {@link Stretch}, which is proved when its amounts move the one balance to
 * the other. For one thread.
 */
final class BalanceChain {
    /** With more, the file is held as a whole. */
    private static final int MOST_CULPRITS = 20_000;

    private final RowOrder order;
    /** {@code null} in a trial, which counts and says nothing. */
    private final @Nullable Currency currency;
    /** The rows since the last balance, in the order of the file. */
    private Stretch open = new Stretch(SourceRecord.ABSENT, SourceRecord.ABSENT);
    /** The rows before the first balance and behind the last, in the order of time; {@code null} while not known. */
    private @Nullable Stretch early;

    private @Nullable Stretch late;
    /** A stretch that does not hold, until the next one shows whether its amounts or the balance between are to blame. */
    private @Nullable Stretch suspect;
    /** Of days that stand newest first: the first rows of the day above, whose balance before is that of the day below. */
    private Stretch head = new Stretch(SourceRecord.ABSENT, SourceRecord.ABSENT);

    private @Nullable Stretch headOfDay;
    private long day = SourceRecord.ABSENT;

    private long balances;
    private long steps;
    private long broken;
    private long pairs;
    private long pairsTheOtherWay;
    private long pairsHeld;
    private long lastBalance = SourceRecord.ABSENT;
    private long lastAmount = SourceRecord.ABSENT;
    private long movement;
    private boolean closingStated;
    private Unproved unproved = Unproved.NONE;
    private final List<BalanceFault> culprits = new ArrayList<>();

    /** {@code currency} is {@code null} for a trial, which is only to count. */
    BalanceChain(RowOrder order, @Nullable Currency currency) {
        this.order = order;
        this.currency = currency;
    }

    /**
     * Takes the next row.
     *
     * @param row its number
     * @param on its day; {@link SourceRecord#ABSENT} when not known
     * @param amount what it moves, and {@code balance} the one beside it, each absent when the row lacks it or it could not be
     *     read
     * @param counts false for a row that is held or left out all the same
     */
    void step(long row, long on, long amount, long balance, boolean counts) {
        bothWays(amount, balance);
        movement = Math.addExact(movement, amount == SourceRecord.ABSENT ? 0 : amount);
        boolean hasBalance = balance != SourceRecord.ABSENT;
        balances += hasBalance ? 1 : 0;
        if (order == RowOrder.NEWEST_DAY_FIRST && on != day && on != SourceRecord.ABSENT) {
            endDay();
            day = on;
        }
        if (order == RowOrder.NEWEST_FIRST) {
            if (hasBalance) {
                open.before = balance;
                open.beforeRow = row;
                close(open);
                open = new Stretch(SourceRecord.ABSENT, balance);
                open.afterRow = row;
            }
            open.add(row, amount, counts);
            return;
        }
        if (order == RowOrder.OLDEST_FIRST && hasBalance && suspect == null && open.holdsOver(row, amount, balance)) {
            steps++;
            return;
        }
        open.add(row, amount, counts);
        if (hasBalance) {
            open.after = balance;
            open.afterRow = row;
            if (order == RowOrder.NEWEST_DAY_FIRST && headOfDay == null) {
                headOfDay = open;
            } else {
                close(open);
            }
            open = new Stretch(balance, SourceRecord.ABSENT);
            open.beforeRow = row;
        }
    }

    // The rows behind the last balance of a day go before the first one of the day above.
    private void endDay() {
        if (headOfDay == null) {
            head.join(open);
        } else {
            head.join(open);
            head.before = open.before;
            head.beforeRow = open.beforeRow;
            close(head);
            head = headOfDay;
        }
        headOfDay = null;
        open = new Stretch(SourceRecord.ABSENT, SourceRecord.ABSENT);
    }

    // A file that runs the other way breaks nearly everywhere, and the same steps hold the other way round.
    private void bothWays(long amount, long balance) {
        if (lastBalance != SourceRecord.ABSENT
                && balance != SourceRecord.ABSENT
                && order != RowOrder.NEWEST_DAY_FIRST) {
            boolean down = amount != SourceRecord.ABSENT && lastBalance + amount == balance;
            boolean up = lastAmount != SourceRecord.ABSENT && balance == lastBalance - lastAmount;
            pairs++;
            pairsHeld += (order == RowOrder.OLDEST_FIRST ? down : up) ? 1 : 0;
            pairsTheOtherWay += (order == RowOrder.OLDEST_FIRST ? up : down) ? 1 : 0;
        }
        lastBalance = balance;
        lastAmount = amount;
    }

    private void close(Stretch stretch) {
        if (stretch.before == SourceRecord.ABSENT) {
            early = stretch;
        } else if (stretch.after == SourceRecord.ABSENT) {
            late = stretch;
        } else {
            judge(stretch);
        }
    }

    private void judge(Stretch stretch) {
        if (!stretch.canBeJudged()) {
            endSuspicion();
            unproved = unproved.plus(stretch.unproved());
            return;
        }
        steps++;
        Stretch before = suspect;
        if (stretch.holds()) {
            endSuspicion();
        } else if (before != null && hold(before, stretch)) {
            broken++;
            blameBalance(stretch.beforeRow == before.afterRow ? before : stretch);
            suspect = null;
        } else {
            broken++;
            endSuspicion();
            suspect = stretch;
        }
    }

    // Two that follow one another hold together, so the balance between them is wrong and their amounts are not.
    private static boolean hold(Stretch one, Stretch other) {
        long moved = one.moved() + other.moved();
        return one.afterRow != 0 && one.afterRow == other.beforeRow
                ? other.after - one.before == moved
                : one.beforeRow != 0 && one.beforeRow == other.afterRow && one.after - other.before == moved;
    }

    private void blameBalance(Stretch stretch) {
        if (currency == null) {
            return;
        }
        String value = Money.show(stretch.after, currency);
        culprits.add(new BalanceFault(
                stretch.afterRow,
                Rule.BALANCE_BROKEN,
                "balance",
                value,
                "the balance " + value + " agrees neither with the rows before it nor with those behind it",
                "compare it with the statement"));
    }

    private void endSuspicion() {
        Stretch stretch = suspect;
        suspect = null;
        if (stretch == null) {
            return;
        }
        unproved = unproved.plus(stretch.unproved());
        if (currency == null) {
            return;
        }
        boolean one = stretch.rows() == 1;
        String amounts = (one ? "" : "the amounts of " + stretch.rows() + " rows, ") + show(stretch.moved());
        String reason = "balance should be " + show(stretch.before) + " + " + amounts + " = "
                + show(stretch.before + stretch.moved()) + ", but is " + show(stretch.after);
        for (long[] range : stretch.ranges()) {
            if (culprits.size() < MOST_CULPRITS) {
                culprits.add(new BalanceFault(
                        range[0],
                        range[1],
                        Rule.BALANCE_BROKEN,
                        "balance",
                        show(stretch.after),
                        reason,
                        cause(stretch)));
            }
        }
    }

    private String cause(Stretch stretch) {
        if (stretch.after - stretch.before == -stretch.moved()) {
            return "the sign is probably wrong: the balance moved the other way";
        }
        if (stretch.after == stretch.before && stretch.afterRow == 0) {
            return "the closing balance leaves " + (stretch.rows() == 1 ? "this row" : "these rows")
                    + " out; not booked yet? Leave them out";
        }
        long off = stretch.after - stretch.before - stretch.moved();
        String where = order == RowOrder.OLDEST_FIRST && stretch.rows() == 1 ? "above this row" : "here";
        return "a line of " + show(off) + " is missing " + where + ", or "
                + (off % 9 == 0 ? "two digits are swapped" : "an amount is wrong");
    }

    /**
     * Takes a balance that is carried over between two rows. Answers why it is not the one the rows lead to, or {@code null}
     * when it is, or cannot be judged.
     */
    @Nullable
    String carried(long balance) {
        if (order != RowOrder.OLDEST_FIRST) {
            return null;
        }
        long leadsTo = open.leadsTo();
        String broke = leadsTo == SourceRecord.ABSENT || leadsTo == balance
                ? null
                : "the rows lead to " + show(leadsTo) + ", but " + show(balance) + " is carried over";
        if (!open.isEmpty() || open.before == SourceRecord.ABSENT) {
            open.after = balance;
            if (broke == null) {
                close(open);
            } else {
                unproved = unproved.plus(open.unproved());
            }
        }
        balances++;
        open = new Stretch(balance, SourceRecord.ABSENT);
        lastBalance = SourceRecord.ABSENT;
        return broke;
    }

    /** What the balances say an unreadable amount must be, or {@link SourceRecord#ABSENT}; to be asked before {@link #step}. */
    long impliedAmount(long balance) {
        long before = before();
        return before == SourceRecord.ABSENT || balance == SourceRecord.ABSENT ? SourceRecord.ABSENT : balance - before;
    }

    /** The balance before the next row, when the rows run so; {@link SourceRecord#ABSENT} when it is not known. */
    long before() {
        return order == RowOrder.OLDEST_FIRST ? open.leadsTo() : SourceRecord.ABSENT;
    }

    /**
     * The file has ended.
     *
     * @param opening the balance that the file states before all rows, and {@code closing} behind them;
     *     {@link SourceRecord#ABSENT} where it states none
     */
    void finish(long opening, long closing) {
        if (order == RowOrder.NEWEST_DAY_FIRST) {
            endDay();
            open = head;
        }
        closingStated = closing != SourceRecord.ABSENT;
        if (balances == 0) {
            // All rows lie between the two that are stated.
            open.before = opening;
            open.after = closing;
            early = open;
            late = open;
            if (!open.canBeJudged() || !open.holds()) {
                unproved = open.unproved();
            }
            return;
        }
        if (order == RowOrder.OLDEST_FIRST) {
            late = open;
        } else {
            early = open;
        }
        Stretch first = early;
        Stretch last = late;
        if (first != null) {
            first.before = opening;
            judgeEdge(first);
        }
        if (last != null) {
            last.after = closing;
            judgeEdge(last);
        }
        endSuspicion();
    }

    // The rows before the first balance, or behind the last, lie between it and the one that is stated.
    private void judgeEdge(Stretch stretch) {
        if (!stretch.isEmpty()) {
            judge(stretch);
        }
    }

    /**
     * What the rows lead to, when the closing balance that the file states is another one and no rows lie between that could
     * be to blame; else absent.
     */
    long contradictsClosing() {
        Stretch edge = late;
        boolean none = edge != null && (edge.isEmpty() || balances == 0);
        return none && edge != null && edge.canBeJudged() && !edge.holds() ? edge.leadsTo() : SourceRecord.ABSENT;
    }

    /** The same of the opening balance: what the first balance begins with. */
    long contradictsOpening() {
        Stretch edge = early;
        boolean none = edge != null && edge.isEmpty() && balances > 0;
        return none && edge != null && edge.canBeJudged() && !edge.holds() ? edge.after : SourceRecord.ABSENT;
    }

    /** True when so much is broken that the file is held as a whole. */
    boolean breaksEverywhere() {
        return culprits.size() >= MOST_CULPRITS;
    }

    /** Whether the last balance is the one that is stated; {@code null} when none is, or rows lie between. */
    @Nullable
    Boolean endsAsStated() {
        Stretch edge = late;
        return edge == null || !edge.isEmpty() || !edge.canBeJudged() ? null : edge.holds();
    }

    /** How many steps from one balance to the next were compared. */
    long steps() {
        return steps;
    }

    /** How many of them break. */
    long broken() {
        return broken;
    }

    /** True when a row had a balance beside it. */
    boolean hasBalances() {
        return balances > 0;
    }

    /** Rows that are to blame, once all were taken. */
    List<BalanceFault> culprits() {
        return runsTheOtherWay() ? List.of() : List.copyOf(culprits);
    }

    /** True when most steps break but hold when the file is read the other way round. */
    boolean runsTheOtherWay() {
        return pairs > 0 && pairsHeld * 2 < pairs && pairsTheOtherWay * 10 >= pairs * 9;
    }

    /** The balance that the first rows begin with; absent when it is not known. */
    long opening() {
        Stretch edge = early;
        if (edge == null) {
            return SourceRecord.ABSENT;
        }
        return edge.before != SourceRecord.ABSENT || !edge.isKnown() || edge.after == SourceRecord.ABSENT
                ? edge.before
                : edge.after - edge.moved();
    }

    /** The last balance that is known; absent when none is. */
    long closing() {
        Stretch edge = late;
        return edge == null
                ? SourceRecord.ABSENT
                : edge.after != SourceRecord.ABSENT || balances == 0 ? edge.after : edge.before;
    }

    /** True when rows stand behind the last balance, and none is stated for them. */
    boolean endsOpen() {
        Stretch edge = late;
        return edge != null && edge.after == SourceRecord.ABSENT && !edge.isEmpty();
    }

    /** Sound rows that no step proves. */
    Unproved unproved() {
        return unproved;
    }

    Optional<BalanceProof> proof() {
        if (opening() == SourceRecord.ABSENT || closing() == SourceRecord.ABSENT) {
            return Optional.empty();
        }
        Stretch edge = late;
        long outside = endsOpen() && edge != null ? edge.moved() : 0;
        return Optional.of(new BalanceProof(
                steps, broken, opening(), Math.subtractExact(movement, outside), closing(), closingStated));
    }

    private String show(long minor) {
        return Money.show(minor, Objects.requireNonNull(currency));
    }
}
