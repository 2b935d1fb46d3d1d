package io.mivrel.intake;

import io.mivrel.layout.Layout;
import io.mivrel.layout.Signs;
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
import io.mivrel.rows.RowOrder;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The balances that a file states, beside its lines and before and after them: proves the amounts, says what a broken step
 * probably comes from, and gives the amounts their sign where the layout says so. For one thread.
 */
final class RunningBalance {
    private final BalanceChain chain;
    private final Signs signs;
    private final RowOrder order;
    private final Field amountField;
    private final Field dateField;
    /** {@code null} when the rows have none. */
    private final @Nullable Field balanceField;

    private final SourceFile file;
    private final AmountFormat numbers;
    private final StatedFigures stated;
    private final RowProblems problems;
    private int cell = -1;
    private long closingBelow = SourceRecord.ABSENT;

    /** For records of an account. */
    RunningBalance(Layout layout, SourceFile file, AmountFormat numbers, StatedFigures stated, RowProblems problems) {
        Kind kind = layout.gives();
        this.signs = layout.signs();
        this.order = layout.format().order();
        this.chain = new BalanceChain(order, file.currency());
        this.amountField = kind.amount();
        this.dateField = kind.date();
        Field balance = kind.balance();
        this.balanceField = balance != null && layout.fields().containsKey(balance) ? balance : null;
        this.file = file;
        this.numbers = numbers;
        this.stated = stated;
        this.problems = problems;
    }

    /** Says in which cell of a row the balance of a field stands. */
    void standsIn(Field field, int place) {
        if (field == balanceField) {
            cell = place;
        }
    }

    /** Gives an amount its sign. The first row's comes from the balance before all rows, where the file states it. */
    void sign(RecordBlock record) {
        long amount = record.number(amountField);
        long balance = balanceField == null ? SourceRecord.ABSENT : record.number(balanceField);
        long before = chain.before() == SourceRecord.ABSENT ? stated.opening() : chain.before();
        if (amount == SourceRecord.ABSENT) {
            return;
        }
        if (amount < 0) {
            problems.add(
                    Rule.AMOUNT_NEGATIVE_ON_SIDE,
                    amountField.name(),
                    Money.show(amount, file.currency()),
                    "has a sign, where the balance gives the amounts theirs",
                    "");
        }
        if (amount < 0 && before != SourceRecord.ABSENT && balance > before) {
            problems.add(
                    Rule.AMOUNT_SIDE_UNKNOWN,
                    amountField.name(),
                    Money.show(amount, file.currency()),
                    "has a minus, but the balance rises by it, so one of the two is wrong",
                    "compare the row with its source");
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

    /** Turns the balance of a record where it is seen from the other side, and says what a missing amount must be. */
    void look(RecordBlock record) {
        if (balanceField == null) {
            return;
        }
        long balance = record.number(balanceField);
        if (balance != SourceRecord.ABSENT && signs.turnsBalances()) {
            balance = -balance;
            record.put(balanceField, balance);
        }
        if (record.number(amountField) == SourceRecord.ABSENT) {
            suggest(chain.impliedAmount(balance));
        }
    }

    /** Follows the step to a record; {@code counts} is false for one that is held or left out all the same. */
    void follow(RecordBlock record, long row, boolean counts) {
        chain.step(
                row,
                record.number(dateField),
                record.number(amountField),
                balanceField == null ? SourceRecord.ABSENT : record.number(balanceField),
                counts);
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
        chain.step(row, SourceRecord.ABSENT, SourceRecord.ABSENT, SourceRecord.ABSENT, false);
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
                closingBelow = asCounted(closing);
            }
        }
    }

    private long asCounted(long written) {
        return signs.turnsBalances() ? -written : written;
    }

    /**
     * Keeps in the tally what is proved; answers what is wrong with the file as a whole.
     *
     * @param rowBelow the first row below the data; 0 for none
     * @param equal the lines that are equal to others; {@code null} when nothing looked for them
     */
    List<Finding> finish(IntakeTally tally, long rowBelow, @Nullable EqualLines equal) {
        List<Finding> found = new ArrayList<>();
        long closing = stated.closing() != SourceRecord.ABSENT ? stated.closing() : closingBelow;
        chain.finish(stated.opening(), closing);
        long leadsTo = chain.contradictsClosing();
        long twice = leadsTo == SourceRecord.ABSENT || equal == null ? 0 : equal.rowOf(leadsTo - closing);
        if (twice > 0) {
            // With the culprit held, the rest is what the file states.
            tally.culprits.add(new BalanceFault(
                    twice,
                    Rule.BALANCE_CLOSING,
                    "",
                    show(closing),
                    "without this row, which is equal to another, the lines lead to the stated closing balance",
                    "it is probably there twice; take one out"));
        }
        if (leadsTo != SourceRecord.ABSENT && twice == 0) {
            boolean proved = !chain.hasBalances() && stated.provesBothSides();
            Finding differs = wrong(
                    Rule.BALANCE_CLOSING,
                    stated.closing() != SourceRecord.ABSENT ? stated.closingRow() : rowBelow,
                    show(closing),
                    "the lines lead to " + show(leadsTo),
                    "is the file cut off, a line missing or doubled, or an amount wrong?");
            found.add(proved ? differs.asCaution() : differs);
        }
        long begins = chain.contradictsOpening();
        if (begins != SourceRecord.ABSENT) {
            found.add(wrong(
                    Rule.BALANCE_CLOSING,
                    0,
                    show(stated.opening()),
                    "the file states this opening balance, but the first line begins with " + show(begins),
                    "is a line missing at its beginning?"));
        }
        if (chain.runsTheOtherWay()) {
            RowOrder other = order == RowOrder.OLDEST_FIRST ? RowOrder.NEWEST_FIRST : RowOrder.OLDEST_FIRST;
            found.add(wrong(
                    Rule.BALANCE_BROKEN,
                    0,
                    "",
                    "read the other way round the balances agree",
                    "say 'order: " + other.word() + "' in the layout"));
        } else if (chain.breaksEverywhere()) {
            found.add(wrong(
                    Rule.BALANCE_BROKEN,
                    0,
                    "",
                    chain.broken() + " of " + chain.steps() + " steps from balance to balance are broken",
                    "compare 'signs' and 'order' in the layout with the file"));
        }
        keep(tally);
        return found;
    }

    /** True when every sound row lies in a step that holds; once {@link #finish} was called. */
    boolean provesAll() {
        return chain.unproved().rows() == 0;
    }

    private void keep(IntakeTally tally) {
        tally.culprits.addAll(chain.culprits());
        tally.unproved = stated.withoutSums(chain.unproved());
        tally.proof = chain.proof().orElse(null);
        if (tally.proof != null) {
            tally.spans.add(new StatementSpan(
                    "",
                    tally.proof.opening(),
                    tally.proof.movement(),
                    // Rows behind the last balance may be in it or not.
                    chain.endsOpen() ? SourceRecord.ABSENT : tally.proof.closing(),
                    tally.coveredFrom().orElse(null),
                    tally.coveredTo().orElse(null)));
        }
    }

    private Finding wrong(Rule rule, long row, String value, String reason, String suggestion) {
        return new Finding(rule, Origin.of(file.name(), row), "", value, reason, suggestion);
    }

    private String show(long minor) {
        return Money.show(minor, file.currency());
    }
}
