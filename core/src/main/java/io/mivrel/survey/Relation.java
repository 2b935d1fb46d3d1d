package io.mivrel.survey;

import io.mivrel.intake.BalanceTrial;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;

/**
 * How columns move a running balance.
 *
 * @param amount the column of amounts, or that of the first side
 * @param other the column of the other side; {@code null} when there is one of amounts
 * @param taken how the other side counts: -1 when it is taken off, 1 when both are signed
 * @param balance the column of balances
 * @param order in which order of time the rows stand
 * @param sign -1 when the balance falls by what is positive
 * @param sides which rows of unsigned amounts go out; {@code null} when the amounts say it themselves
 * @param unsigned true when the amounts have no sign and the balance alone tells it
 * @param key a column by whose values the rows have balances of their own, such as accounts; {@code null} for none
 * @param holds steps that hold
 * @param steps steps that could be tried
 */
record Relation(
        ColumnSurvey amount,
        @Nullable ColumnSurvey other,
        int taken,
        ColumnSurvey balance,
        RowOrder order,
        int sign,
        @Nullable Sides sides,
        boolean unsigned,
        @Nullable ColumnSurvey key,
        long holds,
        long steps) {

    /** Of so many steps, nine in ten at least must hold. */
    private static final int LEAST_STEPS = 2;

    /** What a search looks at: figures of the rows, what the file states beside them, and columns of few values. */
    record Search(
            Figures figures,
            long[] days,
            long opening,
            long closing,
            List<Sides> sides,
            List<ColumnSurvey> keys,
            List<List<String>> keyValues) {}

    /** The relation that the most steps show, nine in ten at least; {@code null} when there is none. */
    static @Nullable Relation find(Search search) {
        Relation best = of(search, null, null);
        for (int k = 0; k < search.keys.size() && best == null; k++) {
            best = of(search, search.keys.get(k), search.keyValues.get(k));
        }
        return best;
    }

    private static @Nullable Relation of(Search search, @Nullable ColumnSurvey key, @Nullable List<String> values) {
        Figures figures = search.figures;
        Relation best = null;
        for (ColumnSurvey balance : figures.columns()) {
            for (ColumnSurvey amount : figures.columns()) {
                if (amount == balance) {
                    continue;
                }
                best = better(best, single(search, amount, balance, key, values));
                for (ColumnSurvey other : figures.columns()) {
                    for (int taken = -1; taken <= 1 && other.place() > amount.place() && other != balance; taken += 2) {
                        long[] sides = sides(figures.of(amount), figures.of(other), taken);
                        if (sides != null) {
                            best = better(
                                    best, signed(search, amount, other, taken, balance, sides, null, key, values));
                        }
                    }
                }
            }
        }
        return best;
    }

    // One column: with its own signs, with those of a column of sides, or without any.
    private static @Nullable Relation single(
            Search search,
            ColumnSurvey amount,
            ColumnSurvey balance,
            @Nullable ColumnSurvey key,
            @Nullable List<String> values) {
        long[] amounts = search.figures.of(amount);
        Relation best = signed(search, amount, null, 1, balance, amounts, null, key, values);
        if (isSigned(amounts) || best != null && best.holds == best.steps) {
            return best;
        }
        for (Sides sides : search.sides) {
            best = better(best, signed(search, amount, null, 1, balance, sides.over(amounts), sides, key, values));
        }
        // Where nearly all money goes out, unsigned amounts look as if they were signed the other way round.
        Relation unsigned = key != null ? null : unsigned(search, amount, balance, amounts, search.figures.of(balance));
        return best == null || unsigned != null && unsigned.holds * 20 > best.holds * 21 ? unsigned : best;
    }

    // A minus in one row of many is a fault of that row.
    private static boolean isSigned(long[] amounts) {
        int below = 0;
        for (long amount : amounts) {
            below += amount < 0 && amount != SourceRecord.ABSENT ? 1 : 0;
        }
        return below * 20 > amounts.length || below > 0 && amounts.length < 20;
    }

    private static @Nullable Relation better(@Nullable Relation one, @Nullable Relation other) {
        if (one == null || other == null) {
            return one == null ? other : one;
        }
        // More steps; of what is signed and what is not, the first; then the simpler, which came first.
        if (one.unsigned != other.unsigned) {
            Relation signed = one.unsigned ? other : one;
            Relation bare = one.unsigned ? one : other;
            return bare.holds * 20 > signed.holds * 21 ? bare : signed;
        }
        return other.holds > one.holds ? other : one;
    }

    // Both sides filled in one row are no sides; neither filled is no amount.
    private static long @Nullable [] sides(long[] one, long[] other, int taken) {
        long[] sum = new long[one.length];
        int both = 0;
        int filled = 0;
        int second = 0;
        for (int i = 0; i < sum.length; i++) {
            boolean blank = one[i] == SourceRecord.ABSENT && other[i] == SourceRecord.ABSENT;
            long a = one[i] == SourceRecord.ABSENT ? 0 : one[i];
            long b = other[i] == SourceRecord.ABSENT ? 0 : other[i];
            both += a != 0 && b != 0 ? 1 : 0;
            filled += a != 0 || b != 0 ? 1 : 0;
            second += b != 0 ? 1 : 0;
            sum[i] = blank ? SourceRecord.ABSENT : a + taken * b;
        }
        return both * 10 > filled || second == 0 || second == filled ? null : sum;
    }

    private static @Nullable Relation signed(
            Search search,
            ColumnSurvey amount,
            @Nullable ColumnSurvey other,
            int taken,
            ColumnSurvey balance,
            long[] amounts,
            @Nullable Sides sides,
            @Nullable ColumnSurvey key,
            @Nullable List<String> values) {
        Relation best = null;
        for (RowOrder order : RowOrder.values()) {
            // The sides the other way round are tried as sides of their own.
            for (int sign = 1; sign >= (sides == null ? -1 : 1); sign -= 2) {
                BalanceTrial trial = new BalanceTrial(order, search.opening, search.closing);
                for (int i = 0; i < amounts.length; i++) {
                    long moved = amounts[i] == SourceRecord.ABSENT ? amounts[i] : sign * amounts[i];
                    trial.step(
                            values == null ? "" : values.get(i),
                            search.days[i],
                            moved,
                            search.figures.of(balance)[i]);
                }
                trial.finish();
                boolean more = best == null || trial.holds() > best.holds;
                if (more && isEnough(trial.holds(), trial.steps()) && trial.moves()) {
                    best = new Relation(
                            amount,
                            other,
                            taken,
                            balance,
                            order,
                            sign,
                            sides,
                            false,
                            key,
                            trial.holds(),
                            trial.steps());
                }
            }
        }
        return best;
    }

    private static boolean isEnough(long holds, long steps) {
        return steps >= LEAST_STEPS && holds * 10 >= steps * 8 && holds >= LEAST_STEPS;
    }

    // Each balance goes up or down by the amount beside it.
    private static @Nullable Relation unsigned(
            Search search, ColumnSurvey amount, ColumnSurvey balance, long[] amounts, long[] balances) {
        long oldest = 0;
        long newest = 0;
        long steps = 0;
        for (int i = 1; i < balances.length; i++) {
            if (balances[i] != SourceRecord.ABSENT && balances[i - 1] != SourceRecord.ABSENT) {
                steps++;
                long moved = Math.abs(balances[i] - balances[i - 1]);
                oldest += moved != 0 && moved == amounts[i] ? 1 : 0;
                newest += moved != 0 && moved == amounts[i - 1] ? 1 : 0;
            }
        }
        long holds = Math.max(oldest, newest);
        return !isEnough(holds, steps) || holds < LEAST_STEPS + 1
                ? null
                : new Relation(
                        amount,
                        null,
                        1,
                        balance,
                        oldest >= newest ? RowOrder.OLDEST_FIRST : RowOrder.NEWEST_FIRST,
                        1,
                        null,
                        true,
                        null,
                        holds,
                        steps);
    }

    /** True when the balance is that of the rows in the order of the file, without a column that divides them. */
    boolean isPlain() {
        return key == null;
    }

    /**
     * Which rows of unsigned amounts go out, by the value that each has in some column, or by the heading above it.
     *
     * @param column the column; {@code null} for headings
     * @param plus values of the rows that come in
     * @param minus values of the rows that go out
     * @param out for each row, whether it goes out
     */
    record Sides(@Nullable ColumnSurvey column, List<String> plus, List<String> minus, IntPredicate out) {
        /** Each way in which the values of a column can be divided into two sides. */
        static List<Sides> all(@Nullable ColumnSurvey column, List<String> values, List<String> ofRows) {
            List<Sides> all = new ArrayList<>();
            for (int minus = 1; minus < (1 << values.size()) - 1; minus++) {
                List<String> in = new ArrayList<>();
                List<String> out = new ArrayList<>();
                for (int v = 0; v < values.size(); v++) {
                    ((minus >> v & 1) == 1 ? out : in).add(values.get(v));
                }
                all.add(new Sides(column, in, out, row -> out.contains(ofRows.get(row))));
            }
            return all;
        }

        /** Amounts with the signs that they get so. */
        long[] over(long[] amounts) {
            long[] signed = new long[amounts.length];
            for (int i = 0; i < signed.length; i++) {
                signed[i] = amounts[i] != SourceRecord.ABSENT && out.test(i) ? -amounts[i] : amounts[i];
            }
            return signed;
        }
    }
}
