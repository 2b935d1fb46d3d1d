package io.mivrel.practice;

import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import io.mivrel.run.Workers;
import java.io.IOException;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** One call that posts, within its transaction. {@code batch} is {@code null} for what is entered by hand. */
final class PostingWork {
    private final PracticeDatabase database;
    private final EntryStore store;
    private final long company;
    private final @Nullable Batch batch;
    private final BooksStore booksStore;

    PostingWork(PracticeDatabase database, EntryStore store, long company, @Nullable Batch batch) {
        this.database = database;
        this.store = store;
        this.company = company;
        this.batch = batch;
        this.booksStore = new BooksStore(database);
    }

    /** What the answers would be, without the ledger's numbers. */
    List<Answer> examine(PostMode mode, List<Entry> entries) throws SQLException {
        return decide(mode, entries).answers();
    }

    /** What becomes of entries, and what the books hold under their keys. */
    private record Decision(List<Answer> answers, Map<String, EntryStore.Known> live) {}

    private Decision decide(PostMode mode, List<Entry> entries) throws SQLException {
        Examination examination = new Examination(booksStore.read(company), PracticeLedger.ABILITIES);
        // What the entries say is looked at while the database looks for their keys and numbers.
        try (Workers workers = new Workers()) {
            Workers.Task<List<@Nullable Answer>> refusals = workers.begin(
                    () -> entries.stream().map(examination::refuse).toList());
            Map<String, EntryStore.Known> live =
                    store.live(entries.stream().map(Entry::key).toList());
            Set<String> taken = journalNumbers(entries, live);
            return new Decision(decide(mode, entries, live, taken, examination, refusals.get()), live);
        } catch (IOException interrupted) {
            throw new SQLException(interrupted);
        }
    }

    private List<Answer> decide(
            PostMode mode,
            List<Entry> entries,
            Map<String, EntryStore.Known> live,
            Set<String> taken,
            Examination examination,
            List<@Nullable Answer> refusals)
            throws SQLException {
        boolean withdrawn = isWithdrawn();
        Set<String> keys = new HashSet<>();
        List<Answer> answers = new ArrayList<>(entries.size());
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            String key = entry.key();
            EntryStore.Known there = live.get(key);
            if (there != null && entry.digest().equals(there.digest())) {
                answers.add(Answer.of(key, Result.THERE, Long.toString(there.id())));
            } else if (withdrawn) {
                answers.add(Refusal.BATCH_WITHDRAWN.to(key, "", 0));
            } else if (there != null && !mode.replaces()) {
                Result result = mode == PostMode.SKIP_EXISTING ? Result.SKIPPED : Result.DIFFERS;
                answers.add(Answer.of(key, result, Long.toString(there.id())));
            } else if (there == null && mode == PostMode.REPLACE) {
                answers.add(Refusal.NOT_THERE.to(key, key, 0));
            } else if (!keys.add(key)) {
                answers.add(Answer.of(key, Result.DIFFERS, null));
            } else {
                Answer refused = refusals.get(i);
                answers.add(refused != null ? refused : examine(examination, entry, there, taken));
            }
        }
        return answers;
    }

    private static Answer examine(
            Examination examination, Entry entry, EntryStore.@Nullable Known there, Set<String> taken) {
        if (there != null && there.standing() == Standing.FINAL && examination.isClosed(LocalDate.parse(there.day()))) {
            return Refusal.PERIOD_CLOSED.to(entry.key(), there.day(), 0);
        }
        if (entry.kind().equals("journals")
                && !taken.add(entry.reference() + "/" + entry.date().getYear())) {
            return Refusal.REFERENCE_TAKEN.to(entry.key(), entry.reference(), 0);
        }
        return Answer.of(entry.key(), there == null ? Result.ADDED : Result.REPLACED, null);
    }

    // Those that other entries have; one that is about to be replaced gives its own back.
    private Set<String> journalNumbers(List<Entry> entries, Map<String, EntryStore.Known> live) throws SQLException {
        List<String> journals = entries.stream()
                .filter(entry -> entry.kind().equals("journals"))
                .filter(entry -> !live.containsKey(entry.key()))
                .map(Entry::reference)
                .toList();
        return journals.isEmpty() ? new HashSet<>() : store.journalsNamed(journals);
    }

    private boolean isWithdrawn() throws SQLException {
        if (batch == null) {
            return false;
        }
        try (PreparedStatement query =
                database.connection().prepareStatement("SELECT withdrawn FROM batch WHERE key = ?")) {
            query.setString(1, batch.key());
            try (ResultSet rows = query.executeQuery()) {
                return rows.next() && rows.getLong(1) == 1;
            }
        }
    }

    List<Answer> post(PostMode mode, List<Entry> entries) throws SQLException {
        Decision decision = decide(mode, entries);
        Map<String, EntryStore.Known> live = decision.live();
        List<Answer> answers = decision.answers();
        List<EntryStore.Known> replaced = new ArrayList<>();
        List<Entry> toWrite = new ArrayList<>();
        for (int i = 0; i < answers.size(); i++) {
            Result result = answers.get(i).result();
            if (PracticeLedger.isDone(result)) {
                toWrite.add(entries.get(i));
            }
            EntryStore.Known old = live.get(entries.get(i).key());
            if (result == Result.REPLACED && old != null) {
                replaced.add(old);
            }
        }
        if (toWrite.isEmpty()) {
            return answers;
        }
        Map<String, Long> numbers = write(toWrite, replaced);
        List<Answer> told = new ArrayList<>(answers.size());
        for (Answer answer : answers) {
            Long number = PracticeLedger.isDone(answer.result()) ? numbers.get(answer.key()) : null;
            told.add(number == null ? answer : Answer.of(answer.key(), answer.result(), number.toString()));
        }
        return told;
    }

    /** Enters one by hand and answers its number. */
    long enter(Entry entry) throws SQLException {
        return write(List.of(entry), List.of()).values().iterator().next();
    }

    private Map<String, Long> write(List<Entry> toWrite, List<EntryStore.Known> replaced) throws SQLException {
        Standing standing = batch == null ? Standing.FINAL : PracticeLedger.standing(batch);
        List<Long> finals = replaced.stream()
                .filter(old -> old.standing() == Standing.FINAL)
                .map(EntryStore.Known::id)
                .toList();
        long next = 1 + database.number("SELECT coalesce(max(id), 0) FROM entry");
        Long batchId = batch == null ? null : batchId(batch);
        HistoryWriter deed = new HistoryWriter(database, company);
        long id = deed.add(batch == null ? "entered by hand" : "posted", batchId, next, toWrite.size() + finals.size());
        deed.remove(
                replaced.stream()
                        .filter(old -> old.standing() == Standing.DRAFT)
                        .map(EntryStore.Known::id)
                        .toList(),
                id);
        List<EntryWriter.Row> rows = new ArrayList<>();
        for (PostedEntry old : store.full(finals)) {
            rows.add(deed.reversal(old, next++, batchId, id, old.entry().date(), Standing.FINAL));
        }
        deed.markReversed(finals);
        Map<String, Long> numbers = new HashMap<>();
        for (Entry entry : toWrite) {
            numbers.put(entry.key(), next);
            rows.add(new EntryWriter.Row(next++, entry, batchId, batch != null, standing, id, 0));
        }
        new EntryWriter(database, company).write(rows, booksStore.accountIds(company));
        return numbers;
    }

    private long batchId(Batch of) throws SQLException {
        try (PreparedStatement query = database.connection().prepareStatement("SELECT id FROM batch WHERE key = ?")) {
            query.setString(1, of.key());
            try (ResultSet rows = query.executeQuery()) {
                if (rows.next()) {
                    return rows.getLong(1);
                }
            }
        }
        long id = 1 + database.number("SELECT coalesce(max(id), 0) FROM batch");
        try (PreparedStatement insert =
                database.connection().prepareStatement("INSERT INTO batch VALUES (?, ?, ?, ?, ?, 0)")) {
            insert.setLong(1, id);
            insert.setLong(2, company);
            insert.setString(3, of.key());
            insert.setString(4, of.name());
            insert.setString(5, of.day().toString());
            insert.executeUpdate();
        }
        return id;
    }
}
