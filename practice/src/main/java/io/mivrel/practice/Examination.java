package io.mivrel.practice;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.Books;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/** What the practice ledger refuses, whatever it holds already; the database would refuse most of it too. */
final class Examination {
    private final Books books;
    private final Abilities limits;

    Examination(Books books, Abilities limits) {
        this.books = books;
        this.limits = limits;
    }

    /** The first refusal of an entry; {@code null} when there is none. */
    @Nullable
    Answer refuse(Entry entry) {
        String key = entry.key();
        if (!entry.isWhole()) {
            return Refusal.NOT_WHOLE.to(key, entry.digest(), 0);
        }
        if (entry.lines().size() > limits.linesAtMost()) {
            return Refusal.LINES_MANY.to(key, entry.lines().size() + " > " + limits.linesAtMost(), 0);
        }
        if (entry.reference().length() > limits.referenceAtMost()) {
            return Refusal.TEXT_LONG.to(key, "reference, " + over(entry.reference(), limits.referenceAtMost()), 0);
        }
        if (!entry.currency().equals(books.currency())) {
            return Refusal.CURRENCY.to(key, entry.currency().getCurrencyCode(), 0);
        }
        if (isClosed(entry.date())) {
            return Refusal.PERIOD_CLOSED.to(key, entry.date().toString(), 0);
        }
        int place = 0;
        for (EntryLine line : entry.lines()) {
            Answer refused = refuse(key, line, ++place);
            if (refused != null) {
                return refused;
            }
        }
        return entry.lines().isEmpty() || entry.difference() != 0
                ? Refusal.UNBALANCED.to(
                        key,
                        entry.lines().isEmpty()
                                ? "no line"
                                : io.mivrel.money.Money.show(entry.difference(), entry.currency()),
                        0)
                : null;
    }

    boolean isClosed(LocalDate day) {
        return books.period(day).filter(io.mivrel.books.Period::isOpen).isEmpty();
    }

    private @Nullable Answer refuse(String key, EntryLine line, int place) {
        Answer refused = refuseAccount(key, line, place);
        Account account = books.account(line.account());
        if (refused != null || account == null) {
            return refused;
        }
        if (account.isControl() && line.party() == null) {
            return Refusal.ACCOUNT_CONTROL.to(key, line.account(), place);
        }
        if (line.party() != null && books.party(line.party()) == null) {
            return Refusal.PARTY_UNKNOWN.to(key, line.party(), place);
        }
        if (line.taxCode() != null && books.taxCode(line.taxCode()) == null) {
            return Refusal.TAX_CODE_UNKNOWN.to(key, line.taxCode(), place);
        }
        return line.narrative().length() > limits.textAtMost()
                ? Refusal.TEXT_LONG.to(key, over(line.narrative(), limits.textAtMost()), place)
                : null;
    }

    @Nullable
    Answer refuseAccount(String key, EntryLine line, int place) {
        Account account = books.account(line.account());
        if (account == null) {
            return Refusal.ACCOUNT_UNKNOWN.to(key, line.account(), place);
        }
        // What is reserved for documents takes their lines, which name a party.
        boolean ofDocument = account.status() == AccountStatus.RESERVED && account.isControl() && line.party() != null;
        return account.status() == AccountStatus.OPEN || ofDocument
                ? null
                : Refusal.ACCOUNT_CLOSED.to(key, line.account(), place);
    }

    private static String over(String text, int most) {
        return text.length() + " > " + most;
    }
}
