package io.mivrel.intake;

import io.mivrel.layout.FigureLabels;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Reads the figures that a file states beside its rows, and compares its sums and its count with them. For one thread. */
final class StatedFigures {
    /** A figure, and the row where it stands; {@link SourceRecord#ABSENT} and 0 until it was found. */
    private static final class Figure {
        private final @Nullable String label;
        private long value = SourceRecord.ABSENT;
        private long row;

        Figure(@Nullable String label) {
            this.label = label;
        }

        boolean isMissing() {
            return label != null && value == SourceRecord.ABSENT;
        }
    }

    private static final AmountFormat WHOLE = AmountFormat.plain(0);

    private final FigureLabels labels;
    private final AmountFormat numbers;
    private final SourceFile file;
    private final Figure opening;
    private final Figure closing;
    private final Figure moneyIn;
    private final Figure moneyOut;
    private final Figure count;
    private long in;
    private long out;
    private long rows;
    private boolean known = true;
    private boolean anyTotal;

    StatedFigures(FigureLabels labels, AmountFormat numbers, SourceFile file) {
        this.labels = labels;
        this.file = file;
        this.numbers = numbers.withBrackets().withTrailingMinus();
        this.opening = new Figure(labels.opening());
        this.closing = new Figure(labels.closing());
        this.moneyIn = new Figure(labels.moneyIn());
        this.moneyOut = new Figure(labels.moneyOut());
        this.count = new Figure(labels.count());
    }

    /** Looks at a row that is no data. */
    void beside(Row row) {
        boolean taken = take(opening, row, false, numbers);
        if (!taken || !String.valueOf(opening.label).equals(closing.label)) {
            // The same label may stand before the rows and behind them: the last one closes.
            take(closing, row, true, numbers);
        }
        take(moneyIn, row, false, numbers);
        take(moneyOut, row, false, numbers);
        take(count, row, false, WHOLE);
    }

    private boolean take(Figure figure, Row row, boolean last, AmountFormat form) {
        if (figure.label == null || figure.value != SourceRecord.ABSENT && !last) {
            return false;
        }
        long value = figure(row, figure.label, form);
        if (value == SourceRecord.ABSENT) {
            return false;
        }
        figure.value = value;
        figure.row = row.number();
        return true;
    }

    private static long figure(Row row, String label, AmountFormat form) {
        for (int i = 0; i < row.size(); i++) {
            String cell = row.trimmed(i);
            if (form == WHOLE && cell.endsWith(label)) {
                cell = label + ": " + cell.substring(0, cell.length() - label.length());
            }
            if (!cell.startsWith(label)) {
                continue;
            }
            String rest = cell.substring(label.length());
            long here = read(rest.substring(rest.lastIndexOf(':') + 1), form);
            for (int next = i + 1; here == SourceRecord.ABSENT && next < row.size(); next++) {
                here = read(row.trimmed(next), form);
            }
            // A day or a currency may stand between the label and its figure.
            String text = rest.strip();
            here = here == SourceRecord.ABSENT ? read(text.substring(text.lastIndexOf(' ') + 1), form) : here;
            if (here != SourceRecord.ABSENT) {
                return here;
            }
        }
        return SourceRecord.ABSENT;
    }

    private static long read(String text, AmountFormat form) {
        long value = form.parse(text.strip());
        return AmountFormat.isAmount(value) ? value : SourceRecord.ABSENT;
    }

    /** The balance that a row carries over; {@link SourceRecord#ABSENT} when it carries none. */
    long carried(Row row) {
        for (String label : labels.carried()) {
            long found = asCounted(figure(row, label, numbers));
            if (found != SourceRecord.ABSENT) {
                return found;
            }
        }
        return SourceRecord.ABSENT;
    }

    /** True for a row that adds up those above it. */
    boolean isTotal(Row row) {
        for (int i = 0; i < row.size() && !labels.totals().isEmpty(); i++) {
            String cell = row.trimmed(i);
            if (labels.totals().stream().anyMatch(cell::startsWith)) {
                anyTotal = true;
                return true;
            }
        }
        return false;
    }

    private long asCounted(long written) {
        return written != SourceRecord.ABSENT && labels.owed() ? -written : written;
    }

    /** Adds what a row moves; {@link SourceRecord#ABSENT} when it could not be read. */
    void add(long amount) {
        rows++;
        known &= amount != SourceRecord.ABSENT;
        if (amount != SourceRecord.ABSENT) {
            in = Math.addExact(in, Math.max(amount, 0));
            out = Math.addExact(out, Math.max(-amount, 0));
        }
    }

    /** The balance before the rows, or {@link SourceRecord#ABSENT}. */
    long opening() {
        return asCounted(opening.value);
    }

    /** The balance after the rows, or {@link SourceRecord#ABSENT}. */
    long closing() {
        return asCounted(closing.value);
    }

    /** The row of the closing balance; 0 when there is none. */
    long closingRow() {
        return closing.row;
    }

    /** Of rows that no balance proves, those that no stated sum proves either. */
    Unproved withoutSums(Unproved left) {
        boolean inAgrees = known && moneyIn.value != SourceRecord.ABSENT && Math.abs(moneyIn.value) == in;
        boolean outAgrees = known && moneyOut.value != SourceRecord.ABSENT && Math.abs(moneyOut.value) == out;
        return (inAgrees || left.in() == 0) && (outAgrees || left.out() == 0) && (inAgrees || outAgrees)
                ? Unproved.NONE
                : left;
    }

    /**
     * Compares sums and count with the rows, once all were read, and tells of labels that are not there any more.
     *
     * @param agreeing takes the labels of those that agree
     * @param proved true when balances prove every row, so that a sum that differs is wrong itself
     */
    void compare(boolean proved, Consumer<Finding> failing, List<String> agreeing) {
        sum(moneyIn, in, "in", proved, failing);
        sum(moneyOut, out, "out", proved, failing);
        agree(moneyIn, in, agreeing);
        agree(moneyOut, out, agreeing);
        agree(count, rows, agreeing);
        if (count.value != SourceRecord.ABSENT && count.value != rows) {
            failing.accept(finding(
                    Rule.CONTROL_TOTAL_DIFFERS,
                    count,
                    Long.toString(count.value),
                    "the file states so many movements, but " + rows + " were read",
                    Rule.CONTROL_TOTAL_DIFFERS.remedy()));
        }
        List<Figure> expected = new ArrayList<>(List.of(opening, closing, moneyIn, moneyOut, count));
        if (!anyTotal && !proved && !labels.totals().isEmpty()) {
            expected.add(new Figure(labels.totals().get(0)));
        }
        for (Figure figure : expected) {
            if (figure.isMissing()) {
                failing.accept(finding(
                        Rule.STATED_MISSING,
                        figure,
                        String.valueOf(figure.label),
                        "the layout names this figure beside the rows, and the file does not state it",
                        Rule.STATED_MISSING.remedy()));
            }
        }
    }

    private void agree(Figure figure, long sum, List<String> agreeing) {
        if (known && figure.label != null && Math.abs(figure.value) == sum) {
            agreeing.add(figure.label);
        }
    }

    /** True when the sums of both sides agree with the rows. */
    boolean provesBothSides() {
        return known
                && moneyIn.value != SourceRecord.ABSENT
                && Math.abs(moneyIn.value) == in
                && moneyOut.value != SourceRecord.ABSENT
                && Math.abs(moneyOut.value) == out;
    }

    private void sum(Figure figure, long sum, String side, boolean proved, Consumer<Finding> failing) {
        if (known && figure.value != SourceRecord.ABSENT && Math.abs(figure.value) != sum) {
            String stated = Money.show(Math.abs(figure.value), file.currency());
            Finding differs = finding(
                    Rule.CONTROL_TOTAL_DIFFERS,
                    figure,
                    stated,
                    "the file states " + stated + " " + side + " in all, but its rows come to "
                            + Money.show(sum, file.currency()),
                    Rule.CONTROL_TOTAL_DIFFERS.remedy());
            failing.accept(proved ? differs.asCaution() : differs);
        }
    }

    private Finding finding(Rule rule, Figure figure, String value, String reason, String suggestion) {
        return new Finding(rule, Origin.of(file.name(), figure.row), "", value, reason, suggestion);
    }
}
