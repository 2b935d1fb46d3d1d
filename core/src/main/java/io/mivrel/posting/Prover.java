package io.mivrel.posting;

import io.mivrel.books.Account;
import io.mivrel.books.AccountType;
import io.mivrel.books.Books;
import io.mivrel.money.Money;
import io.mivrel.posting.BalanceChanges.Place;
import io.mivrel.posting.PostingLog.Sent;
import io.mivrel.posting.PostingLog.State;
import io.mivrel.posting.Proof.AccountLine;
import io.mivrel.posting.Proof.Difference;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * Proves a batch by asking the ledger: what stood on each account before, what the batch was to add, what the ledger says
 * that it added, what others added since, and what stands there now. For one thread.
 */
public final class Prover {
    static final int KEYS_A_CALL = 500;
    /** So many differences are told in full. */
    private static final int DIFFERENCES_KEPT = 50;

    private static final int DOCUMENTS_AT_A_TIME = 100_000;

    private final Ledger ledger;
    private final PostingLog log;
    private final RetryPolicy patience;

    public Prover(Ledger ledger, PostingLog log, RetryPolicy patience) {
        this.ledger = ledger;
        this.log = log;
        this.patience = patience;
    }

    /** Proves one batch as things stand now. */
    public Proof prove(PostingLog.Noted batch) throws IOException {
        return new Work(batch).prove();
    }

    private final class Work {
        private final PostingLog.Noted batch;
        private final String key;
        /** What should be there, and what the ledger has of the batch. */
        private final Tally posted = new Tally();

        private final Tally there = new Tally();
        private final List<Difference> differences = new ArrayList<>();
        /** Some of those that were there before, or were removed, until they are asked for together. */
        private final Map<String, Sent> before = new HashMap<>();

        private final List<Entry> removed = new ArrayList<>();
        private final Details details = new Details();
        private BalanceChanges own = new BalanceChanges();
        private BalanceChanges others = new BalanceChanges();
        private long posts;

        Work(PostingLog.Noted batch) {
            this.batch = batch;
            this.key = batch.batch().key();
        }

        Proof prove() throws IOException {
            try {
                log.documents(key, this::note);
                lookForThoseBefore();
                Map<Place, Long> after = balances();
                Books books = patience.repeat(ledger::books);
                lookIntoDifferences();
                tellDocuments();
                List<AccountLine> accounts = accounts(books, after);
                LedgerStatements statements = new LedgerStatements(ledger, log, patience);
                return new Proof(
                        batch,
                        accounts,
                        details.references(posts),
                        differences,
                        statements.closings(log.closings(key)),
                        statements.open(books),
                        log.waiting(key),
                        results(books));
            } catch (UncheckedIOException e) {
                throw e.getCause();
            }
        }

        private void note(Sent sent) {
            Answer answer = sent.answer();
            if (sent.state() != State.POSTED) {
                return;
            }
            posts++;
            if (answer == null || answer.result() != Answer.Result.THERE) {
                posted.add(sent.key(), sent.digest());
                return;
            }
            before.put(sent.key(), sent);
            if (before.size() == KEYS_A_CALL) {
                lookForThoseBefore();
            }
        }

        // Those that stood there before the batch are asked for by key.
        private void lookForThoseBefore() {
            Map<String, PostedEntry> found = unchecked(() -> patience.repeat(() -> ledger.find(before.keySet())));
            before.forEach((one, sent) -> {
                PostedEntry entry = found.get(one);
                if (entry == null) {
                    details.missing(one);
                } else if (!entry.entry().digest().equals(sent.digest())) {
                    details.changed(one, entry.entry());
                }
            });
            before.clear();
        }

        // What was recorded since, and the balances at the end of that.
        private Map<Place, Long> balances() throws IOException {
            Map<Place, Long> after = new TreeMap<>();
            long mark = -1;
            while (mark != patience.repeat(ledger::mark)) {
                mark = patience.repeat(ledger::mark);
                after.clear();
                for (Balance balance : patience.repeat(() -> ledger.balances(LocalDate.MAX))) {
                    String currency = balance.posted().currency().getCurrencyCode();
                    after.put(
                            new Place(balance.account(), currency),
                            balance.all().minor());
                }
                patience.repeat(() -> {
                    own = new BalanceChanges();
                    others = new BalanceChanges();
                    there.clear();
                    removed.clear();
                    ledger.entries(Ledger.Query.since(batch.mark()), this::take);
                    return true;
                });
                takeAway();
            }
            return after;
        }

        private void take(PostedEntry recorded) {
            Entry entry = recorded.entry();
            boolean isNew = recorded.recorded() > batch.mark();
            if (recorded.standing() == Standing.REMOVED) {
                if (!isNew) {
                    removed.add(entry);
                    if (removed.size() == KEYS_A_CALL) {
                        takeAway();
                    }
                }
                return;
            }
            if (isNew) {
                (key.equals(recorded.batch()) ? own : others).add(entry);
                if (isOwn(recorded)) {
                    there.add(entry.key(), entry.digest());
                }
            }
        }

        private boolean isOwn(PostedEntry recorded) {
            return key.equals(recorded.batch())
                    && recorded.recorded() > batch.mark()
                    && recorded.standing().isLive()
                    && recorded.reverses() == null;
        }

        // Entries of before that are gone: for the batch that replaced them, or by others.
        private void takeAway() {
            List<String> keys = removed.stream().map(Entry::key).toList();
            Map<String, Sent> known = unchecked(() -> log.documents(key, keys));
            for (Entry entry : removed) {
                Sent sent = known.get(entry.key());
                Answer answer = sent == null ? null : sent.answer();
                boolean replaced = sent != null
                        && (sent.state() == State.WITHDRAWN
                                || sent.state() == State.POSTED
                                        && answer != null
                                        && answer.result() == Answer.Result.REPLACED);
                (replaced ? own : others).subtract(entry);
            }
            removed.clear();
        }

        // Document by document, where the two sides differ; so many at a time as fit into memory.
        private void lookIntoDifferences() throws IOException {
            BitSet parts = new BitSet(Tally.PARTS);
            long documents = 0;
            for (int part = 0; part < Tally.PARTS; part++) {
                if (!posted.isLike(there, part)) {
                    parts.set(part);
                    documents += posted.count(part) + there.count(part);
                }
                boolean last = part == Tally.PARTS - 1;
                if (!parts.isEmpty() && (documents > DOCUMENTS_AT_A_TIME || last)) {
                    lookInto(parts);
                    parts.clear();
                    documents = 0;
                }
            }
        }

        private void lookInto(BitSet parts) throws IOException {
            Map<String, String> wanted = new HashMap<>();
            log.documents(key, sent -> {
                Answer answer = sent.answer();
                boolean sentHere =
                        sent.state() == State.POSTED && (answer == null || answer.result() != Answer.Result.THERE);
                if (sentHere && parts.get(Tally.part(sent.key()))) {
                    wanted.put(sent.key(), sent.digest());
                }
            });
            Details found = patience.repeat(() -> {
                Details some = new Details();
                Set<String> seen = new HashSet<>();
                ledger.entries(new Ledger.Query(batch.mark(), null, key), recorded -> {
                    Entry entry = recorded.entry();
                    if (isOwn(recorded) && parts.get(Tally.part(entry.key()))) {
                        String digest = wanted.get(entry.key());
                        if (digest == null) {
                            some.foreign(entry.title() + " (entry " + recorded.number() + ")");
                        } else if (!seen.add(entry.key())) {
                            some.doubled(entry.key());
                        } else if (!digest.equals(entry.digest())) {
                            some.changed(entry.key(), entry);
                        }
                    }
                });
                wanted.keySet().stream().filter(one -> !seen.contains(one)).forEach(some::missing);
                return some;
            });
            details.add(found);
        }

        private void tellDocuments() throws IOException {
            for (String title : details.foreign) {
                tell(new Difference(title + " stands in the batch and was never sent", "", "entered otherwise"));
            }
            if (details.isEmpty()) {
                return;
            }
            log.entries(key, (sent, old) -> {
                Entry entry = sent.entry();
                Entry changed = details.changed.get(entry.key());
                String at = sent.file() + " row " + sent.row();
                String amount = Money.show(entry.debit(), entry.currency());
                if (details.missing.contains(entry.key())) {
                    tell(new Difference(entry.title() + ", " + amount + ", is not in the ledger", at, "omitted"));
                } else if (details.doubled.contains(entry.key())) {
                    tell(new Difference(entry.title() + ", " + amount + ", stands there twice", at, "doubled"));
                } else if (changed != null) {
                    EntryComparison.Diagnosis diagnosis = EntryComparison.compare(entry, changed);
                    tell(new Difference(entry.title() + ": " + diagnosis.what(), at, diagnosis.likely()));
                }
            });
        }

        private void tell(Difference difference) {
            if (differences.size() < DIFFERENCES_KEPT) {
                differences.add(difference);
            }
        }

        private List<AccountLine> accounts(Books books, Map<Place, Long> after) throws IOException {
            Map<Place, Long> earlier = new HashMap<>();
            for (Balance balance : log.before(key)) {
                String currency = balance.posted().currency().getCurrencyCode();
                earlier.put(
                        new Place(balance.account(), currency), balance.all().minor());
            }
            BalanceChanges sent = log.effect(key);
            Set<Place> places = new TreeSet<>(after.keySet());
            places.addAll(earlier.keySet());
            places.addAll(sent.sides().keySet());
            places.addAll(own.sides().keySet());
            List<AccountLine> lines = new ArrayList<>();
            for (Place place : places) {
                AccountLine line = new AccountLine(
                        place,
                        books.account(place.account()),
                        earlier.getOrDefault(place, 0L),
                        sent.net(place),
                        own.net(place),
                        others.net(place),
                        after.getOrDefault(place, 0L));
                lines.add(line);
                if (!line.holds()) {
                    tell(unexplained(line));
                }
            }
            return lines;
        }

        private Difference unexplained(AccountLine line) {
            Currency currency = Currency.getInstance(line.place().currency());
            String account = "account " + line.place().account() + ": ";
            if (line.sent() != line.landed()) {
                String likely = EntryComparison.words(line.sent(), line.landed());
                return new Difference(
                        account + "the batch was to add " + Money.show(line.sent(), currency) + ", and the ledger has "
                                + Money.show(line.landed(), currency) + " of it",
                        "",
                        likely);
            }
            long reckoned = line.before() + line.landed() + line.others();
            return new Difference(
                    account + "before, batch and what others added make " + Money.show(reckoned, currency)
                            + ", and the ledger says " + Money.show(line.after(), currency),
                    "",
                    EntryComparison.words(reckoned, line.after()));
        }

        private List<Money> results(Books books) {
            Map<String, Long> byCurrency = new TreeMap<>();
            own.sides().forEach((place, sides) -> {
                Account account = books.account(place.account());
                boolean result = account != null
                        && (account.type() == AccountType.INCOME || account.type() == AccountType.EXPENSE);
                byCurrency.merge(place.currency(), result ? sides.net() : 0, Math::addExact);
            });
            return byCurrency.entrySet().stream()
                    .map(one -> new Money(one.getValue(), Currency.getInstance(one.getKey())))
                    .toList();
        }
    }

    /** What differs: all of it counted, the first ones by key. */
    private static final class Details {
        private final Set<String> missing = new TreeSet<>();
        private final Set<String> doubled = new TreeSet<>();
        private final Map<String, Entry> changed = new TreeMap<>();
        private final List<String> foreign = new ArrayList<>();
        private long missingOnes;
        private long doubledOnes;
        private long changedOnes;
        private long foreignOnes;

        void missing(String key) {
            missingOnes++;
            keep(missing, key);
        }

        void doubled(String key) {
            boolean again = doubled.contains(key);
            doubledOnes += again ? 0 : 1;
            keep(doubled, key);
        }

        void changed(String key, Entry there) {
            changedOnes++;
            if (changed.size() < DIFFERENCES_KEPT) {
                changed.put(key, there);
            }
        }

        void foreign(String title) {
            foreignOnes++;
            keep(foreign, title);
        }

        private static void keep(Collection<String> some, String one) {
            if (some.size() < DIFFERENCES_KEPT) {
                some.add(one);
            }
        }

        void add(Details more) {
            more.missing.forEach(one -> keep(missing, one));
            more.doubled.forEach(one -> keep(doubled, one));
            more.changed.forEach((one, entry) -> {
                if (changed.size() < DIFFERENCES_KEPT) {
                    changed.put(one, entry);
                }
            });
            more.foreign.forEach(one -> keep(foreign, one));
            missingOnes += more.missingOnes;
            doubledOnes += more.doubledOnes;
            changedOnes += more.changedOnes;
            foreignOnes += more.foreignOnes;
        }

        boolean isEmpty() {
            return missing.isEmpty() && doubled.isEmpty() && changed.isEmpty();
        }

        Proof.References references(long posts) {
            return new Proof.References(
                    posts, posts - missingOnes - changedOnes, missingOnes, changedOnes, doubledOnes, foreignOnes);
        }
    }

    /** A call within one that cannot throw it. */
    interface Unchecked<T> {
        T call() throws IOException;
    }

    static <T> T unchecked(Unchecked<T> call) {
        try {
            return call.call();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
