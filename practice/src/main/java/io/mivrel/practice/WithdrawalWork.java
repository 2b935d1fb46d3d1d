package io.mivrel.practice;

import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** One call that changes where entries of a batch stand, within its transaction. */
final class WithdrawalWork {
    private final PracticeDatabase database;
    private final EntryStore store;
    private final long company;

    WithdrawalWork(PracticeDatabase database, EntryStore store, long company) {
        this.database = database;
        this.store = store;
        this.company = company;
    }

    void seal(String batch) throws SQLException {
        try (PreparedStatement update = database.connection()
                .prepareStatement("UPDATE batch SET withdrawn = 1 WHERE key = ? AND company_id = ?")) {
            update.setString(1, batch);
            update.setLong(2, company);
            update.executeUpdate();
        }
    }

    /** Makes the drafts of a batch final that can be; answers the refusals. */
    List<Answer> makeFinal(String batch) throws SQLException {
        Examination examination = examination();
        List<Answer> refused = new ArrayList<>();
        List<Long> ready = new ArrayList<>();
        String sql = "SELECT e.id, e.key, e.day FROM entry e JOIN batch b ON b.id = e.batch_id"
                + " WHERE e.company_id = ? AND b.key = ? AND e.standing = 'draft' ORDER BY e.id";
        try (PreparedStatement query = database.connection().prepareStatement(sql)) {
            query.setLong(1, company);
            query.setString(2, batch);
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    if (examination.isClosed(LocalDate.parse(rows.getString(3)))) {
                        refused.add(Refusal.PERIOD_CLOSED.to(rows.getString(2), rows.getString(3), 0));
                    } else {
                        ready.add(rows.getLong(1));
                    }
                }
            }
        }
        if (!ready.isEmpty()) {
            HistoryWriter deed = new HistoryWriter(database, company);
            deed.add("made final", batchId(batch), 1, 0);
            deed.makeFinal(ready);
        }
        return refused;
    }

    List<Answer> withdraw(String batch, Collection<String> keys, LocalDate day) throws SQLException {
        Map<String, EntryStore.Known> known = store.ofBatch(batch, keys);
        Examination examination = examination();
        Set<Long> together = new HashSet<>();
        known.values().forEach(entry -> together.add(entry.id()));
        Map<Long, List<Long>> resting = store.restingUpon(together);
        Map<Long, PostedEntry> full = new HashMap<>();
        store.full(known.values().stream()
                        .filter(entry -> entry.standing() == Standing.FINAL)
                        .map(EntryStore.Known::id)
                        .toList())
                .forEach(posted -> full.put(Long.parseLong(posted.number()), posted));
        Map<String, Answer> answers = new LinkedHashMap<>();
        List<Long> drafts = new ArrayList<>();
        List<PostedEntry> finals = new ArrayList<>();
        for (String key : keys) {
            EntryStore.Known entry = known.get(key);
            Answer answer = entry == null
                    ? Refusal.NO_BATCH.to(key, "", 0)
                    : decide(entry, key, examination, together, resting, full.get(entry.id()), day);
            answers.put(key, answer);
            if (entry != null && entry.standing() == Standing.DRAFT && answer.result() == Result.REMOVED) {
                drafts.add(entry.id());
            } else if (entry != null && entry.standing() == Standing.FINAL && answer.result() == Result.REVERSED) {
                finals.add(java.util.Objects.requireNonNull(full.get(entry.id())));
            }
        }
        takeBack(batch, drafts, finals, day);
        return List.copyOf(answers.values());
    }

    private static Answer decide(
            EntryStore.Known entry,
            String key,
            Examination examination,
            Set<Long> together,
            Map<Long, List<Long>> resting,
            @org.jspecify.annotations.Nullable PostedEntry full,
            LocalDate day) {
        String number = Long.toString(entry.id());
        if (entry.standing() == Standing.REMOVED) {
            return Answer.of(key, Result.REMOVED, number);
        }
        if (entry.standing() == Standing.REVERSED) {
            return Answer.of(key, Result.REVERSED, number);
        }
        for (long upon : resting.getOrDefault(entry.id(), List.of())) {
            if (!together.contains(upon)) {
                return Refusal.RESTED_UPON.to(key, Long.toString(upon), 0);
            }
        }
        boolean draft = entry.standing() == Standing.DRAFT;
        LocalDate of = draft ? LocalDate.parse(entry.day()) : day;
        if (examination.isClosed(of)) {
            return Refusal.PERIOD_CLOSED.to(key, of.toString(), 0);
        }
        if (draft || full == null) {
            return Answer.of(key, Result.REMOVED, number);
        }
        int place = 0;
        for (EntryLine line : full.entry().lines()) {
            Answer refused = examination.refuseAccount(key, line, ++place);
            if (refused != null) {
                return refused;
            }
        }
        return Answer.of(key, Result.REVERSED, number);
    }

    private void takeBack(String batch, List<Long> drafts, List<PostedEntry> finals, LocalDate day)
            throws SQLException {
        if (drafts.isEmpty() && finals.isEmpty()) {
            return;
        }
        long next = 1 + database.number("SELECT coalesce(max(id), 0) FROM entry");
        HistoryWriter deed = new HistoryWriter(database, company);
        Long batchId = batchId(batch);
        long id = deed.add("withdrawn", batchId, next, finals.size());
        deed.remove(drafts, id);
        deed.markReversed(
                finals.stream().map(entry -> Long.parseLong(entry.number())).toList());
        List<EntryWriter.Row> rows = new ArrayList<>();
        for (PostedEntry entry : finals) {
            rows.add(deed.reversal(entry, next++, batchId, id, day, Standing.FINAL));
        }
        new EntryWriter(database, company).write(rows, new BooksStore(database).accountIds(company));
    }

    private Examination examination() throws SQLException {
        return new Examination(new BooksStore(database).read(company), PracticeLedger.ABILITIES);
    }

    private long batchId(String key) throws SQLException {
        try (PreparedStatement query = database.connection().prepareStatement("SELECT id FROM batch WHERE key = ?")) {
            query.setString(1, key);
            try (ResultSet rows = query.executeQuery()) {
                rows.next();
                return rows.getLong(1);
            }
        }
    }
}
