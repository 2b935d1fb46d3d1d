package io.mivrel.run;

import io.mivrel.books.Account;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Rule;
import io.mivrel.run.DocumentHistory.Earlier;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Knows transfers between accounts of the books: a bank line that is coded to another bank or card account. Its journal books
 * both accounts, so the line that the other account's statement has of it must not be booked again. For one thread.
 */
final class Transfers {
    /** The ends that this run books: of an account and the other with an amount. */
    private record Ends(String account, String other, long amount) {}

    private final Books books;
    private final DocumentHistory history;
    private final Map<Ends, List<Earlier>> booked = new HashMap<>();

    Transfers(Books books, DocumentHistory history) {
        this.books = books;
        this.history = history;
    }

    /** True for a bank or card account of the books. */
    boolean isOwn(@Nullable String account) {
        Account known = account == null ? null : books.account(account);
        return known != null && (known.use() == AccountUse.BANK || known.use() == AccountUse.CARD);
    }

    /** Why a line that is clear otherwise seems to be booked already; {@code null} when it does not. */
    @Nullable
    Finding judge(Document document) throws IOException {
        String account = document.records().block().source().account();
        List<Line> lines = document.lines();
        String other = document.kind().isOfAccount() && lines.size() == 1
                ? lines.get(0).account()
                : null;
        LocalDate date = document.date();
        if (account == null || other == null || date == null || other.equals(account) || !isOwn(other)) {
            return null;
        }
        long amount = lines.get(0).minor();
        List<Earlier> here = booked.computeIfAbsent(new Ends(other, account, -amount), e -> new ArrayList<>());
        Earlier end = here.stream()
                .filter(e -> Math.abs(e.day().toEpochDay() - date.toEpochDay()) <= DocumentHistory.NEAR_DAYS)
                .findFirst()
                .orElse(null);
        here.remove(end);
        end = end != null ? end : history.counterpart(other, -amount, date.toEpochDay());
        if (end == null) {
            booked.computeIfAbsent(new Ends(account, other, amount), e -> new ArrayList<>())
                    .add(new Earlier(
                            document.reference(),
                            document.origin().file(),
                            document.origin().row(),
                            date,
                            null));
            return null;
        }
        return new Finding(
                Rule.TRANSFER_BOOKED,
                document.origin(),
                document.kind().amount().name(),
                lines.get(0).amount() == null ? "" : String.valueOf(lines.get(0).amount()),
                "is coded to account " + other + ", of which a line with the opposite amount goes out or went out: "
                        + end + "; if that is the other end, coded to " + account
                        + ", its journal books both accounts",
                Rule.TRANSFER_BOOKED.remedy());
    }
}
