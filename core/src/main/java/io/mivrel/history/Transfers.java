package io.mivrel.history;

import io.mivrel.books.Account;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.history.DocumentHistory.Earlier;
import io.mivrel.intake.Input;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.Posting;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Knows transfers between accounts of the books: a bank line that is coded to another bank or card account. Where the books
 * have an account for transfers, both ends go through it, each with its own statement, and an end whose other has not come is
 * told. Where they have none, the journal of one end books both accounts, and the other end must not be booked again. For one
 * thread.
 */
public final class Transfers {
    /** The ends that this run books: of an account and the other with an amount. */
    private record Ends(String account, String other, long amount) {}

    /** An end that goes through the account for transfers. */
    private record End(Earlier line, Origin origin, String amount) {}

    private final Books books;
    private final DocumentHistory history;
    /** The account for transfers; {@code null} where the books have none. */
    private final @Nullable String through;
    /** The bank and card accounts of the books. */
    private final Set<String> own;
    /** Accounts that this run takes in, whose lines may still come. */
    private final Set<String> taken = new HashSet<>();

    private final Map<Ends, List<End>> booked = new HashMap<>();

    public Transfers(Books books, DocumentHistory history, List<Input> inputs) {
        this.books = books;
        this.history = history;
        this.own = books.accounts().stream()
                .filter(Account::holdsMoney)
                .map(Account::code)
                .collect(Collectors.toSet());
        this.through = books.accountFor(AccountUse.TRANSFER).map(Account::code).orElse(null);
        for (Input input : inputs) {
            if (input.layout().account() != null) {
                taken.add(input.layout().account());
            }
        }
    }

    /** True for a bank or card account of the books. */
    public boolean isOwn(@Nullable String account) {
        return account != null && own.contains(account);
    }

    /** The document of an end led through the account for transfers, where there is one; else the document itself. */
    public Document led(Document document, @Nullable Coding coding, Drafter drafter) {
        String account = document.records().block().source().account();
        boolean isEnd = document.kind().isOfAccount()
                && document.lines().stream().anyMatch(line -> isEnd(line.account(), account));
        if (through == null || !isEnd) {
            return document;
        }
        Line line = document.lines().get(0);
        Posting asRead = Posting.whole(through, line.taxCode(), line.party());
        for (Field dimension : document.kind().dimensions()) {
            asRead = asRead.with(dimension.name(), line.text(dimension));
        }
        List<Posting> postings = coding == null
                ? List.of(asRead)
                : coding.postings().stream()
                        .map(posting -> isEnd(posting.account(), account) ? posting.to(through) : posting)
                        .toList();
        Coding led = new Coding(
                coding == null ? null : coding.entry(), coding == null ? null : coding.narrative(), postings);
        return drafter.draft(document.records(), led, toldBefore -> {});
    }

    private boolean isEnd(@Nullable String other, @Nullable String account) {
        return other != null && !other.equals(account) && isOwn(other);
    }

    /**
     * Why a line that is clear otherwise is held: its transfer seems to be booked already, or its other end did not come with
     * the statement of the other account; {@code null} when it is not. To be asked before it is {@linkplain #led led}.
     */
    @Nullable
    public Finding judge(Document document) throws IOException {
        String account = document.records().block().source().account();
        LocalDate date = document.date();
        if (account != null && date != null && document.kind().isOfAccount()) {
            for (Line line : document.lines()) {
                String other = line.account();
                Finding found =
                        other != null && isEnd(other, account) ? judge(document, line, account, other, date) : null;
                if (found != null) {
                    return found;
                }
            }
        }
        return null;
    }

    // Of a line that is split, one part may be an end.
    private @Nullable Finding judge(Document document, Line part, String account, String other, LocalDate date)
            throws IOException {
        long amount = part.minor();
        List<End> here = booked.computeIfAbsent(new Ends(other, account, -amount), e -> new ArrayList<>());
        End met = here.stream()
                .filter(e -> Math.abs(e.line.day().toEpochDay() - date.toEpochDay()) <= DocumentHistory.NEAR_DAYS)
                .findFirst()
                .orElse(null);
        here.remove(met);
        Earlier end = met != null
                ? met.line
                : history.counterpart(
                        other,
                        -amount,
                        date.toEpochDay(),
                        document.kind().identity().identity(document.records()));
        String shown = part.amount() == null ? "" : String.valueOf(part.amount());
        if (end != null) {
            return through == null ? bookedAlready(document, account, other, shown, end) : null;
        }
        long day = date.toEpochDay();
        boolean late = through != null
                && !taken.contains(other)
                && history.covers(other, day, day + DocumentHistory.NEAR_DAYS);
        Earlier line = new Earlier(
                document.reference(),
                document.origin().file(),
                document.origin().row(),
                date,
                null);
        if (late) {
            return open(document.origin(), shown, other, Severity.BLOCKER);
        }
        booked.computeIfAbsent(new Ends(account, other, amount), e -> new ArrayList<>())
                .add(new End(line, document.origin(), shown));
        return null;
    }

    /** All lines have come: the ends whose other did not. */
    public List<Finding> open() {
        List<Finding> found = new ArrayList<>();
        if (through != null) {
            booked.forEach((ends, all) ->
                    all.forEach(end -> found.add(open(end.origin, end.amount, ends.other, Severity.CAUTION))));
        }
        return found;
    }

    private Finding open(Origin origin, String amount, String other, Severity severity) {
        return new Finding(
                Rule.TRANSFER_OPEN,
                severity,
                origin,
                "amount",
                amount,
                "goes through " + through + " to or from account " + other
                        + (severity == Severity.BLOCKER
                                ? ", whose statement of these days was delivered and has no line that answers it within "
                                        + DocumentHistory.NEAR_DAYS + " days"
                                : ", of which no line within " + DocumentHistory.NEAR_DAYS + " days answers it yet"),
                Rule.TRANSFER_OPEN.remedy());
    }

    private static Finding bookedAlready(Document document, String account, String other, String amount, Earlier end) {
        return new Finding(
                Rule.TRANSFER_BOOKED,
                document.origin(),
                document.kind().amount().name(),
                amount,
                "is coded to account " + other + ", of which a line with the opposite amount goes out or went out: "
                        + end + "; if that is the other end, coded to " + account
                        + ", its journal books both accounts",
                Rule.TRANSFER_BOOKED.remedy());
    }
}
