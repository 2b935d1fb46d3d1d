package io.mivrel.examples;

import io.mivrel.Mivrel;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.money.Money;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.Balance;
import io.mivrel.posting.BalanceChanges;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.LedgerPlace;
import io.mivrel.posting.LedgerProvider;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import io.mivrel.report.SummaryText;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;

/**
 * A ledger of one's own in about a hundred lines: it keeps drafts in memory, and cannot replace. {@code docs/ledgers.md} says
 * what must hold, and {@code OwnLedgerTest} lets the test kit tell whether it does.
 */
public final class OwnLedgerExample implements Ledger {
    private final Books books;
    private final List<PostedEntry> recorded = new ArrayList<>();
    private final Set<String> sealed = new HashSet<>();
    private long mark;

    /**
     * By this, and its name in {@code META-INF/services}, the command opens such a ledger: {@code kind: memory}, and its books
     * under {@code with}.
     */
    public static final class Provider implements LedgerProvider {
        @Override
        public String kind() {
            return "memory";
        }

        @Override
        public Ledger open(LedgerPlace place) throws LedgerException {
            String folder = place.own().getOrDefault("books", "books");
            try {
                return new OwnLedgerExample(BooksFolder.read(Path.of(folder)));
            } catch (SettingsException e) {
                throw new LedgerException(LedgerException.Kind.REFUSED, folder + ": " + e.getMessage(), e);
            }
        }
    }

    /** Posts the demo's journals to such a ledger, proves them, and takes them back. */
    public static void main(String[] args) throws Exception {
        Path folder = DemoData.unpackFor(args, "own-ledger-example");
        Mivrel run = Mivrel.open(folder.resolve("ledger.yaml"));
        try (OwnLedgerExample ledger = new OwnLedgerExample(BooksFolder.read(folder.resolve("books")))) {
            System.out.println(run.postTo(ledger).post().summary(SummaryText.Style.PLAIN));
            var taken = run.postTo(ledger).withdraw(null, List.of());
            System.out.println("all taken back: "
                    + ledger.balances(LocalDate.of(2027, 12, 31)).size() + " accounts have a balance, and the proof "
                    + (taken.proof().holds() ? "holds" : "does not hold"));
        }
    }

    public OwnLedgerExample(Books books) {
        this.books = books;
    }

    @Override
    public String name() {
        return "own";
    }

    @Override
    public Abilities abilities() {
        return new Abilities(true, false, false, true, true, false, Set.of(), 1_000, 500, 200, 40);
    }

    @Override
    public Books books() {
        return books;
    }

    @Override
    public void create(List<Party> parties) {
        throw new UnsupportedOperationException("see the abilities");
    }

    @Override
    public List<Answer> post(Batch batch, PostMode mode, List<Entry> entries) {
        List<Answer> answers = new ArrayList<>();
        for (Entry entry : entries) {
            Answer answer = decide(batch, mode, entry);
            if (answer.result() == Result.ADDED) {
                mark++;
                String number = Integer.toString(recorded.size());
                recorded.add(new PostedEntry(entry, number, batch.key(), Standing.DRAFT, mark, 0, null));
                answer = Answer.of(entry.key(), Result.ADDED, number);
            }
            answers.add(answer);
        }
        return answers;
    }

    @Override
    public List<Answer> rehearse(Batch batch, PostMode mode, List<Entry> entries) {
        return entries.stream().map(entry -> decide(batch, mode, entry)).toList();
    }

    private Answer decide(Batch batch, PostMode mode, Entry entry) {
        PostedEntry there = find(List.of(entry.key())).get(entry.key());
        if (there != null) {
            boolean same = there.entry().digest().equals(entry.digest());
            Result other = mode == PostMode.SKIP_EXISTING ? Result.SKIPPED : Result.DIFFERS;
            return Answer.of(entry.key(), same ? Result.THERE : other, there.number());
        }
        boolean closed = books.period(entry.date()).filter(Period::isOpen).isEmpty();
        if (closed || sealed.contains(batch.key()) || entry.difference() != 0) {
            return Answer.refused(entry.key(), "NO", closed ? "period" : "batch or balance", 0);
        }
        for (EntryLine line : entry.lines()) {
            var account = books.account(line.account());
            if (account == null || account.status() != AccountStatus.OPEN) {
                return Answer.refused(entry.key(), "NO", "account " + line.account(), 0);
            }
        }
        return Answer.of(entry.key(), Result.ADDED, null);
    }

    @Override
    public Map<String, PostedEntry> find(Collection<String> keys) {
        Map<String, PostedEntry> found = new HashMap<>();
        for (PostedEntry entry : recorded) {
            if (entry.standing().isLive() && keys.contains(entry.entry().key())) {
                found.put(entry.entry().key(), entry);
            }
        }
        return found;
    }

    @Override
    public List<Answer> makeFinal(String batch) {
        throw new UnsupportedOperationException("see the abilities");
    }

    @Override
    public void seal(String batch) {
        sealed.add(batch);
    }

    @Override
    public List<Answer> withdraw(String batch, Collection<String> keys, LocalDate day) {
        mark++;
        recorded.replaceAll(entry -> batch.equals(entry.batch())
                        && entry.standing() == Standing.DRAFT
                        && keys.contains(entry.entry().key())
                ? new PostedEntry(entry.entry(), entry.number(), batch, Standing.REMOVED, entry.recorded(), mark, null)
                : entry);
        return keys.stream().map(key -> Answer.of(key, Result.REMOVED, null)).toList();
    }

    @Override
    public List<Balance> balances(LocalDate day) {
        BalanceChanges sums = new BalanceChanges();
        recorded.stream()
                .filter(entry -> entry.standing() == Standing.DRAFT
                        && !entry.entry().date().isAfter(day))
                .forEach(entry -> sums.add(entry.entry()));
        List<Balance> balances = new ArrayList<>();
        sums.sides().forEach((place, sides) -> {
            Money drafts = place.money(sides.net());
            balances.add(new Balance(place.account(), new Money(0, drafts.currency()), drafts));
        });
        return balances;
    }

    @Override
    public long mark() {
        return mark;
    }

    @Override
    public void entries(Query query, Consumer<PostedEntry> target) {
        for (PostedEntry entry : recorded) {
            boolean wanted = query.since() < 0
                    ? entry.standing().isLive()
                    : entry.recorded() > query.since() || entry.removed() > query.since();
            boolean on = query.account() == null
                    || entry.entry().lines().stream()
                            .anyMatch(line -> line.account().equals(query.account()));
            if (wanted && on && (query.batch() == null || query.batch().equals(entry.batch()))) {
                target.accept(entry);
            }
        }
    }

    @Override
    public void close() {
        // There is nothing to close.
    }
}
