package io.mivrel;

import io.mivrel.books.Books;
import io.mivrel.intake.Input;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.ledger.DeliveredRuns;
import io.mivrel.ledger.PostingRegister;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Batch;
import io.mivrel.posting.EntrySpool;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerCheck;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.Poster;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.PostingReport;
import io.mivrel.posting.Proof;
import io.mivrel.posting.Prover;
import io.mivrel.posting.RetryPolicy;
import io.mivrel.posting.Standing;
import io.mivrel.report.PostingText;
import io.mivrel.report.StatusText;
import io.mivrel.run.HeldRows;
import io.mivrel.run.Run;
import io.mivrel.run.RunPlan;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;
import org.jspecify.annotations.Nullable;

/**
 * What a run has to do with a ledger: posts its clear documents there, takes them back, and proves both. Made by {@link
 * Mivrel#postTo}. Each call that describes answers this same object. For one thread.
 *
 * <pre>{@code
 * try (Ledger ledger = Ledgers.open(LedgerSettings.read("practice", folder), null)) {
 *     PostOutcome outcome = Mivrel.open(Path.of("bank.yaml")).postTo(ledger).asFinal().post();
 * }
 * }</pre>
 */
public final class LedgerPosting {
    private static final RetryPolicy FIRST_CONTACT = new RetryPolicy(Duration.ofMillis(200), Duration.ofSeconds(1), 5);

    private final Mivrel run;
    private final Ledger ledger;
    private Standing standing = Standing.DRAFT;
    private PostMode mode = PostMode.ADD;
    private long first;
    private boolean createsParties;
    private boolean holdsDelivered;
    private @Nullable String name;
    private @Nullable LocalDate day;
    private RetryPolicy patience = RetryPolicy.USUAL;
    private Poster.Listener listener = (sent, all) -> {};

    LedgerPosting(Mivrel run, Ledger ledger) {
        this.run = run;
        this.ledger = ledger;
    }

    /** Posts for good, rather than as drafts. */
    public LedgerPosting asFinal() {
        standing = Standing.FINAL;
        return this;
    }

    /** What becomes of documents that the ledger has already; without it only new ones are added. */
    public LedgerPosting mode(PostMode other) {
        mode = Objects.requireNonNull(other);
        return this;
    }

    /** A pilot: at most this many documents are sent. */
    public LedgerPosting first(long documents) {
        if (documents < 1) {
            throw new IllegalArgumentException("a pilot has at least one document, not " + documents);
        }
        first = documents;
        return this;
    }

    /** Creates customers and suppliers of the run's books that the ledger lacks. */
    public LedgerPosting createParties() {
        createsParties = true;
        return this;
    }

    /** Does not post what went out in import files, for a ledger that those are imported into as well. */
    public LedgerPosting holdDelivered() {
        holdsDelivered = true;
        return this;
    }

    /** What the batch is called, rather than by the run and the date. */
    public LedgerPosting called(@Nullable String batch) {
        name = batch;
        return this;
    }

    /** The date that the batch bears, and that entries bear which reverse final ones; without it today. */
    public LedgerPosting dated(@Nullable LocalDate date) {
        day = date;
        return this;
    }

    /** How long a ledger that fails is asked again. */
    public LedgerPosting patience(RetryPolicy other) {
        patience = Objects.requireNonNull(other);
        return this;
    }

    /** Who hears how many documents are sent. */
    public LedgerPosting listener(Poster.Listener other) {
        listener = Objects.requireNonNull(other);
        return this;
    }

    /** Who hears that the ledger is asked again after a pause. */
    public LedgerPosting waiting(RetryPolicy.Waiting other) {
        patience = patience.telling(other);
        return this;
    }

    private RegisterPlace place() throws IOException {
        RegisterPlace place = run.register();
        if (place == null) {
            throw new IOException("to post, a run needs a folder for its register: see keepIn");
        }
        // A new register would hide from the next run that the old one was lost.
        Session.requireRegister(run, place);
        return place;
    }

    private PostingRegister open() throws IOException {
        // One that is not there at all is said at once, and not after the patience that one deserves that was.
        FIRST_CONTACT.telling(patience.waiting()).repeat(ledger::abilities);
        return PostingRegister.open(place(), run.books().company(), ledger.name());
    }

    /**
     * What keeps the run from being posted, though it may be delivered, in words: such as a coding table that bank lines
     * lack; empty when nothing does.
     */
    public List<String> gaps() throws IOException {
        try (EntrySpool spool = new EntrySpool()) {
            return run.plan(run.inputs()).checkOnly().clearTo(spool).build().gaps();
        }
    }

    /** Says what the ledger would answer, and sends nothing else. */
    public PostOutcome rehearse() throws IOException {
        return execute(true);
    }

    /**
     * Posts the clear documents that the ledger does not have from here yet. Throws {@link LedgerException} when the ledger
     * cannot be reached any more; the next call goes on from there.
     */
    public PostOutcome post() throws IOException {
        return execute(false);
    }

    private PostOutcome execute(boolean rehearsal) throws IOException {
        try (PostingRegister log = open();
                EntrySpool spool = new EntrySpool()) {
            Poster poster = new Poster(ledger, log, patience);
            long settled = poster.settleEarlier();
            Abilities abilities = patience.repeat(ledger::abilities);
            requireAbilities(abilities, rehearsal);
            Books there = patience.repeat(ledger::books);
            LedgerCheck check = new LedgerCheck(there, run.books(), abilities, createsParties);
            List<Input> inputs = run.inputs();
            InputFiles began = InputFiles.of(run.sources());
            PostedHistory history = PostedHistory.open(place(), run, inputs, holdsDelivered, ledger, patience);
            RunReport report;
            try (history) {
                RunPlan plan = run.plan(inputs)
                        .ownChecks(run.checksAnd(check))
                        .checkOnly()
                        .clearTo(spool)
                        .first(0)
                        .history(history)
                        .build();
                if (!plan.gaps().isEmpty()) {
                    throw new IOException(String.join("; ", plan.gaps()));
                }
                report = Run.execute(plan, run.progress());
            }
            began.requireUnchanged();
            if (!rehearsal && !check.missingParties().isEmpty()) {
                List<io.mivrel.books.Party> missing =
                        List.copyOf(check.missingParties().values());
                patience.repeat(() -> {
                    ledger.create(missing);
                    return true;
                });
            }
            Poster.Order order = order(log, report);
            PostingReport posting = rehearsal ? poster.rehearse(order, spool) : poster.post(order, spool, listener);
            tellRefused(report, posting);
            String file = report.files().get(0).file();
            for (Map.Entry<String, Long> of : history.delivered().entrySet()) {
                report.findings().add(inFiles(file, of.getKey(), of.getValue()));
            }
            PostingText.Details details =
                    new PostingText.Details(settled, check.missingParties().size());
            return finish(log, report, posting, details, inputs);
        }
    }

    private void requireAbilities(Abilities abilities, boolean rehearsal) throws LedgerException {
        String lacks = standing == Standing.DRAFT && !abilities.drafts()
                ? "keeps no drafts; post with --final"
                : standing == Standing.FINAL && !abilities.finals()
                        ? "takes drafts only"
                        : mode.replaces() && !abilities.replaces()
                                ? "cannot replace entries"
                                : createsParties && !abilities.createsParties()
                                        ? "does not let customers and suppliers be created"
                                        : rehearsal && !abilities.rehearses()
                                                ? "cannot say beforehand what it would answer"
                                                : null;
        if (lacks != null) {
            throw new LedgerException(
                    LedgerException.Kind.REFUSED, "the ledger '" + ledger.name() + "' " + lacks, null);
        }
    }

    private Finding inFiles(String file, String by, long delivered) throws IOException {
        List<String> files = new ArrayList<>();
        for (DeliveredRuns.DeliveredRun one :
                DeliveredRuns.of(place(), run.books().company())) {
            if (one.name().equals(by) && one.back() == null) {
                String day = LocalDate.ofInstant(Instant.parse(one.began()), java.time.ZoneId.systemDefault())
                        .toString();
                one.files().forEach(of -> files.add(of.name() + " on " + day));
            }
        }
        return new Finding(
                Rule.DELIVERED_IN_FILE,
                holdsDelivered ? Severity.BLOCKER : Severity.CAUTION,
                Origin.of(file, 0),
                "",
                "",
                delivered + (delivered == 1 ? " document" : " documents") + " of these also went out in import files"
                        + (by.isEmpty() ? "" : ", by the run '" + by + "'")
                        + (files.isEmpty() ? "" : ": " + String.join(", ", files))
                        + (holdsDelivered ? "; the settings of the ledger say that such are not posted" : ""),
                holdsDelivered
                        ? "import those files, or take that run back with 'mivrel undo' and post again"
                        : Rule.DELIVERED_IN_FILE.remedy());
    }

    private Poster.Order order(PostingRegister log, RunReport report) throws IOException {
        Instant now = run.now();
        LocalDate date = day == null ? run.today() : day;
        Set<String> taken = new HashSet<>();
        for (PostingLog.Noted batch : log.batches()) {
            taken.add(batch.batch().name());
        }
        String called = name == null ? run.name() + ", " + date : name;
        if (name != null && taken.contains(name)) {
            throw new IOException("there is a batch named '" + name + "' already; choose another name");
        }
        for (int n = 2; taken.contains(called); n++) {
            called = run.name() + ", " + date + " (" + n + ")";
        }
        String key = run.slug() + "-" + Long.toHexString(now.getEpochSecond()) + "-"
                + Integer.toHexString(ThreadLocalRandom.current().nextInt());
        return new Poster.Order(new Batch(key, called, date, standing), run.name(), mode, first, now, closings(report));
    }

    // The closing balance of each account that the files state, the latest one.
    private List<PostingLog.Closing> closings(RunReport report) {
        List<PostingLog.Closing> closings = new ArrayList<>();
        for (int i = 0; i < report.files().size(); i++) {
            IntakeTally tally = report.files().get(i);
            String account = run.accountOf(tally.file());
            Currency currency = tally.totals().currency();
            if (account == null) {
                continue;
            }
            if (!tally.spans().isEmpty()) {
                StatementSpan first = tally.spans().get(0);
                StatementSpan last = tally.spans().get(tally.spans().size() - 1);
                if (first.opening() != SourceRecord.ABSENT
                        && last.closing() != SourceRecord.ABSENT
                        && first.from() != null
                        && last.to() != null) {
                    closings.add(new PostingLog.Closing(
                            account,
                            first.from(),
                            last.to(),
                            new Money(first.opening(), currency),
                            new Money(last.closing(), currency),
                            tally.file()));
                }
            }
        }
        return closings;
    }

    // A refusal stands next to the row that it is about, and its rows are held.
    private static void tellRefused(RunReport report, PostingReport posting) {
        for (PostingReport.NotTaken one : posting.notTaken()) {
            Answer answer = one.answer();
            if (answer.result() != Answer.Result.SKIPPED) {
                Finding finding = PostingText.finding(one);
                report.findings().add(finding);
                HeldRows held = report.heldRows().computeIfAbsent(one.sent().file(), f -> new HeldRows());
                for (long row : one.sent().rows()) {
                    held.add(row);
                }
                held.explain(finding);
            }
        }
    }

    private PostOutcome finish(
            PostingRegister log,
            RunReport report,
            PostingReport posting,
            PostingText.Details details,
            List<Input> inputs)
            throws IOException {
        Proof proof = null;
        if (!posting.isRehearsal() && posting.sent() > 0) {
            proof = prove(log, posting.batch().key());
        }
        PostOutcome outcome = new PostOutcome(report, posting, proof, ledger.name(), details, null, List.of(), null);
        return posting.isRehearsal() || posting.sent() == 0 || run.home() == null
                ? outcome
                : PostingEvidence.keep(run, outcome, log, inputs);
    }

    private Proof prove(PostingRegister log, String batch) throws IOException {
        for (PostingLog.Noted noted : log.batches()) {
            if (noted.batch().key().equals(batch)) {
                return proof(log, noted);
            }
        }
        throw new IllegalStateException(batch);
    }

    private Proof proof(PostingRegister log, PostingLog.Noted batch) throws IOException {
        new Poster(ledger, log, patience).claim(batch);
        return new Prover(ledger, log, patience).prove(batch);
    }

    /** Proves the batches of this run that were not withdrawn, or the one that is named; asks the ledger anew. */
    public List<Proof> prove(@Nullable String batch) throws IOException {
        try (PostingRegister log = open()) {
            new Poster(ledger, log, patience).settleEarlier();
            List<Proof> proofs = new ArrayList<>();
            for (PostingLog.Noted noted : wanted(log, batch, false)) {
                proofs.add(proof(log, noted));
            }
            return proofs;
        }
    }

    private List<PostingLog.Noted> wanted(PostingRegister log, @Nullable String batch, boolean one) throws IOException {
        List<PostingLog.Noted> found = new ArrayList<>();
        for (PostingLog.Noted noted : log.batches()) {
            boolean named = batch != null
                    && (batch.equals(noted.batch().name())
                            || batch.equals(noted.batch().key()));
            boolean ofRun =
                    batch == null && noted.run().equals(run.name()) && noted.state() != PostingLog.BatchState.WITHDRAWN;
            if (named || ofRun) {
                found.add(noted);
            }
        }
        if (found.isEmpty()) {
            throw new NoBatchException(
                    (batch == null ? "nothing of '" + run.name() + "'" : "no batch named '" + batch + "'")
                            + " was posted to '" + ledger.name() + "'",
                    StatusText.batches(log.batches()));
        }
        return one ? List.of(found.get(found.size() - 1)) : found;
    }

    /** What a withdrawal did, with the proof that the balances are as before. */
    public record Withdrawn(PostingLog.Noted batch, Poster.Withdrawal withdrawal, Proof proof) {}

    /**
     * Takes back a batch, or some documents of it.
     *
     * @param batch its name; {@code null} for the last one of this run
     * @param references the numbers of the documents, or their keys; empty for all
     */
    public Withdrawn withdraw(@Nullable String batch, Collection<String> references) throws IOException {
        try (PostingRegister log = open()) {
            Poster poster = new Poster(ledger, log, patience);
            poster.settleEarlier();
            PostingLog.Noted noted = wanted(log, batch, true).get(0);
            Set<String> keys = keys(log, noted, references);
            LocalDate date = day == null ? run.today() : day;
            Poster.Withdrawal withdrawal = poster.withdraw(noted, references.isEmpty() ? null : keys, date);
            return new Withdrawn(noted, withdrawal, prove(log, noted.batch().key()));
        }
    }

    private static Set<String> keys(PostingRegister log, PostingLog.Noted batch, Collection<String> references)
            throws IOException {
        Set<String> keys = new HashSet<>();
        Set<String> unknown = new HashSet<>(references);
        log.documents(batch.batch().key(), sent -> {
            if (references.contains(sent.reference()) || references.contains(sent.key())) {
                keys.add(sent.key());
                unknown.remove(sent.reference());
                unknown.remove(sent.key());
            }
        });
        if (!unknown.isEmpty()) {
            throw new IOException("the batch '" + batch.batch().name() + "' has no document "
                    + String.join(", ", unknown.stream().sorted().toList()));
        }
        return keys;
    }

    /**
     * What making a batch final did.
     *
     * @param drafts how many drafts batches before it still have, by the name of the batch
     */
    public record MadeFinal(PostingLog.Noted batch, List<Answer> refused, Map<String, Long> drafts) {}

    /** Makes the drafts of a batch final; {@code null} for the last batch of this run. */
    public MadeFinal makeFinal(@Nullable String batch) throws IOException {
        try (PostingRegister log = open()) {
            Poster poster = new Poster(ledger, log, patience);
            poster.settleEarlier();
            PostingLog.Noted noted = wanted(log, batch, true).get(0);
            return new MadeFinal(noted, poster.makeFinal(noted), poster.draftsBefore(noted));
        }
    }

    /**
     * A batch with its documents by state.
     *
     * @param open how many are not posted, by no later batch either, and were not taken back
     * @param documents all, or those that are open
     */
    public record Status(
            PostingLog.Noted batch, Map<PostingLog.State, Long> counts, long open, List<PostingLog.Sent> documents) {}

    /** Where everything stands that was sent to this ledger for the company; the ledger is not asked. */
    public List<Status> status(boolean all) throws IOException {
        try (PostingRegister log =
                PostingRegister.openToRead(place(), run.books().company(), ledger.name())) {
            List<Status> found = new ArrayList<>();
            for (PostingLog.Noted noted : log.batches()) {
                Map<PostingLog.State, Long> counts = new java.util.EnumMap<>(PostingLog.State.class);
                List<PostingLog.Sent> every = new ArrayList<>();
                List<PostingLog.Sent> open = new ArrayList<>();
                log.documents(noted.batch().key(), sent -> {
                    counts.merge(sent.state(), 1L, Long::sum);
                    if (all) {
                        every.add(sent);
                    }
                    if (isOpen(sent) && noted.state() != PostingLog.BatchState.WITHDRAWN) {
                        open.add(sent);
                    }
                });
                // What was refused and then posted by a later batch is no longer open.
                Map<String, PostingLog.Sent> latest =
                        log.latest(open.stream().map(PostingLog.Sent::key).toList());
                open.removeIf(sent -> latest.containsKey(sent.key()) && !isOpen(latest.get(sent.key())));
                found.add(new Status(noted, counts, open.size(), all ? every : open));
            }
            return found;
        }
    }

    private static boolean isOpen(PostingLog.Sent sent) {
        return sent.state() != PostingLog.State.POSTED && sent.state() != PostingLog.State.WITHDRAWN;
    }
}
