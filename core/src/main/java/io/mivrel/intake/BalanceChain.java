package io.mivrel.intake;

import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Follows the running balance of one file from line to line. For one thread. */
final class BalanceChain {
    private final boolean newestFirst;
    private final Currency currency;
    private long lines;
    private long steps;
    private long broken;
    private long brokenTheOtherWay;
    private long movement;
    private long firstBalance = SourceRecord.ABSENT;
    private long firstAmount;
    private long lastBalance = SourceRecord.ABSENT;
    private long lastAmount = SourceRecord.ABSENT;
    private long beforeLastAmounts;
    private long statedClosing = SourceRecord.ABSENT;
    private String likelyCause = "";
    /** Of a file with the latest row first: the row whose step to the next one broke, until that shows who is to blame. */
    private long suspect;

    private String suspectReason = "";
    private long lastRow;
    private final List<Culprit> culprits = new ArrayList<>();

    BalanceChain(boolean newestFirst, Currency currency) {
        this.newestFirst = newestFirst;
        this.currency = currency;
    }

    /**
     * Takes the next line's amount and balance, either of them {@link SourceRecord#ABSENT} when the row lacks it or it could
     * not be read. Answers why the step is broken, or {@code null} when it holds or cannot be judged.
     */
    @Nullable
    String step(long amount, long balance, long row) {
        lines++;
        if (amount != SourceRecord.ABSENT) {
            movement = Math.addExact(movement, amount);
        }
        String broke = null;
        if (lastBalance != SourceRecord.ABSENT && balance != SourceRecord.ABSENT && amount != SourceRecord.ABSENT) {
            broke = judge(amount, balance, row);
        }
        if (balance != SourceRecord.ABSENT) {
            if (firstBalance == SourceRecord.ABSENT && amount != SourceRecord.ABSENT) {
                firstBalance = balance;
                firstAmount = amount;
                beforeLastAmounts = movement - amount;
            }
            lastBalance = balance;
            lastAmount = amount;
        } else if (lastBalance != SourceRecord.ABSENT && amount != SourceRecord.ABSENT && !newestFirst) {
            // A line without a balance of its own: carry the balance over it, so that the next step can be judged.
            lastBalance = Math.addExact(lastBalance, amount);
            lastAmount = amount;
        } else {
            lastBalance = SourceRecord.ABSENT;
        }
        lastRow = row;
        return broke;
    }

    private @Nullable String judge(long amount, long balance, long row) {
        long forward = lastBalance + amount;
        boolean backwardHolds = lastAmount != SourceRecord.ABSENT && balance == lastBalance - lastAmount;
        if (newestFirst && lastAmount == SourceRecord.ABSENT) {
            return null;
        }
        boolean holds = newestFirst ? backwardHolds : forward == balance;
        boolean otherHolds = newestFirst ? forward == balance : backwardHolds;
        steps++;
        if (!otherHolds) {
            brokenTheOtherWay++;
        }
        if (newestFirst) {
            blame(holds, balance);
        }
        if (holds) {
            return null;
        }
        broken++;
        likelyCause = cause(amount, balance);
        if (newestFirst) {
            return "balance should be " + Money.show(lastBalance - lastAmount, currency)
                    + " before the line above it, but is " + Money.show(balance, currency);
        }
        return "balance should be " + Money.show(lastBalance, currency) + " + " + Money.show(amount, currency) + " = "
                + Money.show(forward, currency) + ", but is " + Money.show(balance, currency);
    }

    // The amount of a row moves the balance from the row below it to its own. One broken step is the fault of the upper
    // row's amount; two in turn are that of the balance between them.
    private void blame(boolean holds, long balance) {
        if (holds) {
            endSuspicion();
        } else if (suspect != 0) {
            String value = Money.show(lastBalance, currency);
            culprits.add(new Culprit(
                    lastRow,
                    Rule.BALANCE_BROKEN,
                    "balance",
                    value,
                    "the balance " + value + " agrees neither with the row above nor with the row below",
                    "compare it with the statement"));
            suspect = 0;
        } else {
            suspect = lastRow;
            suspectReason = "the balance moved by " + Money.show(lastBalance - balance, currency)
                    + " from the row below to this one, but its amount is " + Money.show(lastAmount, currency);
        }
    }

    private void endSuspicion() {
        if (suspect != 0) {
            culprits.add(new Culprit(
                    suspect,
                    Rule.BALANCE_BROKEN,
                    "amount",
                    "",
                    suspectReason,
                    "is the amount wrong, or a line missing below this row?"));
            suspect = 0;
        }
    }

    /** Rows that are to blame for broken steps, once all were taken; only of files with the latest row first. */
    List<Culprit> culprits() {
        endSuspicion();
        return runsTheOtherWay() ? List.of() : List.copyOf(culprits);
    }

    /**
     * Takes a balance that is carried over between two rows. Answers why it is not the one the rows lead to, or {@code null}
     * when it is, or cannot be judged.
     */
    @Nullable
    String carried(long balance) {
        if (newestFirst) {
            return null;
        }
        String broke = lastBalance == SourceRecord.ABSENT || lastBalance == balance
                ? null
                : "the rows lead to " + Money.show(lastBalance, currency) + ", but " + Money.show(balance, currency)
                        + " is carried over";
        lastBalance = balance;
        lastAmount = SourceRecord.ABSENT;
        return broke;
    }

    /** What the balances say an unreadable amount must be, or {@link SourceRecord#ABSENT}; to be asked before {@link #step}. */
    long impliedAmount(long balance) {
        return newestFirst || lastBalance == SourceRecord.ABSENT || balance == SourceRecord.ABSENT
                ? SourceRecord.ABSENT
                : balance - lastBalance;
    }

    /** The balance before a row with this one, when the rows run so; {@link SourceRecord#ABSENT} when it is not known. */
    long before() {
        return newestFirst ? SourceRecord.ABSENT : lastBalance;
    }

    /** What could be the cause of the step that {@link #step} just found broken. */
    String likelyCause() {
        return likelyCause;
    }

    private String cause(long amount, long balance) {
        if (newestFirst) {
            return "compare the rows above and below with the statement";
        }
        long off = balance - (lastBalance + amount);
        if (balance == lastBalance - amount) {
            return "the sign is probably wrong: the balance moved the other way";
        }
        String missing = "a line of " + Money.show(off, currency) + " is missing above this row, or ";
        return missing + (off % 9 == 0 ? "two digits are swapped" : "the amount is wrong");
    }

    void stated(long closing) {
        statedClosing = closing;
    }

    /** The closing balance that the file states, when it differs from the one its lines lead to; else ABSENT. */
    long contradictedClosing() {
        return statedClosing != SourceRecord.ABSENT && firstBalance != SourceRecord.ABSENT && statedClosing != closing()
                ? statedClosing
                : SourceRecord.ABSENT;
    }

    /** True when most steps break but hold when the file is read the other way round. */
    boolean runsTheOtherWay() {
        return steps > 0 && broken * 2 > steps && brokenTheOtherWay * 10 <= steps;
    }

    long closing() {
        return newestFirst ? firstBalance : lastBalance;
    }

    Optional<BalanceProof> proof() {
        if (firstBalance == SourceRecord.ABSENT || lastBalance == SourceRecord.ABSENT) {
            return Optional.empty();
        }
        long opening = newestFirst
                ? lastBalance - (lastAmount == SourceRecord.ABSENT ? 0 : lastAmount)
                : firstBalance - firstAmount - beforeLastAmounts;
        boolean stated = statedClosing != SourceRecord.ABSENT && statedClosing == closing();
        return Optional.of(new BalanceProof(steps, broken, opening, movement, closing(), stated));
    }
}
