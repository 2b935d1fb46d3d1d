package io.mivrel.survey;

import io.mivrel.model.FieldType;
import io.mivrel.money.Money;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Compares what rows below the data state, totals of columns and counts of rows, with the data. */
final class StatedTotals {
    private static final Pattern TOTAL = Pattern.compile("\\b(grand )?(total|totals|sum|summe)\\b");
    private static final Pattern COUNT =
            Pattern.compile("\\b(count|rows|records|lines|entries|items|transactions|payments|number of \\w+)\\b");
    private static final Pattern WHOLE = Pattern.compile("\\d{1,12}");

    private StatedTotals() {}

    /**
     * What each such row says.
     *
     * @param below the rows below the data
     * @param columns all columns, with the sums of the data
     * @param running a column whose figures do not add up by nature, such as a balance; {@code null} for none
     * @param currency of the amounts
     * @param dataRows rows of data
     */
    static List<Proof> proofs(
            Collection<Sample.Kept> below,
            List<ColumnSurvey> columns,
            @Nullable ColumnSurvey running,
            AmountFormat numbers,
            Currency currency,
            long dataRows) {
        List<Proof> proofs = new ArrayList<>();
        for (Sample.Kept row : below) {
            String words = String.join(" ", row.cells()).toLowerCase(Locale.ROOT);
            if (TOTAL.matcher(words).find()
                    && numbers.plusMark().isEmpty()
                    && numbers.minusMark().isEmpty()) {
                totals(row, columns, running, numbers, currency, proofs);
            }
            if (COUNT.matcher(words).find()) {
                count(row, dataRows, proofs);
            }
        }
        return proofs;
    }

    private static void totals(
            Sample.Kept row,
            List<ColumnSurvey> columns,
            @Nullable ColumnSurvey running,
            AmountFormat numbers,
            Currency currency,
            List<Proof> proofs) {
        List<String> agree = new ArrayList<>();
        for (ColumnSurvey column : columns) {
            String cell = column.place() <= row.cells().size() ? row.cells().get(column.place() - 1) : "";
            long stated = numbers.parse(cell);
            Long sum = column.sum(numbers);
            if (column == running
                    || column.type() != FieldType.AMOUNT
                    || !AmountFormat.isAmount(stated)
                    || sum == null) {
                continue;
            }
            if (stated == sum) {
                agree.add("'" + Proposal.column(column) + "'");
            } else {
                proofs.add(new Proof(
                        false,
                        "row " + row.number() + " states a total of " + Money.show(stated, currency) + " for '"
                                + Proposal.column(column) + "', but its rows add up to " + Money.show(sum, currency)));
            }
        }
        if (!agree.isEmpty()) {
            proofs.add(new Proof(
                    true,
                    "the totals stated in row " + row.number() + " agree: "
                            + (agree.size() <= 3
                                    ? String.join(", ", agree)
                                    : agree.get(0) + " and " + (agree.size() - 1) + " more columns")));
        }
    }

    // One whole number in the row, alone in its cell or among the words.
    private static void count(Sample.Kept row, long dataRows, List<Proof> proofs) {
        List<String> found = new ArrayList<>();
        for (String cell : row.cells()) {
            if (cell.matches("[^.,]*")) {
                Matcher number = WHOLE.matcher(cell);
                while (number.find()) {
                    found.add(number.group());
                }
            }
        }
        if (found.size() == 1) {
            long stated = Long.parseLong(found.get(0));
            proofs.add(new Proof(
                    stated == dataRows,
                    "the count stated in row " + row.number() + ", " + stated
                            + (stated == dataRows
                                    ? ", agrees"
                                    : String.format(Locale.ROOT, ", is not that of the data: %,d rows", dataRows))));
        }
    }
}
