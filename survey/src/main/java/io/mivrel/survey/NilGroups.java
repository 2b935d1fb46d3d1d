package io.mivrel.survey;

import io.mivrel.model.FieldType;
import io.mivrel.model.SourceRecord;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Rows that sum to nil wherever they have the same value in some column, as the lines of journals do.
 *
 * @param key the column that says which rows belong together
 * @param debit the column of amounts, or that of debits
 * @param credit the column of credits; {@code null} when there is one of amounts
 * @param nil groups of two rows and more that sum to nil
 * @param groups all such groups
 */
record NilGroups(
        ColumnSurvey key, ColumnSurvey debit, @Nullable ColumnSurvey credit, long nil, long groups) {
    private static final int LEAST_GROUPS = 2;

    /** The grouping that leaves the most groups at nil, nine in ten at least; {@code null} when there is none. */
    static @Nullable NilGroups find(List<Sample.Kept> rows, List<ColumnSurvey> columns, Figures figures) {
        NilGroups best = null;
        for (ColumnSurvey key : columns) {
            boolean mayBeKey = key.filled() > 0 && key.type() != FieldType.AMOUNT && key.blank() * 10 <= key.filled();
            for (ColumnSurvey debit : mayBeKey ? figures.columns() : List.<ColumnSurvey>of()) {
                best = better(best, of(rows, key, debit, null, figures));
                for (ColumnSurvey credit : figures.columns()) {
                    best = credit.place() <= debit.place() ? best : better(best, of(rows, key, debit, credit, figures));
                }
            }
        }
        return best;
    }

    /** As it is told to people. */
    String words() {
        return nil + " of " + groups + " groups by '" + Proposal.column(key) + "' sum to nil";
    }

    private static @Nullable NilGroups better(@Nullable NilGroups one, @Nullable NilGroups other) {
        // A number says more than a day, which several journals may share.
        if (one == null || other == null) {
            return one == null ? other : one;
        }
        boolean day = one.key.type() == FieldType.DATE;
        return day && other.key.type() != FieldType.DATE && other.nil * 2 >= one.nil || other.nil > one.nil
                ? other
                : one;
    }

    private static long orNil(long figure) {
        return figure == SourceRecord.ABSENT ? 0 : figure;
    }

    private static @Nullable NilGroups of(
            List<Sample.Kept> rows,
            ColumnSurvey key,
            ColumnSurvey debit,
            @Nullable ColumnSurvey credit,
            Figures figures) {
        if (key == debit || key == credit) {
            return null;
        }
        Map<String, long[]> sums = new HashMap<>();
        boolean both = false;
        boolean any = false;
        long moved = 0;
        for (int i = 0; i < rows.size(); i++) {
            String value = BankColumns.cell(rows.get(i), key);
            long plus = orNil(figures.of(debit)[i]);
            long minus = credit == null ? 0 : orNil(figures.of(credit)[i]);
            long amount = plus - minus;
            both |= plus != 0 && minus != 0;
            any |= minus != 0;
            moved += amount != 0 ? 1 : 0;
            long[] sum = sums.computeIfAbsent(value, v -> new long[3]);
            sum[0] += amount;
            sum[1]++;
            sum[2] += amount != 0 ? 1 : 0;
        }
        if (both || credit != null && !any || moved * 2 < rows.size()) {
            return null;
        }
        long groups = sums.values().stream().filter(sum -> sum[1] > 1).count();
        long nil =
                sums.values().stream().filter(sum -> sum[2] > 1 && sum[0] == 0).count();
        long grouped = sums.values().stream()
                .filter(sum -> sum[1] > 1)
                .mapToLong(sum -> sum[1])
                .sum();
        // The sample may end within a journal.
        boolean most = nil >= LEAST_GROUPS && nil * 10 >= (groups - 1) * 8 && grouped * 10 >= rows.size() * 8;
        return most ? new NilGroups(key, debit, credit, nil, groups) : null;
    }
}
