package io.mivrel.intake;

import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.util.Currency;
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

    BalanceChain(boolean newestFirst, Currency currency) {
        this.newestFirst = newestFirst;
        this.currency = currency;
    }

    /**
     * Takes the next line's amount and balance, either of them {@link SourceRecord#ABSENT} when the row lacks it or it could
     * not be read. Answers why the step is broken, or {@code null} when it holds or cannot be judged.
     */
    @Nullable
    String step(long amount, long balance) {
        lines++;
        if (amount != SourceRecord.ABSENT) {
            movement = Math.addExact(movement, amount);
        }
        String broke = null;
        if (lastBalance != SourceRecord.ABSENT && balance != SourceRecord.ABSENT && amount != SourceRecord.ABSENT) {
            broke = judge(amount, balance);
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
        return broke;
    }

    private @Nullable String judge(long amount, long balance) {
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

    /** What the balances say an unreadable amount must be, or {@link SourceRecord#ABSENT}; to be asked before {@link #step}. */
    long impliedAmount(long balance) {
        return newestFirst || lastBalance == SourceRecord.ABSENT || balance == SourceRecord.ABSENT
                ? SourceRecord.ABSENT
                : balance - lastBalance;
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
