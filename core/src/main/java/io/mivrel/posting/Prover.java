package io.mivrel.posting;

import io.mivrel.books.Account;
import io.mivrel.books.AccountType;
import io.mivrel.books.Books;
import io.mivrel.money.Money;
import io.mivrel.posting.Effect.Place;
import io.mivrel.posting.PostingLog.Sent;
import io.mivrel.posting.PostingLog.State;
import io.mivrel.posting.Proof.AccountLine;
import io.mivrel.posting.Proof.Difference;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.Comparator;
import java.util.Currency;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * Proves a batch by asking the ledger: what stood on each account before, what the batch was to add, what the ledger says
 * that it added, what others added since, and what stands there now. For one thread.
 */
public final class Prover {
    private static final int KEYS_A_CALL = 500;
    /** So many differences are told in full. */
    private static final int DIFFERENCES_KEPT = 50;

    private static final int ITEMS = 8;
    private static final int DOCUMENTS_AT_A_TIME = 100_000;

    private final Ledger ledger;
    private final PostingLog log;
    private final Patience patience;

    public Prover(Ledger ledger, PostingLog log, Patience patience) {
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
        private Effect own = new Effect();
        private Effect others = new Effect();
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
                Statements statements = new Statements(ledger, log, patience);
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
                    own = new Effect();
                    others = new Effect();
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
                    Likeness.Diagnosis diagnosis = Likeness.compare(entry, changed);
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
            Effect sent = log.effect(key);
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
                String likely = Likeness.words(line.sent(), line.landed());
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
                    Likeness.words(reckoned, line.after()));
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
    private interface Unchecked<T> {
        T call() throws IOException;
    }

    private static <T> T unchecked(Unchecked<T> call) {
        try {
            return call.call();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Statements against bank accounts, and accounts that should be nil. */
    private static final class Statements {
        private final Ledger ledger;
        private final PostingLog log;
        private final Patience patience;

        Statements(Ledger ledger, PostingLog log, Patience patience) {
            this.ledger = ledger;
            this.log = log;
            this.patience = patience;
        }

        List<Proof.ClosingLine> closings(List<PostingLog.Closing> closings) throws IOException {
            List<Proof.ClosingLine> lines = new ArrayList<>();
            for (PostingLog.Closing closing : closings) {
                lines.add(closing(closing));
            }
            return lines;
        }

        private Proof.ClosingLine closing(PostingLog.Closing closing) throws IOException {
            Currency currency = closing.balance().currency();
            long at = balance(closing.account(), currency, closing.day());
            long earlier = balance(closing.account(), currency, closing.from().minusDays(1));
            Between between = patience.repeat(() -> {
                Between found = new Between(closing.account());
                ledger.entries(Ledger.Query.ofAccount(closing.account()), entry -> {
                    LocalDate day = entry.entry().date();
                    if (!day.isBefore(closing.from()) && !day.isAfter(closing.day())) {
                        found.take(entry);
                    }
                });
                found.flush();
                return found;
            });
            Money opening = closing.opening();
            return new Proof.ClosingLine(
                    closing,
                    new Money(at, currency),
                    new Money(opening.minor() - earlier, currency),
                    new Money(closing.balance().minor() - opening.minor() - between.posted, currency),
                    new Money(between.foreign, currency),
                    between.items);
        }

        /** Entries on an account, divided into those that were sent from here and others. */
        private final class Between {
            private final String account;
            private final List<PostedEntry> some = new ArrayList<>();
            private final List<String> items = new ArrayList<>();
            private long posted;
            private long foreign;

            Between(String account) {
                this.account = account;
            }

            void take(PostedEntry entry) {
                some.add(entry);
                if (some.size() == KEYS_A_CALL) {
                    flush();
                }
            }

            void flush() {
                Set<String> ours = unchecked(() -> ours(some));
                for (PostedEntry entry : some) {
                    long minor = on(account, entry.entry());
                    if (ours.contains(entry.entry().key())) {
                        posted += minor;
                    } else {
                        foreign += minor;
                        item(items, entry, minor);
                    }
                }
                some.clear();
            }
        }

        private static void item(List<String> items, PostedEntry entry, long minor) {
            if (items.size() < ITEMS && minor != 0) {
                Entry e = entry.entry();
                String called = e.reference().equals(e.key()) ? "" : e.reference();
                String text = e.narrative().isEmpty() || called.isEmpty()
                        ? called + e.narrative()
                        : called + ", " + e.narrative();
                items.add(e.date() + "  " + Money.show(minor, e.currency()) + "  " + text + " (entry " + entry.number()
                        + ")");
            }
        }

        // Live entries that were sent from here; a reversal goes with what it reverses, which is neither.
        private Set<String> ours(List<PostedEntry> entries) throws IOException {
            List<String> keys = entries.stream()
                    .filter(entry -> entry.standing().isLive())
                    .map(entry -> entry.entry().key())
                    .filter(key -> !key.isEmpty())
                    .toList();
            Set<String> found = new HashSet<>();
            for (int from = 0; from < keys.size(); from += KEYS_A_CALL) {
                log.latest(keys.subList(from, Math.min(keys.size(), from + KEYS_A_CALL)))
                        .forEach((key, sent) -> {
                            if (sent.state() == State.POSTED) {
                                found.add(key);
                            }
                        });
            }
            return found;
        }

        private long balance(String account, Currency currency, LocalDate day) throws LedgerException {
            long sum = 0;
            for (Balance balance : patience.repeat(() -> ledger.balances(day))) {
                if (balance.account().equals(account)
                        && balance.posted().currency().equals(currency)) {
                    sum += balance.all().minor();
                }
            }
            return sum;
        }

        private static long on(String account, Entry entry) {
            return entry.lines().stream()
                    .filter(line -> line.account().equals(account))
                    .mapToLong(EntryLine::minor)
                    .sum();
        }

        List<Proof.OpenAccount> open(Books books) throws LedgerException {
            List<Proof.OpenAccount> open = new ArrayList<>();
            Collection<Balance> balances = patience.repeat(() -> ledger.balances(LocalDate.MAX));
            for (Balance balance : balances) {
                Account account = books.account(balance.account());
                if (account == null) {
                    continue;
                }
                if (account.shouldBeNil() && balance.all().minor() != 0) {
                    open.add(new Proof.OpenAccount(account, balance.all(), left(account.code())));
                }
            }
            return open;
        }

        // The entries on the account that no other one of the opposite amount answers, the latest first.
        private List<String> left(String account) throws LedgerException {
            Map<Long, Deque<Long>> byAmount = new HashMap<>();
            patience.repeat(() -> {
                byAmount.clear();
                ledger.entries(Ledger.Query.ofAccount(account), entry -> {
                    long minor = on(account, entry.entry());
                    Deque<Long> opposite = byAmount.get(-minor);
                    if (opposite == null) {
                        byAmount.computeIfAbsent(minor, m -> new ArrayDeque<>(2))
                                .addLast(entry.recorded());
                    } else {
                        opposite.removeLast();
                        if (opposite.isEmpty()) {
                            byAmount.remove(-minor);
                        }
                    }
                });
                return true;
            });
            Set<Long> latest = byAmount.values().stream()
                    .flatMap(Collection::stream)
                    .sorted(Comparator.reverseOrder())
                    .limit(ITEMS)
                    .collect(Collectors.toSet());
            List<PostedEntry> shown = patience.repeat(() -> {
                List<PostedEntry> some = new ArrayList<>();
                ledger.entries(Ledger.Query.ofAccount(account), entry -> {
                    if (latest.contains(entry.recorded())) {
                        some.add(entry);
                    }
                });
                return some;
            });
            List<String> items = new ArrayList<>();
            for (int i = shown.size() - 1; i >= 0; i--) {
                item(items, shown.get(i), on(account, shown.get(i).entry()));
            }
            return items;
        }
    }
}
