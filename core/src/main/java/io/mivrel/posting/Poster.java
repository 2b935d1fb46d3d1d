package io.mivrel.posting;

import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.PostingLog.Sent;
import io.mivrel.posting.PostingLog.Settled;
import io.mivrel.posting.PostingLog.State;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Sends entries to a ledger, each exactly once: what is about to be sent is noted first, and when an answer is lost the ledger
 * is asked what it has. For one thread.
 */
public final class Poster {
    /** Entries of a call, where a ledger takes more. */
    private static final int MOST_A_CALL = 20_000;

    private static final int KEYS_A_CALL = 500;
    /** What is there with other content is shown for so many documents. */
    private static final int DIFFERENCES_KEPT = 200;

    /** So far apart, two documents with one number are two. */
    private static final int NUMBERS_RETURN_DAYS = 183;

    private final Ledger ledger;
    private final PostingLog log;
    private final RetryPolicy patience;

    public Poster(Ledger ledger, PostingLog log, RetryPolicy patience) {
        this.ledger = ledger;
        this.log = log;
        this.patience = patience;
    }

    /**
     * What is to be posted, and how.
     *
     * @param first at most this many documents are sent, as a pilot; 0 for all
     * @param closings closing balances of the statements that the entries come from
     */
    public record Order(
            Batch batch, String run, PostMode mode, long first, Instant now, List<PostingLog.Closing> closings) {}

    /** Receives progress. */
    public interface Listener {
        /** {@code sent} of {@code all} entries are settled. */
        void at(long sent, long all);
    }

    /**
     * Settles what earlier attempts left open: the ledger is asked about each document that was about to be sent.
     *
     * @return how many were found in the ledger
     */
    public long settleEarlier() throws IOException {
        long there = 0;
        Map<String, List<Sent>> byBatch = new LinkedHashMap<>();
        log.unsettled()
                .forEach(sent -> byBatch.computeIfAbsent(sent.batch(), b -> new ArrayList<>())
                        .add(sent));
        for (Map.Entry<String, List<Sent>> batch : byBatch.entrySet()) {
            there += settle(batch.getKey(), batch.getValue());
        }
        for (PostingLog.Noted batch : log.batches()) {
            if (batch.state() == PostingLog.BatchState.OPEN) {
                log.end(batch.batch().key(), false);
            }
        }
        return there;
    }

    private long settle(String batch, List<Sent> open) throws IOException {
        Map<String, Sent> byKey = new HashMap<>();
        open.forEach(sent -> byKey.put(sent.key(), sent));
        Map<String, PostedEntry> found = findAll(byKey.keySet());
        Map<String, Settled> settled = new LinkedHashMap<>();
        BalanceChanges effect = new BalanceChanges();
        Map<String, Entry> olds = new HashMap<>();
        log.entries(batch, (sent, replaced) -> {
            Entry entry = sent.entry();
            PostedEntry there = found.get(entry.key());
            boolean isOpen = byKey.containsKey(entry.key());
            if (isOpen && there != null && there.entry().digest().equals(entry.digest())) {
                boolean ofBatch = batch.equals(there.batch());
                Result result = !ofBatch ? Result.THERE : replaced == null ? Result.ADDED : Result.REPLACED;
                settled.put(
                        entry.key(),
                        new Settled(entry.key(), State.POSTED, Answer.of(entry.key(), result, there.number())));
                add(effect, result, entry, replaced);
                if (result == Result.REPLACED && replaced != null) {
                    olds.put(entry.key(), replaced);
                }
            }
        });
        open.forEach(sent -> settled.putIfAbsent(sent.key(), new Settled(sent.key(), State.WAITING, null)));
        supersede(batch, olds);
        log.settle(batch, List.copyOf(settled.values()), effect);
        return settled.values().stream().filter(s -> s.state() == State.POSTED).count();
    }

    // Another entry stands for these documents now, so that the batches that posted them do no more.
    private void supersede(String batch, Map<String, Entry> replaced) throws IOException {
        if (replaced.isEmpty()) {
            return;
        }
        Map<String, List<Settled>> settled = new LinkedHashMap<>();
        Map<String, BalanceChanges> effects = new HashMap<>();
        for (Sent earlier : log.posted(replaced.keySet())) {
            Answer answer = earlier.answer();
            if (earlier.batch().equals(batch)) {
                continue;
            }
            String number = answer == null ? null : answer.number();
            Answer gone = new Answer(earlier.key(), Result.REPLACED, number, null, "replaced by the batch " + batch, 0);
            settled.computeIfAbsent(earlier.batch(), b -> new ArrayList<>())
                    .add(new Settled(earlier.key(), State.WITHDRAWN, gone));
            BalanceChanges effect = effects.computeIfAbsent(earlier.batch(), b -> new BalanceChanges());
            if (answer == null || answer.result() != Result.THERE) {
                effect.subtract(Objects.requireNonNull(replaced.get(earlier.key())));
            }
        }
        for (Map.Entry<String, List<Settled>> of : settled.entrySet()) {
            log.settle(of.getKey(), of.getValue(), Objects.requireNonNull(effects.get(of.getKey())));
        }
    }

    private static void add(BalanceChanges effect, Result result, Entry entry, @Nullable Entry replaced) {
        if (result == Result.ADDED || result == Result.REPLACED) {
            effect.add(entry);
            if (result == Result.REPLACED && replaced != null) {
                effect.subtract(replaced);
            }
        }
    }

    /** What would be done; nothing is sent but the question, where the ledger answers it. */
    public PostingReport rehearse(Order order, EntrySource entries) throws IOException {
        Work work = new Work(order, entries.size(), true, (sent, all) -> {});
        entries.entries(work::take);
        work.flush();
        return work.report;
    }

    /**
     * Posts entries. What earlier attempts left open must be {@linkplain #settleEarlier settled} before. Throws when the
     * ledger cannot be reached any more; what was answered until then is noted, and the next attempt goes on from there.
     */
    public PostingReport post(Order order, EntrySource entries, Listener listener) throws IOException {
        Work work = new Work(order, entries.size(), false, listener);
        entries.entries(work::take);
        work.flush();
        if (work.begun) {
            log.end(order.batch().key(), false);
        }
        return work.report;
    }

    /**
     * What a withdrawal did.
     *
     * @param takenBack how many were taken back
     * @param refused what the ledger refused to take back
     * @param left entries of the batch that the ledger still has, though nothing is known of them here
     * @param notPosted documents that were asked for by name, and that the batch did not post
     */
    public record Withdrawal(long takenBack, List<Refused> refused, long left, List<Sent> notPosted) {}

    /** A document that stays, with the ledger's answer. */
    public record Refused(Sent document, Answer answer, Ledger.@Nullable Plain plain) {}

    /**
     * Takes back documents of a batch.
     *
     * @param wanted their keys; {@code null} for the whole batch
     * @param day the date of the entries that reverse final ones
     */
    public Withdrawal withdraw(PostingLog.Noted batch, @Nullable Collection<String> wanted, java.time.LocalDate day)
            throws IOException {
        String key = batch.batch().key();
        claim(batch);
        if (wanted == null) {
            patience.repeat(() -> {
                ledger.seal(key);
                return true;
            });
        }
        int most = Math.min(MOST_A_CALL, patience.repeat(ledger::abilities).entriesAtMost());
        long takenBack = 0;
        List<Refused> refused = new ArrayList<>();
        List<Sent> notPosted = new ArrayList<>();
        // Parcel by parcel, so that a batch of any size needs the memory of one.
        for (long place = 1; place <= log.parcels(key); place++) {
            Map<String, Entry> entries = new LinkedHashMap<>();
            log.parcel(key, place, (sent, old) -> {
                if (wanted == null || wanted.contains(sent.entry().key())) {
                    entries.put(sent.entry().key(), sent.entry());
                }
            });
            Map<String, Sent> posted = log.documents(key, entries.keySet());
            for (Sent sent : List.copyOf(posted.values())) {
                if (!isOwn(sent)) {
                    posted.remove(sent.key());
                    if (wanted != null) {
                        notPosted.add(sent);
                    }
                }
            }
            List<String> keys =
                    entries.keySet().stream().filter(posted::containsKey).toList();
            for (int from = 0; from < keys.size(); from += most) {
                List<String> some = keys.subList(from, Math.min(keys.size(), from + most));
                // Said again it is answered alike, so a lost answer is asked for by asking again.
                Map<String, Answer> answers = byKey(patience.repeat(() -> ledger.withdraw(key, some, day)));
                takenBack += noteWithdrawn(key, some, answers, posted, entries, refused);
            }
        }
        long left = wanted == null ? live(key) : 0;
        if (wanted == null && refused.isEmpty() && left == 0) {
            log.end(key, true);
        }
        return new Withdrawal(takenBack, refused, Math.max(0, left - refused.size()), notPosted);
    }

    private static boolean isOwn(Sent sent) {
        return sent.state() == State.POSTED
                && (sent.answer() == null || sent.answer().result() != Result.THERE);
    }

    /**
     * Takes for the batch's own what the ledger has of it, though it once answered that it was there already: it says so too
     * when a request comes to it twice. The batch of the entry decides.
     *
     * @return how many there were
     */
    public long claim(PostingLog.Noted batch) throws IOException {
        String key = batch.batch().key();
        long[] there = new long[1];
        log.documents(key, sent -> there[0] += isThere(sent) ? 1 : 0);
        long claimed = 0;
        for (long place = 1; there[0] > 0 && place <= log.parcels(key); place++) {
            claimed += claim(key, place);
        }
        return claimed;
    }

    private static boolean isThere(Sent sent) {
        return sent.state() == State.POSTED
                && sent.answer() != null
                && sent.answer().result() == Result.THERE;
    }

    private long claim(String batch, long place) throws IOException {
        Map<String, SourcedEntry> entries = new HashMap<>();
        Map<String, Entry> replaced = new HashMap<>();
        log.parcel(batch, place, (sent, old) -> {
            entries.put(sent.entry().key(), sent);
            if (old != null) {
                replaced.put(sent.entry().key(), old);
            }
        });
        List<String> there = log.documents(batch, entries.keySet()).values().stream()
                .filter(Poster::isThere)
                .map(Sent::key)
                .toList();
        List<Settled> settled = new ArrayList<>();
        BalanceChanges effect = new BalanceChanges();
        findAll(there).forEach((key, entry) -> {
            if (batch.equals(entry.batch())) {
                Entry old = replaced.get(key);
                Result result = old == null ? Result.ADDED : Result.REPLACED;
                settled.add(new Settled(key, State.POSTED, Answer.of(key, result, entry.number())));
                add(effect, result, Objects.requireNonNull(entries.get(key)).entry(), old);
            }
        });
        if (!settled.isEmpty()) {
            log.settle(batch, settled, effect);
        }
        return settled.size();
    }

    // How many entries of a batch stand in the ledger.
    private long live(String batch) throws LedgerException {
        return patience.repeat(() -> {
            long[] count = new long[1];
            ledger.entries(Ledger.Query.ofBatch(batch), entry -> {
                boolean own = batch.equals(entry.batch()) && entry.reverses() == null;
                count[0] += own && entry.standing().isLive() ? 1 : 0;
            });
            return count[0];
        });
    }

    // Answers how many are gone.
    private long noteWithdrawn(
            String batch,
            List<String> keys,
            Map<String, Answer> answers,
            Map<String, Sent> posted,
            Map<String, Entry> entries,
            List<Refused> refused)
            throws IOException {
        List<Settled> settled = new ArrayList<>();
        BalanceChanges effect = new BalanceChanges();
        for (String key : keys) {
            Answer answer = answers.get(key);
            if (answer != null && answer.result() != Result.REFUSED) {
                settled.add(new Settled(key, State.WITHDRAWN, answer));
                effect.subtract(Objects.requireNonNull(entries.get(key)));
            } else if (answer != null) {
                refused.add(new Refused(Objects.requireNonNull(posted.get(key)), answer, ledger.plain(answer)));
            } else {
                throw new LedgerException(
                        LedgerException.Kind.UNSURE, "the ledger's answer is not about what was asked", null);
            }
        }
        log.settle(batch, settled, effect);
        return settled.size();
    }

    /**
     * Drafts that batches of the same run before this one have left, by name of the batch; in the order in which they were
     * posted.
     */
    public Map<String, Long> draftsBefore(PostingLog.Noted batch) throws IOException {
        Map<String, Long> drafts = new LinkedHashMap<>();
        for (PostingLog.Noted earlier : log.batches()) {
            if (earlier.batch().key().equals(batch.batch().key())) {
                break;
            }
            if (earlier.run().equals(batch.run()) && earlier.batch().standing() == Standing.DRAFT) {
                long[] count = new long[1];
                log.documents(earlier.batch().key(), sent -> count[0] += isOwn(sent) ? 1 : 0);
                if (count[0] > 0) {
                    drafts.put(earlier.batch().name(), count[0]);
                }
            }
        }
        return drafts;
    }

    /** Makes the drafts of a batch final; answers what the ledger refused. */
    public List<Answer> makeFinal(PostingLog.Noted batch) throws IOException {
        List<Answer> refused =
                patience.repeat(() -> ledger.makeFinal(batch.batch().key()));
        if (refused.isEmpty()) {
            log.madeFinal(batch.batch().key());
        }
        return refused;
    }

    /** One attempt, parcel by parcel. */
    private final class Work {
        private final Order order;
        private final boolean rehearsal;
        private final Listener listener;
        private final PostingReport report;
        private final int most;
        private final List<SourcedEntry> parcel = new ArrayList<>();
        private final long all;
        private long done;
        private boolean begun;
        /** What is known of the documents of the parcel at hand, by key. */
        private Map<String, Sent> latest = Map.of();

        Work(Order order, long all, boolean rehearsal, Listener listener) throws IOException {
            this.order = order;
            this.all = all;
            this.rehearsal = rehearsal;
            this.listener = listener;
            this.report = new PostingReport(order.batch(), order.mode(), rehearsal);
            this.most = Math.min(MOST_A_CALL, patience.repeat(ledger::abilities).entriesAtMost());
        }

        void take(SourcedEntry entry) throws IOException {
            parcel.add(entry);
            if (parcel.size() == most) {
                flush();
            }
        }

        void flush() throws IOException {
            if (parcel.isEmpty()) {
                return;
            }
            List<SourcedEntry> toSend = unknown();
            if (order.first() > 0 && report.sent() + toSend.size() > order.first()) {
                long left = order.first() - report.sent();
                toSend.subList((int) left, toSend.size()).forEach(report::beyondPilot);
                toSend = toSend.subList(0, (int) left);
            }
            if (!toSend.isEmpty()) {
                send(toSend);
            }
            done += parcel.size();
            parcel.clear();
            listener.at(done, all);
        }

        // Those that are not known to be there already.
        private List<SourcedEntry> unknown() throws IOException {
            List<SourcedEntry> toSend = new ArrayList<>();
            latest = new HashMap<>(latest(parcel));
            List<SourcedEntry> named = new ArrayList<>(parcel.size());
            List<SourcedEntry> renamed = new ArrayList<>();
            for (SourcedEntry sourced : parcel) {
                SourcedEntry other = named(sourced, latest.get(sourced.entry().key()));
                named.add(other);
                if (other != sourced) {
                    renamed.add(other);
                }
            }
            latest.putAll(latest(renamed));
            for (SourcedEntry sourced : named) {
                Sent known = latest.get(sourced.entry().key());
                if (known == null || known.state() != State.POSTED) {
                    toSend.add(sourced);
                } else if (known.digest().equals(sourced.entry().digest())) {
                    report.postedBefore(sourced);
                } else {
                    toSend.add(sourced);
                }
            }
            return toSend;
        }

        private Map<String, Sent> latest(List<SourcedEntry> of) throws IOException {
            return of.isEmpty()
                    ? Map.of()
                    : log.latest(of.stream().map(s -> s.entry().key()).toList());
        }

        // Numbers start again, often each year: the second document with a number gets a key with its year.
        private SourcedEntry named(SourcedEntry sourced, @Nullable Sent known) {
            Entry e = sourced.entry();
            if (known == null || Math.abs(known.day().toEpochDay() - e.date().toEpochDay()) <= NUMBERS_RETURN_DAYS) {
                return sourced;
            }
            String key = e.key() + "-" + e.date().getYear();
            Entry other = Entry.of(key, e.kind(), e.reference(), e.date(), e.currency(), e.narrative(), e.lines());
            return new SourcedEntry(other, sourced.file(), sourced.rows());
        }

        private void send(List<SourcedEntry> toSend) throws IOException {
            List<Entry> entries = toSend.stream().map(SourcedEntry::entry).toList();
            Map<String, PostedEntry> before = order.mode().replaces() ? findAll(keys(entries)) : Map.of();
            if (rehearsal) {
                List<Answer> answers = patience.repeat(() -> ledger.rehearse(order.batch(), order.mode(), entries));
                note(toSend, byKey(answers), before, false);
                return;
            }
            begin();
            log.intend(
                    order.batch().key(),
                    toSend,
                    before.values().stream().map(PostedEntry::entry).toList());
            note(toSend, byKey(sendUntilAnswered(entries)), before, true);
        }

        private void begin() throws IOException {
            if (!begun) {
                long mark = -1;
                List<Balance> balances = List.of();
                // Others may post meanwhile, and the balances must be those of the mark.
                while (mark != patience.repeat(ledger::mark)) {
                    mark = patience.repeat(ledger::mark);
                    balances = patience.repeat(() -> ledger.balances(java.time.LocalDate.MAX));
                }
                PostingLog.Noted noted = new PostingLog.Noted(
                        order.batch(), order.run(), order.mode(), order.now(), mark, PostingLog.BatchState.OPEN);
                log.begin(noted, balances, order.closings());
                begun = true;
            }
        }

        private List<Answer> sendUntilAnswered(List<Entry> entries) throws LedgerException {
            List<Answer> answers = new ArrayList<>();
            List<Entry> rest = entries;
            for (int tried = 1; !rest.isEmpty(); tried++) {
                List<Entry> now = rest;
                try {
                    List<Answer> given = ledger.post(order.batch(), order.mode(), now);
                    requireAll(now, given);
                    answers.addAll(given);
                    return answers;
                } catch (LedgerException e) {
                    patience.giveUpOrPause(e, tried);
                    if (e.kind() == LedgerException.Kind.UNSURE) {
                        rest = lacking(now, answers);
                    }
                }
            }
            return answers;
        }

        // What is there with the content that was sent has its answer; the rest is sent again.
        private List<Entry> lacking(List<Entry> sent, List<Answer> answers) throws LedgerException {
            Map<String, PostedEntry> found = findAll(keys(sent));
            List<Entry> lacking = new ArrayList<>();
            for (Entry entry : sent) {
                PostedEntry there = found.get(entry.key());
                if (there != null && there.entry().digest().equals(entry.digest())) {
                    boolean ofBatch = order.batch().key().equals(there.batch());
                    answers.add(Answer.of(entry.key(), ofBatch ? Result.ADDED : Result.THERE, there.number()));
                } else {
                    lacking.add(entry);
                }
            }
            return lacking;
        }

        private void note(
                List<SourcedEntry> sent, Map<String, Answer> answers, Map<String, PostedEntry> before, boolean inLog)
                throws IOException {
            List<Settled> settled = new ArrayList<>();
            BalanceChanges effect = new BalanceChanges();
            Map<String, PostedEntry> there = others(answers);
            Map<String, PostedEntry> already = inLog ? already(answers) : Map.of();
            Map<String, Entry> olds = new HashMap<>();
            for (SourcedEntry sourced : sent) {
                Entry entry = sourced.entry();
                PostedEntry old = before.get(entry.key());
                Answer answer = inBatch(Objects.requireNonNull(answers.get(entry.key())), old);
                PostedEntry other = there.get(entry.key());
                PostedEntry mine = already.get(entry.key());
                if (mine != null && order.batch().key().equals(mine.batch())) {
                    // The request came to it twice, and this is the answer to the second.
                    answer = inBatch(Answer.of(entry.key(), Result.ADDED, mine.number()), old);
                }
                if (answer.result() == Result.REFUSED
                        && other != null
                        && other.entry().digest().equals(entry.digest())) {
                    // It says that it refused what it has.
                    answer = Answer.of(entry.key(), Result.ADDED, other.number());
                }
                settled.add(new Settled(entry.key(), state(answer), answer));
                add(effect, answer.result(), entry, old == null ? null : old.entry());
                if (answer.result() == Result.REPLACED && old != null) {
                    olds.put(entry.key(), old.entry());
                    report.replaces(old.entry());
                }
                report.take(sourced, answer, other == null ? null : other.entry(), ledger.plain(answer));
            }
            report.effect().add(effect);
            if (inLog) {
                adopt(sent, answers);
                supersede(order.batch().key(), olds);
                log.settle(order.batch().key(), settled, effect);
            }
        }

        // What an earlier batch sent, was not there when it was asked for, and got there late all the same.
        private void adopt(List<SourcedEntry> sent, Map<String, Answer> answers) throws IOException {
            Map<String, Entry> late = new HashMap<>();
            for (SourcedEntry sourced : sent) {
                Entry entry = sourced.entry();
                Sent known = latest.get(entry.key());
                Answer answer = answers.get(entry.key());
                if (known != null
                        && known.state() == State.WAITING
                        && known.digest().equals(entry.digest())
                        && answer != null
                        && answer.result() == Result.THERE) {
                    late.put(entry.key(), entry);
                }
            }
            for (PostedEntry found : findAll(late.keySet()).values()) {
                Entry entry = found.entry();
                Sent known = latest.get(entry.key());
                if (known != null && known.batch().equals(found.batch())) {
                    Answer added = Answer.of(entry.key(), Result.ADDED, found.number());
                    log.settle(
                            known.batch(),
                            List.of(new Settled(entry.key(), State.POSTED, added)),
                            new BalanceChanges().add(entry));
                }
            }
        }

        // A lost answer is told by what is there, which does not say whether it replaced something or was the same
        // before.
        private Answer inBatch(Answer answer, @Nullable PostedEntry old) {
            if (old == null) {
                return answer;
            }
            boolean same = order.batch().key().equals(old.batch());
            return answer.result() == Result.ADDED && !same
                    ? Answer.of(answer.key(), Result.REPLACED, answer.number())
                    : answer;
        }

        private Map<String, PostedEntry> already(Map<String, Answer> answers) throws LedgerException {
            List<String> keys = answers.values().stream()
                    .filter(answer -> answer.result() == Result.THERE)
                    .map(Answer::key)
                    .toList();
            return keys.isEmpty() ? Map.of() : findAll(keys);
        }

        // What the ledger has in the place of those that it did not take.
        private Map<String, PostedEntry> others(Map<String, Answer> answers) throws LedgerException {
            List<String> keys = answers.values().stream()
                    .filter(a -> a.result() == Result.DIFFERS
                            || a.result() == Result.REFUSED
                            || a.result() == Result.SKIPPED)
                    .map(Answer::key)
                    .limit(Math.max(0, DIFFERENCES_KEPT - report.kept()))
                    .toList();
            return keys.isEmpty() ? Map.of() : findAll(keys);
        }
    }

    private static State state(Answer answer) {
        return switch (answer.result()) {
            case ADDED, REPLACED, THERE -> State.POSTED;
            case SKIPPED, DIFFERS -> State.DIFFERS;
            case REFUSED -> State.REFUSED;
            case REMOVED, REVERSED -> State.WITHDRAWN;
        };
    }

    private static List<String> keys(List<Entry> entries) {
        return entries.stream().map(Entry::key).toList();
    }

    private static Map<String, Answer> byKey(List<Answer> answers) {
        Map<String, Answer> byKey = new HashMap<>();
        answers.forEach(answer -> byKey.put(answer.key(), answer));
        return byKey;
    }

    /** An answer that is not about what was sent is no answer. */
    private static void requireAll(List<Entry> sent, List<Answer> answers) throws LedgerException {
        boolean all = sent.size() == answers.size();
        for (int i = 0; all && i < answers.size(); i++) {
            Result result = answers.get(i).result();
            all = answers.get(i).key().equals(sent.get(i).key())
                    && result != Result.REMOVED
                    && result != Result.REVERSED;
        }
        if (!all) {
            throw new LedgerException(
                    LedgerException.Kind.UNSURE, "the ledger's answer is not about what was sent", null);
        }
    }

    private Map<String, PostedEntry> findAll(Collection<String> keys) throws LedgerException {
        Map<String, PostedEntry> found = new HashMap<>();
        List<String> all = List.copyOf(keys);
        for (int from = 0; from < all.size(); from += KEYS_A_CALL) {
            List<String> some = all.subList(from, Math.min(all.size(), from + KEYS_A_CALL));
            found.putAll(patience.repeat(() -> ledger.find(some)));
        }
        return found;
    }
}
