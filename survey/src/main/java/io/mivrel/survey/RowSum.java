package io.mivrel.survey;

import io.mivrel.layout.RowEquation;
import io.mivrel.model.FieldType;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.shape.FanOut;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * A sum of columns, each taken with plus or minus, that is nil in every row: net and tax against gross, or pay against
 * what is held back and paid out. Found among the first rows, then watched over the whole file. For one thread.
 */
final class RowSum {
    private static final int MOST_COLUMNS = 12;
    private static final int LEAST_TERMS = 3;
    private static final int LEAST_ROWS = 3;
    /** Rows that are searched, those with most figures first. */
    private static final int MOST_ROWS = 100;
    /** Sums that are looked for: more than one is no answer, and all are watched. */
    private static final int MOST_SUMS = 3;

    private final List<ColumnSurvey> columns;
    /** By column: 1, -1, or 0 when it is not in the sum. */
    private final int[] signs;

    private final AmountFormat numbers;
    /** What each column adds up to. */
    private final long[] totals;

    private long rows;
    private long nil;
    private long firstBroken;

    private RowSum(List<ColumnSurvey> columns, int[] signs, AmountFormat numbers) {
        this.columns = columns;
        this.signs = signs;
        this.totals = new long[signs.length];
        this.numbers = numbers;
    }

    /**
     * Such sums, at most three, of three columns and more that the first rows have; the first column of each counts as plus.
     *
     * @param columns as far as the sample goes
     */
    static List<RowSum> find(Sample sample, List<ColumnSurvey> columns, AmountFormat numbers) {
        List<ColumnSurvey> amounts = columns.stream()
                .filter(c -> c.type() == FieldType.AMOUNT && hasFigures(c))
                .toList();
        List<RowSum> found = new ArrayList<>();
        if (amounts.size() >= LEAST_TERMS && amounts.size() <= MOST_COLUMNS) {
            List<long[]> rows = new ArrayList<>();
            for (Sample.Kept row : sample.data()) {
                long[] values = values(row, amounts, numbers);
                if (values != null) {
                    rows.add(values);
                }
            }
            rows.sort(Comparator.comparing(RowSum::blanks));
            if (rows.size() >= LEAST_ROWS) {
                rows = rows.subList(0, Math.min(rows.size(), MOST_ROWS));
                search(amounts, rows, 0, new int[amounts.size()], 0, numbers, found);
                if (found.isEmpty()) {
                    // A figure that is wrong in one row of many is a fault of that row.
                    search(amounts, rows, rows.size() / 10, new int[amounts.size()], 0, numbers, found);
                }
            }
        }
        return found;
    }

    private static boolean hasFigures(ColumnSurvey column) {
        long[] span = column.amounts();
        return span != null && (span[0] != 0 || span[1] != 0);
    }

    private static long blanks(long[] values) {
        return Arrays.stream(values)
                .filter(v -> v == 0 || v == SourceRecord.ABSENT)
                .count();
    }

    private static long @Nullable [] values(Sample.Kept row, List<ColumnSurvey> columns, AmountFormat numbers) {
        long[] values = new long[columns.size()];
        for (int i = 0; i < values.length; i++) {
            int cell = columns.get(i).place() - 1;
            long value = cell < row.cells().size() ? numbers.parse(row.cells().get(cell)) : AmountFormat.BLANK;
            if (!AmountFormat.isAmount(value) && value != AmountFormat.BLANK) {
                return null;
            }
            values[i] = value == AmountFormat.BLANK ? SourceRecord.ABSENT : value;
        }
        return values;
    }

    private static void search(
            List<ColumnSurvey> columns,
            List<long[]> rows,
            int most,
            int[] signs,
            int at,
            AmountFormat numbers,
            List<RowSum> found) {
        if (found.size() == MOST_SUMS) {
            return;
        }
        if (at == signs.length) {
            if (isNil(rows, most, signs)) {
                found.add(new RowSum(columns, signs.clone(), numbers));
            }
            return;
        }
        boolean first = true;
        for (int i = 0; i < at; i++) {
            first &= signs[i] == 0;
        }
        for (int sign = first ? 0 : -1; sign <= 1; sign++) {
            signs[at] = sign;
            search(columns, rows, most, signs, at + 1, numbers, found);
        }
        signs[at] = 0;
    }

    // In every row, and with something to add in enough of them; each column must have its part.
    private static boolean isNil(List<long[]> rows, int most, int[] signs) {
        int terms = 0;
        for (int sign : signs) {
            terms += Math.abs(sign);
        }
        if (terms < LEAST_TERMS) {
            return false;
        }
        int telling = 0;
        int off = 0;
        boolean[] used = new boolean[signs.length];
        for (long[] row : rows) {
            long sum = 0;
            int filled = 0;
            boolean whole = true;
            for (int i = 0; i < signs.length; i++) {
                boolean blank = row[i] == SourceRecord.ABSENT;
                sum += blank ? 0 : signs[i] * row[i];
                whole &= signs[i] == 0 || !blank;
                if (signs[i] != 0 && !blank && row[i] != 0) {
                    filled++;
                    used[i] = true;
                }
            }
            // A row with blanks says nothing when a few may be wrong.
            off += sum != 0 && (whole || most == 0) ? 1 : 0;
            if (off > most) {
                return false;
            }
            telling += filled > 1 && sum == 0 ? 1 : 0;
        }
        for (int i = 0; i < signs.length; i++) {
            if (signs[i] != 0 && !used[i]) {
                return false;
            }
        }
        return telling >= LEAST_ROWS;
    }

    /** Takes a row of data. */
    void take(Row row) {
        long sum = 0;
        boolean readable = true;
        boolean blank = false;
        for (int i = 0; i < signs.length; i++) {
            int cell = columns.get(i).place() - 1;
            if (cell < row.size()) {
                long value = numbers.parse(row.bytes(), row.start(cell), row.end(cell));
                totals[i] += AmountFormat.isAmount(value) ? value : 0;
                blank |= signs[i] != 0 && value == AmountFormat.BLANK;
                if (signs[i] != 0 && value != AmountFormat.BLANK) {
                    // A row that cannot be read whole sums to nothing.
                    readable &= AmountFormat.isAmount(value);
                    sum += signs[i] * value;
                }
            }
        }
        if (blank && sum != 0) {
            return;
        }
        rows++;
        boolean isNil = readable && sum == 0;
        nil += isNil ? 1 : 0;
        firstBroken = !isNil && firstBroken == 0 ? row.number() : firstBroken;
    }

    boolean holds() {
        return rows >= LEAST_ROWS && nil == rows;
    }

    /** True when it holds in nearly all rows, so that the others are wrong. */
    boolean isExpected() {
        return rows >= LEAST_ROWS && nil * 20 >= rows * 18;
    }

    /** As a layout says it. */
    RowEquation equation() {
        List<String> plus = new ArrayList<>();
        List<String> minus = new ArrayList<>();
        for (int i = 0; i < signs.length; i++) {
            if (signs[i] != 0) {
                (signs[i] > 0 ? plus : minus).add(Proposal.column(columns.get(i)));
            }
        }
        return new RowEquation(plus, minus);
    }

    Proof proof() {
        StringBuilder words = new StringBuilder();
        for (int i = 0; i < signs.length; i++) {
            if (signs[i] != 0) {
                words.append(words.isEmpty() ? "" : signs[i] > 0 ? " + " : " - ")
                        .append("'")
                        .append(Proposal.column(columns.get(i)))
                        .append("'");
            }
        }
        words.append(
                holds()
                        ? String.format(Locale.ROOT, " is nil in each of %,d rows", rows)
                        : String.format(
                                Locale.ROOT, " is nil in %,d of %,d rows, not in row %d", nil, rows, firstBroken));
        return new Proof(holds(), words.toString());
    }

    /** What a row below the data says of the sums of the columns; empty when it states no totals. */
    List<Proof> totals(Sample.Kept row, Currency currency) {
        List<Proof> proofs = new ArrayList<>();
        List<String> agree = new ArrayList<>();
        for (int i = 0; i < totals.length && !BesideFigures.total(row).isEmpty(); i++) {
            String column = "'" + Proposal.column(columns.get(i)) + "'";
            long stated = numbers.parse(BankColumns.cell(row, columns.get(i)));
            if (AmountFormat.isAmount(stated) && stated == totals[i]) {
                agree.add(column);
            } else if (AmountFormat.isAmount(stated)) {
                proofs.add(new Proof(
                        false,
                        "row " + row.number() + " states a total of " + Money.show(stated, currency) + " for " + column
                                + ", but its rows add up to " + Money.show(totals[i], currency)));
            }
        }
        if (!agree.isEmpty()) {
            proofs.add(new Proof(
                    true, "the totals stated in row " + row.number() + " agree: " + String.join(", ", agree)));
        }
        return proofs;
    }

    /**
     * The columns as lines of a journal, plus on the debit side. A column that is not in the sum goes to both sides, so
     * that the journal is nil as well. The accounts are not known.
     */
    List<FanOut.Amount> lines() {
        List<FanOut.Amount> lines = new ArrayList<>();
        for (int i = 0; i < signs.length; i++) {
            String column = Proposal.column(columns.get(i));
            if (signs[i] >= 0) {
                lines.add(new FanOut.Amount(column, "?", column, "debit"));
            }
            if (signs[i] <= 0) {
                lines.add(new FanOut.Amount(column, "?", column, "credit"));
            }
        }
        return lines;
    }
}
