package io.mivrel.posting;

import io.mivrel.books.Account;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.money.Money;
import io.mivrel.posting.Effect.Place;
import io.mivrel.posting.PostingLog.Sent;
import io.mivrel.posting.PostingLog.State;
import io.mivrel.posting.Proof.AccountLine;
import io.mivrel.posting.Proof.Difference;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * Proves a batch by asking the ledger: what stood on each account before, what the batch was to add, what the ledger says
 * that it added, what others added since, and what stands there now. For one thread.
 */
public final class Prover {
    private static final int KEYS_A_CALL = 500;
    /** So many differences are told in full. */
    private static final int DIFFERENCES_KEPT = 50;

    private static final int ITEMS = 8;

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
        /** What should be there: by key, its digest. */
        private final Map<String, String> posted = new HashMap<>();
        /** Those of them that were there with the same content before the batch. */
        private final Set<String> before = new HashSet<>();

        private final Set<String> replaced = new HashSet<>();
        private final Set<String> notThere = new HashSet<>();
        private final Set<String> seen = new HashSet<>();
        private final Map<String, Entry> changed = new HashMap<>();
        private final List<Difference> differences = new ArrayList<>();
        private Effect own = new Effect();
        private Effect others = new Effect();
        private List<String> foreign = new ArrayList<>();
        private Set<String> doubled = new TreeSet<>();

        Work(PostingLog.Noted batch) {
            this.batch = batch;
            this.key = batch.batch().key();
        }

        Proof prove() throws IOException {
            log.documents(key, this::note);
            Map<Place, Long> after = balances();
            lookForThoseBefore();
            Books books = patience.repeat(ledger::books);
            Set<String> missing = new TreeSet<>(posted.keySet());
            missing.removeAll(seen);
            tellDocuments(missing);
            List<AccountLine> accounts = accounts(books, after);
            long posts = posted.size();
            Proof.References references = new Proof.References(
                    posts,
                    posts - missing.size() - changed.size(),
                    missing.size(),
                    changed.size(),
                    doubled.size(),
                    foreign.size());
            Statements statements = new Statements(ledger, log, patience);
            return new Proof(
                    batch,
                    accounts,
                    references,
                    differences,
                    statements.closings(log.closings(key)),
                    statements.open(books),
                    waiting(),
                    results(books));
        }

        private void note(Sent sent) {
            if (sent.state() == State.POSTED) {
                posted.put(sent.key(), sent.digest());
                Answer answer = sent.answer();
                if (answer != null && answer.result() == Answer.Result.THERE) {
                    before.add(sent.key());
                } else if (answer != null && answer.result() == Answer.Result.REPLACED) {
                    replaced.add(sent.key());
                }
            } else if (sent.state() == State.WITHDRAWN) {
                replaced.add(sent.key());
            } else {
                notThere.add(sent.key());
            }
        }

        // What was refused and then posted by a later batch waits no more.
        private long waiting() throws IOException {
            return log.latest(notThere).values().stream()
                    .filter(sent -> sent.state() != State.POSTED && sent.state() != State.WITHDRAWN)
                    .count();
        }

        // What was recorded since, and the balances at the end of that.
        private Map<Place, Long> balances() throws LedgerException {
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
                    foreign = new ArrayList<>();
                    doubled = new TreeSet<>();
                    seen.clear();
                    changed.clear();
                    ledger.entries(Ledger.Query.since(batch.mark()), this::take);
                    return true;
                });
            }
            return after;
        }

        private void take(PostedEntry recorded) {
            Entry entry = recorded.entry();
            boolean ofBatch = key.equals(recorded.batch());
            boolean isNew = recorded.recorded() > batch.mark();
            if (recorded.standing() == Standing.REMOVED) {
                if (!isNew) {
                    (replaced.contains(entry.key()) ? own : others).subtract(entry);
                }
                return;
            }
            if (!isNew) {
                return;
            }
            (ofBatch ? own : others).add(entry);
            if (ofBatch && recorded.standing().isLive() && recorded.reverses() == null) {
                see(entry, recorded);
            }
        }

        private void see(Entry entry, PostedEntry recorded) {
            String digest = posted.get(entry.key());
            if (digest == null) {
                foreign.add(entry.title() + " (entry " + recorded.number() + ")");
            } else if (!seen.add(entry.key())) {
                doubled.add(entry.key());
            } else if (!digest.equals(entry.digest())) {
                changed.put(entry.key(), entry);
            }
        }

        // Those that stood there before the batch are asked for by key.
        private void lookForThoseBefore() throws LedgerException {
            List<String> keys = List.copyOf(before);
            for (int from = 0; from < keys.size(); from += KEYS_A_CALL) {
                List<String> some = keys.subList(from, Math.min(keys.size(), from + KEYS_A_CALL));
                patience.repeat(() -> ledger.find(some)).forEach((found, entry) -> {
                    seen.add(found);
                    if (!entry.entry().digest().equals(posted.get(found))) {
                        changed.put(found, entry.entry());
                    }
                });
            }
        }

        private void tellDocuments(Set<String> missing) throws IOException {
            for (String title : foreign) {
                tell(new Difference(title + " stands in the batch and was never sent", "", "entered otherwise"));
            }
            if (missing.isEmpty() && changed.isEmpty() && doubled.isEmpty()) {
                return;
            }
            log.entries(key, (sent, old) -> {
                Entry entry = sent.entry();
                Entry there = changed.get(entry.key());
                String at = sent.file() + " row " + sent.row();
                String amount = Money.show(entry.debit(), entry.currency());
                if (missing.contains(entry.key())) {
                    tell(new Difference(entry.title() + ", " + amount + ", is not in the ledger", at, "omitted"));
                } else if (doubled.contains(entry.key())) {
                    tell(new Difference(entry.title() + ", " + amount + ", stands there twice", at, "doubled"));
                } else if (there != null && entry.digest().equals(posted.get(entry.key()))) {
                    Likeness.Diagnosis diagnosis = Likeness.compare(entry, there);
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
            List<PostedEntry> between = new ArrayList<>();
            patience.repeat(() -> {
                between.clear();
                ledger.entries(Ledger.Query.ofAccount(closing.account()), entry -> {
                    LocalDate day = entry.entry().date();
                    if (!day.isBefore(closing.from()) && !day.isAfter(closing.day())) {
                        between.add(entry);
                    }
                });
                return true;
            });
            Set<String> ours = ours(between);
            long posted = 0;
            long foreign = 0;
            List<String> items = new ArrayList<>();
            for (PostedEntry entry : between) {
                long minor = on(closing.account(), entry.entry());
                if (ours.contains(entry.entry().key())) {
                    posted += minor;
                } else {
                    foreign += minor;
                    item(items, entry, minor);
                }
            }
            Money opening = closing.opening();
            return new Proof.ClosingLine(
                    closing,
                    new Money(at, currency),
                    new Money(opening.minor() - earlier, currency),
                    new Money(closing.balance().minor() - opening.minor() - posted, currency),
                    new Money(foreign, currency),
                    items);
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
                boolean shouldBeNil = (account.use() == AccountUse.CLEARING || account.use() == AccountUse.SUSPENSE);
                if (shouldBeNil && balance.all().minor() != 0) {
                    open.add(new Proof.OpenAccount(account, balance.all(), left(account.code())));
                }
            }
            return open;
        }

        // The entries on the account that no other one of the opposite amount answers, the latest first.
        private List<String> left(String account) throws LedgerException {
            Map<Long, List<PostedEntry>> byAmount = new TreeMap<>();
            List<PostedEntry> unanswered = patience.repeat(() -> {
                byAmount.clear();
                List<PostedEntry> all = new ArrayList<>();
                ledger.entries(Ledger.Query.ofAccount(account), entry -> {
                    long minor = on(account, entry.entry());
                    @Nullable List<PostedEntry> opposite = byAmount.get(-minor);
                    if (opposite != null && !opposite.isEmpty()) {
                        all.remove(opposite.remove(opposite.size() - 1));
                    } else {
                        byAmount.computeIfAbsent(minor, m -> new ArrayList<>()).add(entry);
                        all.add(entry);
                    }
                });
                return all;
            });
            List<String> items = new ArrayList<>();
            for (int i = unanswered.size() - 1; i >= 0; i--) {
                item(items, unanswered.get(i), on(account, unanswered.get(i).entry()));
            }
            return items;
        }
    }
}
