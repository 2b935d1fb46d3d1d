package io.mivrel.posting;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.money.Money;
import io.mivrel.posting.PostingLog.State;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Currency;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** Statements against bank accounts, and accounts that should be nil. */
final class LedgerStatements {
    private static final int ITEMS = 8;

    private final Ledger ledger;
    private final PostingLog log;
    private final RetryPolicy patience;

    LedgerStatements(Ledger ledger, PostingLog log, RetryPolicy patience) {
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
            if (some.size() == Prover.KEYS_A_CALL) {
                flush();
            }
        }

        void flush() {
            Set<String> ours = Prover.unchecked(() -> ours(some));
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
        for (int from = 0; from < keys.size(); from += Prover.KEYS_A_CALL) {
            log.latest(keys.subList(from, Math.min(keys.size(), from + Prover.KEYS_A_CALL)))
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
            if (balance.account().equals(account) && balance.posted().currency().equals(currency)) {
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
                    byAmount.computeIfAbsent(minor, m -> new ArrayDeque<>(2)).addLast(entry.recorded());
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
