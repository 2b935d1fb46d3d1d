package io.mivrel.intake;

import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.text.AmountFormat;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Reads the balances that a file states beside its rows, and adds up what its rows move. For one thread. */
final class StatedBalances {
    private final Stated labels;
    private final AmountFormat numbers;
    private long opening = SourceRecord.ABSENT;
    private long closing = SourceRecord.ABSENT;
    private long closingRow;
    private long movement;
    private boolean known = true;

    private final SourceFile file;

    StatedBalances(Stated labels, AmountFormat numbers, SourceFile file) {
        this.labels = labels;
        this.file = file;
        this.numbers = numbers.withBrackets().withTrailingMinus();
    }

    /** Looks at a row above or below the data. */
    void beside(Row row) {
        if (opening == SourceRecord.ABSENT) {
            opening = figure(row, labels.opening());
        }
        if (closing == SourceRecord.ABSENT) {
            closing = figure(row, labels.closing());
            closingRow = closing == SourceRecord.ABSENT ? 0 : row.number();
        }
    }

    private long figure(Row row, @Nullable String label) {
        if (label == null) {
            return SourceRecord.ABSENT;
        }
        for (int i = 0; i < row.size(); i++) {
            String cell = row.trimmed(i);
            if (!cell.startsWith(label)) {
                continue;
            }
            int colon = cell.indexOf(':', label.length() - 1);
            long here = colon < 0 ? SourceRecord.ABSENT : read(cell.substring(colon + 1));
            for (int next = i + 1; here == SourceRecord.ABSENT && next < row.size(); next++) {
                if (!row.trimmed(next).isEmpty()) {
                    here = read(row.trimmed(next));
                    break;
                }
            }
            return here;
        }
        return SourceRecord.ABSENT;
    }

    /** The balance that a row carries over; {@link SourceRecord#ABSENT} when it carries none. */
    long carried(Row row) {
        for (String label : labels.carried()) {
            long found = figure(row, label);
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
                return true;
            }
        }
        return false;
    }

    private long read(String text) {
        long value = numbers.parse(text);
        return !AmountFormat.isAmount(value) ? SourceRecord.ABSENT : labels.owed() ? -value : value;
    }

    /** Adds what a row moves; {@link SourceRecord#ABSENT} when it could not be read. */
    void add(long amount) {
        known &= amount != SourceRecord.ABSENT;
        movement += amount == SourceRecord.ABSENT ? 0 : amount;
    }

    /** The balance before the rows, or {@link SourceRecord#ABSENT}. */
    long opening() {
        return opening;
    }

    /**
     * Compares them with the rows, once all were read. A row that is there twice and explains the difference alone is noted
     * as its culprit, to be held by another pass.
     *
     * @param equal the lines that are equal to others; {@code null} when nothing looked for them
     * @param again true in the pass that holds culprits
     * @param failing gets what holds the file as a whole
     * @param others gets the rest
     */
    void compare(
            IntakeTally tally,
            @Nullable EqualLines equal,
            boolean again,
            Consumer<Finding> failing,
            Consumer<Finding> others) {
        boolean partial = tally.handedBack || tally.leftOut.containsKey(LeftOut.OUTSIDE_DATES);
        if (partial || tally.records == 0) {
            return;
        }
        BalanceProof running = tally.proof;
        if (running != null && running.steps() > 0) {
            compareWithRunning(running, failing);
        } else if (known && opening != SourceRecord.ABSENT && closing != SourceRecord.ABSENT) {
            compareWithSum(tally, equal, again, failing, others);
        }
    }

    // Where each row has its balance, the stated ones must be those of the first and the last.
    private void compareWithRunning(BalanceProof running, Consumer<Finding> failing) {
        if (closing != SourceRecord.ABSENT && closing != running.closing()) {
            failing.accept(closingDiffers("the lines lead to " + money(running.closing())));
        }
        if (opening != SourceRecord.ABSENT && opening != running.opening()) {
            failing.accept(new Finding(
                    Rule.BALANCE_CLOSING,
                    Origin.of(file.name(), 0),
                    "",
                    money(opening),
                    "the file states this opening balance, but the first line begins with " + money(running.opening()),
                    "is a line missing at its beginning?"));
        }
    }

    private void compareWithSum(
            IntakeTally tally,
            @Nullable EqualLines equal,
            boolean again,
            Consumer<Finding> failing,
            Consumer<Finding> others) {
        long off = opening + movement - closing;
        if (off == 0) {
            tally.proof = new BalanceProof(0, 0, opening, movement, closing, true);
            tally.spans.add(new StatementSpan(
                    "",
                    opening,
                    movement,
                    closing,
                    tally.coveredFrom().orElse(null),
                    tally.coveredTo().orElse(null)));
            return;
        }
        long twice = equal == null ? 0 : equal.rowOf(off);
        if (twice > 0) {
            tally.culprits.add(new Culprit(
                    twice,
                    Rule.BALANCE_CLOSING,
                    "",
                    money(closing),
                    "without this row, which is equal to another, the lines lead to the stated closing balance",
                    "it is probably there twice; take one out"));
        }
        // With the culprit held, the rest is what the file states.
        if (twice == 0 || !again) {
            (twice == 0 ? failing : others)
                    .accept(closingDiffers("the opening balance of " + money(opening) + " and the lines lead to "
                            + money(opening + movement)));
        }
    }

    private Finding closingDiffers(String leadsTo) {
        return new Finding(
                Rule.BALANCE_CLOSING,
                Origin.of(file.name(), closingRow),
                "",
                money(closing),
                leadsTo,
                "is the file cut off, a line missing or doubled, or an amount wrong?");
    }

    private String money(long minor) {
        return Money.show(minor, file.currency());
    }
}
