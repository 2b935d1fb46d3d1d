package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Origin;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The balance that a file states beside each of its lines: proves the amounts, says what a broken step probably comes from,
 * and gives the amounts their sign where the layout says so. For one thread.
 */
final class RunningBalance {
    private final BalanceChain chain;
    private final Signs signs;
    private final boolean newestFirst;
    private final Field amountField;
    private final Field balanceField;
    private final SourceFile file;
    private final AmountFormat numbers;
    private final StatedBalances stated;
    private final RowProblems problems;
    private boolean blames = true;
    private int cell = -1;

    /** For a kind that has a balance. */
    RunningBalance(Layout layout, SourceFile file, AmountFormat numbers, StatedBalances stated, RowProblems problems) {
        Kind kind = layout.gives();
        this.signs = layout.signs();
        this.newestFirst = layout.format().newestFirst();
        this.chain = new BalanceChain(newestFirst, file.currency());
        this.amountField = kind.amount();
        this.balanceField = Objects.requireNonNull(kind.balance());
        this.file = file;
        this.numbers = numbers;
        this.stated = stated;
        this.problems = problems;
    }

    /** Blames no row for a broken step: an earlier pass has found who is to blame. */
    void blameNone() {
        blames = false;
    }

    /** Says in which cell of a row it stands. */
    void standsIn(int place) {
        cell = place;
    }

    /** Gives an amount its sign. The first row's comes from the balance before all rows, where the file states it. */
    void sign(RecordBlock record) {
        long amount = record.number(amountField);
        long balance = record.number(balanceField);
        long before = chain.before() == SourceRecord.ABSENT ? stated.opening() : chain.before();
        if (amount == SourceRecord.ABSENT) {
            return;
        }
        if (before != SourceRecord.ABSENT && balance != SourceRecord.ABSENT) {
            record.put(amountField, balance < before ? -Math.abs(amount) : Math.abs(amount));
            return;
        }
        record.put(amountField, SourceRecord.ABSENT);
        problems.add(
                Rule.AMOUNT_SIDE_UNKNOWN,
                amountField.name(),
                Money.show(amount, file.currency()),
                "no balance before this row tells whether it came in or went out",
                "write the amount with its sign, and see the statement before");
    }

    /** Compares the step to a record with its amount. */
    void follow(RecordBlock record, long row) {
        long amount = record.number(amountField);
        long balance = record.number(balanceField);
        if (balance != SourceRecord.ABSENT && signs == Signs.ALL_REVERSED) {
            balance = -balance;
            record.put(balanceField, balance);
        }
        if (amount == SourceRecord.ABSENT) {
            suggest(chain.impliedAmount(balance));
        }
        String broke = chain.step(amount, balance, row);
        // Who is to blame shows one row later, when the latest row comes first.
        if (broke != null && blames) {
            problems.add(
                    Rule.BALANCE_BROKEN,
                    balanceField.name(),
                    Money.show(balance, file.currency()),
                    broke,
                    chain.likelyCause());
        }
    }

    private void suggest(long implied) {
        if (implied != SourceRecord.ABSENT) {
            String words = "the running balance says " + Money.show(Math.abs(implied), file.currency())
                    + (implied < 0 ? " out" : " in");
            problems.suggestInstead(Rule.AMOUNT_UNREADABLE, words);
            problems.suggestInstead(Rule.AMOUNT_MISSING, words);
            problems.suggestInstead(Rule.AMOUNT_TOO_PRECISE, words);
        }
    }

    /** Passes over a row that could not be read: the row behind it cannot be judged and is not to be blamed. */
    void unread(long row) {
        chain.step(SourceRecord.ABSENT, SourceRecord.ABSENT, row);
    }

    /** Takes a balance carried over between two rows, as it is written; answers what is wrong, or {@code null}. */
    @Nullable
    String carried(long balance) {
        return chain.carried(asCounted(balance));
    }

    /** Takes the closing balance from the first row below the data, where it stands in its column. */
    void readClosing(Row row) {
        if (cell >= 0 && cell < row.size()) {
            long closing = numbers.parse(row.bytes(), row.start(cell), row.end(cell));
            if (AmountFormat.isAmount(closing)) {
                chain.stated(asCounted(closing));
            }
        }
    }

    private long asCounted(long written) {
        return signs == Signs.ALL_REVERSED ? -written : written;
    }

    /** Keeps in the tally what it proved; answers what is wrong with the file as a whole. */
    List<Finding> finish(IntakeTally tally, long rowBelow) {
        List<Finding> found = new ArrayList<>();
        long closing = chain.contradictedClosing();
        if (closing != SourceRecord.ABSENT) {
            found.add(new Finding(
                    Rule.BALANCE_CLOSING,
                    Origin.of(file.name(), rowBelow),
                    "",
                    Money.show(closing, file.currency()),
                    "the lines lead to " + Money.show(chain.closing(), file.currency()),
                    "is the file cut off, or a line missing at its end?"));
        }
        if (chain.runsTheOtherWay()) {
            found.add(new Finding(
                    Rule.BALANCE_BROKEN,
                    Origin.of(file.name(), 0),
                    "",
                    "",
                    "read the other way round the balances agree",
                    "say 'order: " + (newestFirst ? "oldest first" : "newest first") + "' in the layout"));
        }
        tally.culprits.addAll(chain.culprits());
        tally.proof = chain.proof().orElse(null);
        if (tally.proof != null) {
            tally.spans.add(new StatementSpan(
                    "",
                    tally.proof.opening(),
                    tally.proof.movement(),
                    tally.proof.closing(),
                    tally.coveredFrom().orElse(null),
                    tally.coveredTo().orElse(null)));
        }
        return found;
    }
}
