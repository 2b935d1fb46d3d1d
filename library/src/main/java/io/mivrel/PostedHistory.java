package io.mivrel;

import io.mivrel.books.Account;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.history.DocumentHistory;
import io.mivrel.intake.Input;
import io.mivrel.ledger.Register;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordRange;
import io.mivrel.posting.EntrySpool;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.RetryPolicy;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * The register as posting sees it: what went out in import files is posted all the same, and counted; what contradicts what
 * went out is held, as in a run.
 */
final class PostedHistory implements DocumentHistory, AutoCloseable {
    private final Register register;
    private final boolean holds;
    /** How many documents went out in import files, by the run that delivered them. */
    private final Map<String, Long> delivered = new TreeMap<>();

    private final Books books;
    private final Ledger ledger;
    private final RetryPolicy patience;
    /** By account: the entries of the ledger that are between own accounts. */
    private final Map<String, List<PostedEntry>> ends = new HashMap<>();

    private PostedHistory(Register register, boolean holds, Books books, Ledger ledger, RetryPolicy patience) {
        this.register = register;
        this.holds = holds;
        this.books = books;
        this.ledger = ledger;
        this.patience = patience;
    }

    /** {@code holds} is true when a document that went out in an import file is not posted. */
    static PostedHistory open(
            RegisterPlace place, Mivrel run, List<Input> inputs, boolean holds, Ledger ledger, RetryPolicy patience)
            throws IOException {
        Register register = Register.openToRead(place);
        boolean begun = false;
        try {
            register.beginCheck(run.scope(run.plan(inputs).build()));
            begun = true;
            return new PostedHistory(register, holds, run.books(), ledger, patience);
        } finally {
            if (!begun) {
                register.close();
            }
        }
    }

    /** How many documents went out in import files, by the run that delivered them. */
    Map<String, Long> delivered() {
        return delivered;
    }

    @Override
    public Verdict judge(Kind kind, RecordRange records, long identity, long content) throws IOException {
        Verdict verdict = register.judge(kind, records, identity, content);
        if (verdict == Verdict.DELIVERED) {
            Earlier earlier = register.named(identity);
            delivered.merge(earlier == null || earlier.run() == null ? "" : earlier.run(), 1L, Long::sum);
            return holds ? verdict : Verdict.NEW;
        }
        return verdict;
    }

    @Override
    public long lacking() {
        return 0;
    }

    @Override
    public long matchedByAmount() {
        return 0;
    }

    @Override
    public @Nullable Earlier named(long identity) throws IOException {
        return register.named(identity);
    }

    @Override
    public @Nullable Earlier alike(long identity, long figures, long day) throws IOException {
        return register.alike(identity, figures, day);
    }

    @Override
    public boolean covers(String account, long from, long to) throws IOException {
        return register.covers(account, from, to);
    }

    @Override
    public @Nullable Earlier counterpart(String account, long amount, long day, long identity) throws IOException {
        Earlier delivered = register.counterpart(account, amount, day, identity);
        return delivered != null ? delivered : inLedger(account, amount, day, EntrySpool.key(identity));
    }

    // An end that was posted, from here or otherwise, and never went out in a file.
    private @Nullable Earlier inLedger(String account, long amount, long day, String key) throws IOException {
        if (!ends.containsKey(account)) {
            ends.put(account, patience.repeat(() -> {
                List<PostedEntry> found = new ArrayList<>();
                ledger.entries(Ledger.Query.ofAccount(account), entry -> {
                    boolean betweenOwn = entry.standing().isLive()
                            && entry.reverses() == null
                            && entry.entry().lines().stream()
                                    .anyMatch(line -> !line.account().equals(account) && isOfTransfers(line.account()));
                    if (betweenOwn) {
                        found.add(entry);
                    }
                });
                return found;
            }));
        }
        for (PostedEntry entry : ends.getOrDefault(account, List.of())) {
            String own = entry.entry().key();
            long apart = Math.abs(entry.entry().date().toEpochDay() - day);
            boolean fits = entry.entry().lines().stream()
                    .anyMatch(line -> line.account().equals(account) && line.minor() == amount);
            if (fits && apart <= NEAR_DAYS && !own.equals(key) && !own.startsWith(key + "-")) {
                return new Earlier(
                        entry.entry().title(),
                        "entry " + entry.number() + " of the ledger",
                        0,
                        entry.entry().date(),
                        null);
            }
        }
        return null;
    }

    private boolean isOfTransfers(String account) {
        Account known = books.account(account);
        return known != null && (known.holdsMoney() || known.use() == AccountUse.TRANSFER);
    }

    @Override
    public void remember(Kind kind, RecordRange records, long identity, long figures, long content, long deliveries) {
        // Posting has a memory of its own.
    }

    @Override
    public void startOver() throws IOException {
        register.startOver();
        delivered.clear();
    }

    @Override
    public boolean foundChangedDays() {
        return register.foundChangedDays();
    }

    @Override
    public @Nullable Closing lastClosing(String account, LocalDate day) throws IOException {
        return register.lastClosing(account, day);
    }

    @Override
    public void close() {
        register.close();
    }
}
