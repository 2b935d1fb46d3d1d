package io.mivrel.practice;

import io.mivrel.money.Money;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.Ledger.Query;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Looks up what the books hold. Called within a transaction. */
final class EntryStore {
    private static final int FETCH = 5_000;
    private static final LocalDate LAST = LocalDate.of(9999, 12, 31);
    private static final LocalDate FIRST = LocalDate.of(0, 1, 1);

    private static final String COLUMNS =
            "SELECT e.id, e.key, e.digest, e.kind, e.reference, e.day, e.currency, e.narrative, e.standing, e.recorded,"
                    + " e.removed, e.reverses, b.key, a.code, l.minor, l.narrative, l.tax_code, l.party,"
                    + " l.foreign_currency, l.foreign_minor, l.dimensions FROM entry e"
                    + " LEFT JOIN batch b ON b.id = e.batch_id JOIN entry_line l ON l.entry_id = e.id"
                    + " JOIN account a ON a.id = l.account_id WHERE e.company_id = ?";

    private final PracticeDatabase database;
    private final long company;

    EntryStore(PracticeDatabase database, long company) {
        this.database = database;
        this.company = company;
    }

    /** What the books know an entry by. */
    record Known(
            long id,
            @Nullable String key,
            @Nullable String digest,
            Standing standing,
            @Nullable String batch,
            String day) {}

    /** Live entries by their key. */
    Map<String, Known> live(Collection<String> keys) throws SQLException {
        Map<String, Known> found = new HashMap<>();
        String sql = "SELECT e.id, e.key, e.digest, e.standing, b.key, e.day FROM entry e LEFT JOIN batch b"
                + " ON b.id = e.batch_id WHERE e.company_id = ? AND e.standing IN ('draft', 'final') AND "
                + database.in("e.key");
        try (PreparedStatement query = database.connection().prepareStatement(sql)) {
            query.setLong(1, company);
            database.set(query, 2, keys);
            known(query, known -> found.put(String.valueOf(known.key()), known));
        }
        return found;
    }

    private static void known(PreparedStatement query, Consumer<Known> target) throws SQLException {
        try (ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                target.accept(new Known(
                        rows.getLong(1),
                        rows.getString(2),
                        rows.getString(3),
                        standing(rows.getString(4)),
                        rows.getString(5),
                        rows.getString(6)));
            }
        }
    }

    /** Entries of a batch with these keys, the one recorded last of each, whether it stands or was taken back. */
    Map<String, Known> ofBatch(String batch, Collection<String> keys) throws SQLException {
        Map<String, Known> found = new HashMap<>();
        String sql = "SELECT e.id, e.key, e.digest, e.standing, b.key, e.day FROM entry e JOIN batch b"
                + " ON b.id = e.batch_id WHERE e.company_id = ? AND b.key = ? AND " + database.in("e.key")
                + " ORDER BY e.id";
        try (PreparedStatement query = database.connection().prepareStatement(sql)) {
            query.setLong(1, company);
            query.setString(2, batch);
            database.set(query, 3, keys);
            known(query, known -> found.put(String.valueOf(known.key()), known));
        }
        return found;
    }

    /** Numbers of live journals among these, each with its year: numbers may start again. */
    Set<String> journalsNamed(Collection<String> references) throws SQLException {
        Set<String> found = new HashSet<>();
        String live =
                "SELECT reference, substr(day, 1, 4) AS year FROM entry WHERE kind = 'journals' AND reverses IS NULL"
                        + " AND standing IN ('draft', 'final') AND ";
        // A server that has not counted the rows yet would read all of them: it is told to look each number up.
        String sql = database.onServer()
                ? "SELECT e.reference, e.year FROM unnest(?) AS wanted (value) CROSS JOIN LATERAL (" + live
                        + "reference = wanted.value AND company_id = ? OFFSET 0) e"
                : live + database.in("reference") + " AND company_id = ?";
        try (PreparedStatement query = database.connection().prepareStatement(sql)) {
            database.set(query, 1, references);
            query.setLong(2, company);
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    found.add(rows.getString(1) + "/" + rows.getString(2));
                }
            }
        }
        return found;
    }

    /** By entry, live entries that rest upon it. */
    Map<Long, List<Long>> restingUpon(Collection<Long> entries) throws SQLException {
        Map<Long, List<Long>> found = new HashMap<>();
        String sql = "SELECT d.rests_on, d.entry_id FROM dependence d JOIN entry e ON e.id = d.entry_id"
                + " WHERE e.standing IN ('draft', 'final') AND " + database.in("d.rests_on");
        try (PreparedStatement query = database.connection().prepareStatement(sql)) {
            database.setNumbers(query, 1, entries);
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    found.computeIfAbsent(rows.getLong(1), e -> new ArrayList<>())
                            .add(rows.getLong(2));
                }
            }
        }
        return found;
    }

    /** Live entries in full, by number. */
    List<PostedEntry> full(Collection<Long> ids) throws SQLException {
        List<PostedEntry> found = new ArrayList<>();
        try (PreparedStatement query = database.connection()
                .prepareStatement(COLUMNS + " AND " + database.in("e.id") + " ORDER BY e.id, l.place")) {
            query.setLong(1, company);
            database.setNumbers(query, 2, ids);
            read(query, found::add);
        }
        return found;
    }

    void entries(Query wanted, Consumer<PostedEntry> target) throws SQLException {
        entries(wanted, 0, 0, target);
    }

    /** Those behind a number; {@code most} is 0 for all. */
    void entries(Query wanted, long after, int most, Consumer<PostedEntry> target) throws SQLException {
        StringBuilder sql = new StringBuilder();
        List<Object> values = new ArrayList<>();
        values.add(company);
        values.add(after);
        if (wanted.since() >= 0) {
            sql.append(" AND (e.recorded > ? OR e.removed > ?)");
            values.add(wanted.since());
            values.add(wanted.since());
        } else {
            sql.append(" AND e.standing <> 'removed'");
        }
        if (wanted.batch() != null) {
            sql.append(" AND e.batch_id IN (SELECT id FROM batch WHERE key = ?)");
            values.add(wanted.batch());
        }
        if (wanted.account() != null) {
            sql.append(" AND e.id IN (SELECT entry_id FROM entry_line JOIN account c ON c.id = account_id"
                    + " WHERE c.company_id = e.company_id AND c.code = ?)");
            values.add(wanted.account());
        }
        // The number of lines differs, so what is counted is the entries.
        String all = most == 0
                ? COLUMNS + " AND e.id > ?" + sql
                : COLUMNS + " AND e.id > ? AND e.id IN (SELECT e.id FROM entry e WHERE e.company_id = ? AND e.id > ?"
                        + sql + " ORDER BY e.id LIMIT " + most + ")";
        if (most > 0) {
            values.add(2, company);
            values.add(3, after);
        }
        try (PreparedStatement query = database.connection().prepareStatement(all + " ORDER BY e.id, l.place")) {
            query.setFetchSize(FETCH);
            for (int i = 0; i < values.size(); i++) {
                query.setObject(i + 1, values.get(i));
            }
            read(query, target);
        }
    }

    private static void read(PreparedStatement query, Consumer<PostedEntry> target) throws SQLException {
        try (ResultSet rows = query.executeQuery()) {
            boolean more = rows.next();
            while (more) {
                long id = rows.getLong(1);
                Heading heading = Heading.of(rows);
                List<EntryLine> lines = new ArrayList<>();
                while (more && rows.getLong(1) == id) {
                    lines.add(line(rows));
                    more = rows.next();
                }
                target.accept(heading.with(lines));
            }
        }
    }

    /** The part of a row that all lines of an entry share. */
    private record Heading(
            long id,
            @Nullable String key,
            @Nullable String digest,
            String kind,
            String reference,
            String day,
            String currency,
            String narrative,
            Standing standing,
            long recorded,
            long removed,
            @Nullable Long reverses,
            @Nullable String batch) {
        static Heading of(ResultSet rows) throws SQLException {
            long reverses = rows.getLong(12);
            return new Heading(
                    rows.getLong(1),
                    rows.getString(2),
                    rows.getString(3),
                    rows.getString(4),
                    rows.getString(5),
                    rows.getString(6),
                    rows.getString(7),
                    rows.getString(8),
                    EntryStore.standing(rows.getString(9)),
                    rows.getLong(10),
                    rows.getLong(11),
                    reverses == 0 ? null : reverses,
                    rows.getString(13));
        }

        // The digest is reckoned anew, so that it is that of what the books hold.
        PostedEntry with(List<EntryLine> lines) {
            Entry entry = Entry.of(
                    key == null ? "" : key,
                    kind,
                    reference,
                    LocalDate.parse(day),
                    Currency.getInstance(currency),
                    narrative,
                    lines);
            return new PostedEntry(
                    entry,
                    Long.toString(id),
                    batch,
                    standing,
                    recorded,
                    removed,
                    reverses == null ? null : Long.toString(reverses));
        }
    }

    private static EntryLine line(ResultSet rows) throws SQLException {
        String foreign = rows.getString(19);
        return new EntryLine(
                rows.getString(14),
                rows.getLong(15),
                rows.getString(16),
                rows.getString(17),
                rows.getString(18),
                foreign == null ? null : new Money(rows.getLong(20), Currency.getInstance(foreign)),
                JsonColumn.names(rows.getString(21)));
    }

    List<Balance> balances(LocalDate day) throws SQLException {
        List<Balance> balances = new ArrayList<>();
        String sql = "SELECT a.code, e.currency, sum(CASE WHEN e.standing = 'draft' THEN 0 ELSE l.minor END),"
                + " sum(CASE WHEN e.standing = 'draft' THEN l.minor ELSE 0 END) FROM entry e"
                + " JOIN entry_line l ON l.entry_id = e.id JOIN account a ON a.id = l.account_id"
                + " WHERE e.company_id = ? AND e.standing <> 'removed' AND e.day <= ?"
                + " GROUP BY a.code, e.currency ORDER BY a.code, e.currency";
        try (PreparedStatement query = database.connection().prepareStatement(sql)) {
            query.setLong(1, company);
            query.setString(2, text(day));
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    Currency currency = Currency.getInstance(rows.getString(2));
                    balances.add(new Balance(
                            rows.getString(1),
                            new Money(rows.getBigDecimal(3).longValueExact(), currency),
                            new Money(rows.getBigDecimal(4).longValueExact(), currency)));
                }
            }
        }
        return balances;
    }

    // Days are compared as text, so their years have four digits.
    static String text(LocalDate day) {
        return (day.isAfter(LAST) ? LAST : day.isBefore(FIRST) ? FIRST : day).toString();
    }

    private static Standing standing(String word) {
        return Standing.valueOf(word.toUpperCase(Locale.ROOT));
    }
}
