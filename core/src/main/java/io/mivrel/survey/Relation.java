package io.mivrel.survey;

import io.mivrel.model.SourceRecord;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Columns of which one is a running balance of the others.
 *
 * @param amount the column of amounts, or that of the first side
 * @param other the column of the other side; {@code null} when there is one of amounts
 * @param taken how the other side counts: -1 when it is taken off, 1 when both are signed
 * @param balance the column of balances
 * @param newestFirst true when the latest row comes first
 * @param sign -1 when the balance falls by what is positive
 * @param unsigned true when the amounts have no sign and the balance alone tells it
 * @param holds steps that hold
 * @param steps steps that could be tried
 */
record Relation(
        ColumnSurvey amount,
        @Nullable ColumnSurvey other,
        int taken,
        ColumnSurvey balance,
        boolean newestFirst,
        int sign,
        boolean unsigned,
        long holds,
        long steps) {

    private static final int LEAST_STEPS = 3;

    /** The relation that most steps show, nine in ten at least; {@code null} when there is none. */
    static @Nullable Relation find(Figures figures) {
        Relation best = null;
        for (ColumnSurvey balance : figures.columns()) {
            for (ColumnSurvey amount : figures.columns()) {
                if (amount == balance) {
                    continue;
                }
                best = better(best, of(amount, null, 1, balance, figures.of(amount), figures.of(balance)));
                for (ColumnSurvey other : figures.columns()) {
                    if (other.place() > amount.place() && other != balance) {
                        for (int taken = -1; taken <= 1; taken += 2) {
                            long[] sides = sides(figures.of(amount), figures.of(other), taken);
                            if (sides != null) {
                                best = better(best, of(amount, other, taken, balance, sides, figures.of(balance)));
                            }
                        }
                    }
                }
            }
        }
        return best;
    }

    private static @Nullable Relation better(@Nullable Relation one, @Nullable Relation other) {
        if (one == null || other == null) {
            return one == null ? other : one;
        }
        // What is signed says more than what is not; then more steps; then the simpler.
        if (one.unsigned != other.unsigned) {
            return one.unsigned ? other : one;
        }
        return other.holds > one.holds ? other : one;
    }

    // Both sides filled in one row are no sides; neither filled is no amount.
    private static long @Nullable [] sides(long[] one, long[] other, int taken) {
        long[] sum = new long[one.length];
        int both = 0;
        int filled = 0;
        for (int i = 0; i < sum.length; i++) {
            boolean blank = one[i] == SourceRecord.ABSENT && other[i] == SourceRecord.ABSENT;
            long a = one[i] == SourceRecord.ABSENT ? 0 : one[i];
            long b = other[i] == SourceRecord.ABSENT ? 0 : other[i];
            both += a != 0 && b != 0 ? 1 : 0;
            filled += a != 0 || b != 0 ? 1 : 0;
            sum[i] = blank ? SourceRecord.ABSENT : a + taken * b;
        }
        return both * 10 > filled ? null : sum;
    }

    private static @Nullable Relation of(
            ColumnSurvey amount,
            @Nullable ColumnSurvey other,
            int taken,
            ColumnSurvey balance,
            long[] amounts,
            long[] balances) {
        long[] holds = new long[6];
        long steps = 0;
        long after = 0;
        long from = 0;
        boolean afterKnown = true;
        boolean fromKnown = true;
        boolean moves = false;
        int previous = -1;
        for (int i = 0; i < balances.length; i++) {
            if (previous >= 0) {
                afterKnown &= amounts[i] != SourceRecord.ABSENT;
                after += amounts[i] == SourceRecord.ABSENT ? 0 : amounts[i];
            }
            if (balances[i] != SourceRecord.ABSENT) {
                if (previous >= 0 && (afterKnown || fromKnown)) {
                    long moved = balances[i] - balances[previous];
                    steps++;
                    moves |= moved != 0;
                    holds[0] += afterKnown && moved == after ? 1 : 0;
                    holds[1] += afterKnown && moved == -after ? 1 : 0;
                    holds[2] += fromKnown && moved == -from ? 1 : 0;
                    holds[3] += fromKnown && moved == from ? 1 : 0;
                    boolean next = i == previous + 1;
                    holds[4] += next && afterKnown && Math.abs(moved) == Math.abs(after) ? 1 : 0;
                    holds[5] += next && fromKnown && Math.abs(moved) == Math.abs(from) ? 1 : 0;
                }
                previous = i;
                after = 0;
                from = 0;
                afterKnown = true;
                fromKnown = true;
            }
            if (previous >= 0) {
                fromKnown &= amounts[i] != SourceRecord.ABSENT;
                from += amounts[i] == SourceRecord.ABSENT ? 0 : amounts[i];
            }
        }
        int best = 0;
        for (int way = 1; way < holds.length; way++) {
            boolean signed = way < 4;
            best = holds[way] > holds[best] && (signed || holds[way] * 20 > holds[best] * 21) ? way : best;
        }
        if (steps < LEAST_STEPS || !moves || holds[best] * 10 < steps * 8) {
            return null;
        }
        boolean newestFirst = best == 2 || best == 3 || best == 5;
        int sign = best == 1 || best == 3 ? -1 : 1;
        return new Relation(amount, other, taken, balance, newestFirst, sign, best >= 4, holds[best], steps);
    }

    /** The same where another column says the side of each amount. */
    Relation bySide() {
        return new Relation(amount, other, taken, balance, newestFirst, 1, true, holds, steps);
    }

    /** What each row moves the balance by, in the file's own order; absent where it is not known. */
    List<Integer> directions(Figures figures) {
        long[] balances = figures.of(balance);
        List<Integer> directions = new ArrayList<>();
        for (int i = 0; i < balances.length; i++) {
            int before = newestFirst ? i + 1 : i - 1;
            boolean known = before >= 0
                    && before < balances.length
                    && balances[before] != SourceRecord.ABSENT
                    && balances[i] != SourceRecord.ABSENT;
            directions.add(known ? Long.signum(balances[i] - balances[before]) : 0);
        }
        return directions;
    }
}
