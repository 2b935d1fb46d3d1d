package io.mivrel.survey;

import io.mivrel.intake.BalanceTrial;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;

/**
 * How columns move a running balance.
 *
 * @param moves the columns that move it
 * @param order in which order of time the rows stand
 * @param sign -1 when the balance falls by what is positive
 * @param unsigned true when the amounts have no sign and the balance alone tells it
 * @param holds steps that hold
 * @param steps steps that could be tried
 * @param opening the balance before the first row; {@link SourceRecord#ABSENT} where it is not known
 * @param closing the balance after the last row, likewise
 */
record Relation(
        Moves moves, RowOrder order, int sign, boolean unsigned, long holds, long steps, long opening, long closing) {
    /** Of so many steps, eight in ten at least must hold. */
    private static final int LEAST_STEPS = 2;

    /**
     * Columns that may move a balance.
     *
     * @param balance the column of balances
     * @param amount the column of amounts, or that of the first side
     * @param other the column of the other side, or of charges; {@code null} when there is one of amounts
     * @param second how the other one counts
     * @param sides which rows of unsigned amounts go out; {@code null} when the amounts say it themselves
     * @param key a column by whose values the rows have balances of their own, such as accounts; {@code null} for none
     * @param amounts what moves it in each row
     */
    record Moves(
            ColumnSurvey balance,
            ColumnSurvey amount,
            @Nullable ColumnSurvey other,
            Second second,
            @Nullable Sides sides,
            @Nullable ColumnSurvey key,
            long[] amounts) {
        private Moves over(Sides way) {
            return new Moves(balance, amount, other, second, way, key, way.over(amounts));
        }
    }

    /** What a second column beside the amounts is. */
    enum Second {
        /** The other side, without a sign. */
        SIDE,
        /** The other side, with a sign of its own. */
        SIGNED_SIDE,
        /** What is taken off the amount in the same row. */
        CHARGES
    }

    /** What a search looks at: figures of the rows, what the file states beside them, and columns of few values. */
    record Search(
            Figures figures,
            long[] days,
            long opening,
            long closing,
            List<Sides> sides,
            Map<ColumnSurvey, List<String>> keys) {}

    /** The relation that the most steps show; {@code null} when there is none. */
    static @Nullable Relation find(Search search) {
        Relation best = of(search, null);
        for (ColumnSurvey key : search.keys.keySet()) {
            best = best == null ? of(search, key) : best;
        }
        return best;
    }

    private static @Nullable Relation of(Search search, @Nullable ColumnSurvey key) {
        Figures figures = search.figures;
        Relation best = null;
        for (ColumnSurvey balance : figures.columns()) {
            for (ColumnSurvey amount : figures.columns()) {
                if (amount == balance) {
                    continue;
                }
                long[] amounts = figures.of(amount);
                best = better(best, single(search, new Moves(balance, amount, null, Second.SIDE, null, key, amounts)));
                for (ColumnSurvey other : figures.columns()) {
                    for (Second second : other == balance || other == amount ? new Second[0] : Second.values()) {
                        boolean again = second != Second.CHARGES && other.place() < amount.place();
                        long[] both = again ? null : together(amounts, figures.of(other), second);
                        if (both != null) {
                            best = better(
                                    best, signed(search, new Moves(balance, amount, other, second, null, key, both)));
                        }
                    }
                }
            }
        }
        return best;
    }

    // One column: with its own signs, with those of a column of sides, or without any.
    private static @Nullable Relation single(Search search, Moves moves) {
        Relation best = signed(search, moves);
        if (isSigned(moves.amounts) || best != null && best.holds == best.steps) {
            return best;
        }
        for (Sides sides : search.sides) {
            best = better(best, signed(search, moves.over(sides)));
        }
        // Where nearly all money goes out, unsigned amounts look as if they were signed the other way round.
        Relation unsigned = moves.key != null ? null : unsigned(moves, search.figures.of(moves.balance));
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

    // Charges stand beside amounts only; both sides filled in one row are no sides, and neither filled is no amount.
    private static long @Nullable [] together(long[] one, long[] other, Second second) {
        long[] sum = new long[one.length];
        int both = 0;
        int filled = 0;
        int others = 0;
        for (int i = 0; i < sum.length; i++) {
            boolean blank = one[i] == SourceRecord.ABSENT && other[i] == SourceRecord.ABSENT;
            long a = one[i] == SourceRecord.ABSENT ? 0 : one[i];
            long b = other[i] == SourceRecord.ABSENT ? 0 : other[i];
            both += a != 0 && b != 0 ? 1 : 0;
            filled += a != 0 || b != 0 ? 1 : 0;
            others += b != 0 ? 1 : 0;
            sum[i] = blank ? SourceRecord.ABSENT : second == Second.SIGNED_SIDE ? a + b : a - b;
        }
        boolean fits = second == Second.CHARGES ? both == others : both * 10 <= filled && others != filled;
        return fits && others > 0 ? sum : null;
    }

    private static @Nullable Relation signed(Search search, Moves moves) {
        Relation best = null;
        List<String> keys = moves.key == null ? null : search.keys.get(moves.key);
        long[] balances = search.figures.of(moves.balance);
        for (RowOrder order : RowOrder.values()) {
            // The sides the other way round are tried as sides of their own.
            for (int sign = 1; sign >= (moves.sides == null ? -1 : 1); sign -= 2) {
                BalanceTrial trial = new BalanceTrial(order, search.opening, search.closing);
                for (int i = 0; i < balances.length; i++) {
                    long moved =
                            moves.amounts[i] == SourceRecord.ABSENT ? SourceRecord.ABSENT : sign * moves.amounts[i];
                    trial.step(keys == null ? "" : keys.get(i), search.days[i], moved, balances[i]);
                }
                trial.finish();
                boolean more = best == null || trial.holds() > best.holds;
                if (more && isEnough(trial.holds(), trial.steps()) && trial.moves()) {
                    best = new Relation(
                            moves, order, sign, false, trial.holds(), trial.steps(), trial.opening(), trial.closing());
                }
            }
        }
        return best;
    }

    private static boolean isEnough(long holds, long steps) {
        return steps >= LEAST_STEPS && holds * 10 >= steps * 8 && holds >= LEAST_STEPS;
    }

    // Each balance goes up or down by the amount beside it.
    private static @Nullable Relation unsigned(Moves moves, long[] balances) {
        long oldest = 0;
        long newest = 0;
        long steps = 0;
        for (int i = 1; i < balances.length; i++) {
            if (balances[i] != SourceRecord.ABSENT && balances[i - 1] != SourceRecord.ABSENT) {
                steps++;
                long moved = Math.abs(balances[i] - balances[i - 1]);
                oldest += moved != 0 && moved == moves.amounts[i] ? 1 : 0;
                newest += moved != 0 && moved == moves.amounts[i - 1] ? 1 : 0;
            }
        }
        long holds = Math.max(oldest, newest);
        RowOrder order = oldest >= newest ? RowOrder.OLDEST_FIRST : RowOrder.NEWEST_FIRST;
        return !isEnough(holds, steps) || holds < LEAST_STEPS + 1
                ? null
                : new Relation(moves, order, 1, true, holds, steps, SourceRecord.ABSENT, SourceRecord.ABSENT);
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
