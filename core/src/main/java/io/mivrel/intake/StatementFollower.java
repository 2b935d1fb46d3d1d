package io.mivrel.intake;

import io.mivrel.books.Account;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Statement;
import io.mivrel.text.AmountFormat;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Follows the statements of one file: account and currency against the books, opening + movement = closing, control
 * totals, and each opening against the closing before it. For one thread.
 */
final class StatementFollower {
    private final String file;
    private @Nullable Account account;
    private boolean comparesCurrency;
    private final Currency currency;
    private final AmountFormat format;
    private final List<StatementSpan> spans = new ArrayList<>();
    private final Map<StatementSpan, String> accounts = new IdentityHashMap<>();
    private final List<Finding> findings = new ArrayList<>();
    private long earliest = Long.MAX_VALUE;
    private long earliestRow;
    private long latest = Long.MIN_VALUE;
    private long latestRow;
    private long credits;
    private long debits;
    private long creditEntries;
    private long debitEntries;
    private long unreadable;
    private long broken;
    private boolean accountUnchecked;
    /** Sound rows of the statement that is being read, and of all that nothing proves. */
    private Unproved here = Unproved.NONE;

    private Unproved unproved = Unproved.NONE;

    StatementFollower(String file, Currency currency) {
        this.file = file;
        this.currency = currency;
        this.format = AmountFormat.plain(Money.decimals(currency));
    }

    /** {@code known} is {@code null} when the books do not know the account; then its number is not compared. */
    void compareWith(@Nullable Account known) {
        account = known;
        comparesCurrency = true;
    }

    /** An entry of the statement; {@link SourceRecord#ABSENT} when its amount could not be read. Signs as in the file. */
    void entry(long amount, long day, long row) {
        if (day != SourceRecord.ABSENT && day < earliest) {
            earliest = day;
            earliestRow = row;
        }
        if (day != SourceRecord.ABSENT && day > latest) {
            latest = day;
            latestRow = row;
        }
        if (amount == SourceRecord.ABSENT) {
            unreadable++;
        } else if (amount < 0) {
            debits -= amount;
            debitEntries++;
        } else {
            credits += amount;
            creditEntries++;
        }
    }

    /** A record of the statement, as it will be delivered; {@code counts} is false for one that is held or left out. */
    void sound(long row, long amount, boolean counts) {
        if (counts) {
            here = here.and(row, amount);
        }
    }

    /** Sound rows that neither balances nor sums prove. */
    Unproved unproved() {
        return unproved.plus(here);
    }

    /** The statement of the entries since the last one has ended; answers what is wrong with it. */
    List<Finding> end(Statement statement) {
        findings.clear();
        whoseItIs(statement);
        long opening = balance(statement.opening(), "opening balance", statement);
        long closing = balance(statement.closing(), "closing balance", statement);
        long movement = credits - debits;
        if (opening != SourceRecord.ABSENT && closing != SourceRecord.ABSENT && opening + movement != closing) {
            broken++;
            wrong(
                    Rule.BALANCE_CLOSING,
                    statement,
                    show(closing),
                    "opening " + show(opening) + " + movement " + show(movement) + " = " + show(opening + movement)
                            + ", but the statement closes with " + show(closing),
                    unreadable > 0
                            ? "the entries that cannot be read must come to " + show(closing - opening - movement)
                            : "an entry of " + show(closing - opening - movement) + " is missing, or a sign is wrong");
        }
        totals(statement);
        days(statement);
        StatementSpan span = new StatementSpan(
                name(statement), opening, movement, closing, statement.openingDate(), statement.closingDate());
        spans.add(span);
        accounts.put(span, String.valueOf(statement.account()));
        boolean balanced = opening != SourceRecord.ABSENT && opening + movement == closing;
        boolean summed =
                statement.stated().credits() != null && statement.stated().debits() != null;
        unproved = unreadable == 0 && (balanced || summed) ? unproved : unproved.plus(here);
        here = Unproved.NONE;
        credits = 0;
        debits = 0;
        creditEntries = 0;
        debitEntries = 0;
        unreadable = 0;
        earliest = Long.MAX_VALUE;
        latest = Long.MIN_VALUE;
        return findings;
    }

    // An entry of another day belongs to another statement, or its date is wrong.
    private void days(Statement statement) {
        LocalDate from = statement.openingDate();
        LocalDate to = statement.closingDate();
        if (from != null && earliest < from.toEpochDay() - statement.leeway()) {
            outside(statement, earliest, earliestRow);
        }
        if (to != null && latest > to.toEpochDay() + statement.leeway()) {
            outside(statement, latest, latestRow);
        }
    }

    private void outside(Statement statement, long day, long row) {
        LocalDate date = LocalDate.ofEpochDay(day);
        findings.add(new Finding(
                Rule.ENTRY_OUTSIDE_STATEMENT,
                Origin.of(file, row),
                "date",
                date.toString(),
                "statement " + name(statement) + " goes from " + words(statement.openingDate()) + " to "
                        + words(statement.closingDate()),
                "compare the date with the statement on paper; ask the bank for a sound file"));
    }

    private static String words(@Nullable LocalDate date) {
        return date == null ? "an unknown day" : date.toString();
    }

    private void whoseItIs(Statement statement) {
        if (statement.currency() != null
                && comparesCurrency
                && !statement.currency().equals(currency.getCurrencyCode())) {
            wrong(
                    Rule.STATEMENT_CURRENCY,
                    statement,
                    statement.currency(),
                    "the account " + (account == null ? "" : account.label() + " ") + "is kept in " + currency,
                    "");
        }
        if (account == null || statement.account() == null) {
            return;
        }
        if (account.numbers().isEmpty()) {
            if (!accountUnchecked) {
                accountUnchecked = true;
                wrong(
                        Rule.STATEMENT_ACCOUNT_UNCHECKED,
                        statement,
                        statement.account(),
                        "the account " + account.label() + " has no number in the books",
                        "");
            }
        } else if (!account.hasNumber(statement.account(), statement.currency())) {
            wrong(
                    Rule.STATEMENT_ACCOUNT,
                    statement,
                    statement.account(),
                    "the account " + account.label() + " has the number " + String.join(" or ", account.numbers()),
                    "");
        }
    }

    private long balance(@Nullable String text, String what, Statement statement) {
        if (text == null) {
            return SourceRecord.ABSENT;
        }
        long amount = format.parse(text);
        if (AmountFormat.isAmount(amount)) {
            return amount;
        }
        wrong(Rule.AMOUNT_UNREADABLE, statement, text, "the " + what + " is not an amount", "");
        return SourceRecord.ABSENT;
    }

    private void totals(Statement statement) {
        Statement.Totals stated = statement.stated();
        count(statement, "entries", stated.entries(), creditEntries + debitEntries + unreadable);
        if (unreadable == 0) {
            count(statement, "entries in", stated.creditEntries(), creditEntries);
            count(statement, "entries out", stated.debitEntries(), debitEntries);
            sum(statement, "sum in", stated.credits(), credits);
            sum(statement, "sum out", stated.debits(), debits);
        }
    }

    private void count(Statement statement, String what, long stated, long found) {
        if (stated >= 0 && stated != found) {
            wrong(
                    Rule.CONTROL_TOTAL_DIFFERS,
                    statement,
                    Long.toString(stated),
                    "the statement says " + stated + " " + what + ", but there are " + found,
                    "");
        }
    }

    private void sum(Statement statement, String what, @Nullable String stated, long found) {
        long amount = balance(stated, what, statement);
        if (stated != null && amount != SourceRecord.ABSENT && amount != found) {
            wrong(
                    Rule.CONTROL_TOTAL_DIFFERS,
                    statement,
                    stated,
                    "the statement says a " + what + " of " + show(amount) + ", but the entries come to " + show(found),
                    "");
        }
    }

    /** The file has ended: answers where one statement does not follow on from another. */
    List<Finding> finish() {
        findings.clear();
        if (spans.stream().allMatch(s -> s.from() != null)) {
            // Some banks put the latest statement first.
            spans.sort(Comparator.comparing(StatementSpan::from));
            spans.sort(Comparator.comparing(span -> String.valueOf(accounts.get(span))));
        }
        for (int i = 1; i < spans.size(); i++) {
            StatementSpan before = spans.get(i - 1);
            StatementSpan span = spans.get(i);
            if (Objects.equals(accounts.get(before), accounts.get(span))
                    && span.opening() != SourceRecord.ABSENT
                    && before.closing() != SourceRecord.ABSENT
                    && span.opening() != before.closing()) {
                broken++;
                findings.add(new Finding(
                        Rule.STATEMENT_GAP,
                        Origin.of(file, 0),
                        "",
                        show(span.opening()),
                        "statement " + span.name() + " opens with " + show(span.opening()) + ", but statement "
                                + before.name() + " before it closed with " + show(before.closing()),
                        ""));
            }
        }
        return findings;
    }

    private void wrong(Rule rule, Statement statement, String value, String reason, String suggestion) {
        String about = "statement " + name(statement) + ": ";
        findings.add(new Finding(rule, Origin.of(file, 0), "", value, about + reason, suggestion));
    }

    private String name(Statement statement) {
        return statement.name() == null ? String.valueOf(spans.size() + 1) : statement.name();
    }

    private String show(long minor) {
        return Money.show(minor, currency);
    }

    List<StatementSpan> spans() {
        return spans;
    }

    /** Opening of the first + movement of all = closing of the last; empty when one is not known, or of several accounts. */
    Optional<BalanceProof> proof() {
        if (spans.isEmpty() || accounts.values().stream().distinct().count() > 1) {
            return Optional.empty();
        }
        long opening = spans.get(0).opening();
        long closing = spans.get(spans.size() - 1).closing();
        long movement = spans.stream().mapToLong(StatementSpan::movement).sum();
        return opening == SourceRecord.ABSENT || closing == SourceRecord.ABSENT
                ? Optional.empty()
                : Optional.of(new BalanceProof(0, broken, opening, movement, closing, true));
    }
}
