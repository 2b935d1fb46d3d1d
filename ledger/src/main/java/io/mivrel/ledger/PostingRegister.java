package io.mivrel.ledger;

import io.mivrel.database.ManyRows;
import io.mivrel.money.Money;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Balance;
import io.mivrel.posting.BalanceChanges;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryCodec;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.SourcedEntry;
import io.mivrel.posting.Standing;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;
import org.jspecify.annotations.Nullable;

/**
 * The register's part about one ledger and one company: what was about to be sent, and what came of it. Each call is a
 * transaction of its own, so that a run may use the register in between. Only one program at a time has it open; another one
 * waits.
 */
public final class PostingRegister implements PostingLog, AutoCloseable {
    private static final int KEYS_A_QUERY = 500;
    private static final int DOCUMENT_COLUMNS = 16;
    private static final int BUFFER = 1 << 16;

    /** The first format of a register that knows what was posted. */
    private static final int FIRST_FORMAT = 5;

    private final RegisterDatabase database;
    private final Connection connection;
    private final String company;
    private final String ledger;
    /** The numbers of the documents of the parcel that is being sent, and its batch. */
    private final Map<String, Long> atHand = new HashMap<>();

    private String batchAtHand = "";

    private PostingRegister(RegisterDatabase database, String company, String ledger) {
        this.database = database;
        this.connection = database.connection();
        this.company = company;
        this.ledger = ledger;
    }

    /** Opens it to post, after waiting for another program that posts. */
    public static PostingRegister open(RegisterPlace place, String company, String ledger) throws IOException {
        return new PostingRegister(RegisterDatabase.openToPost(place), company, ledger);
    }

    /** Opens it to look at only. */
    public static PostingRegister openToRead(RegisterPlace place, String company, String ledger) throws IOException {
        return new PostingRegister(RegisterDatabase.openToRead(place), company, ledger);
    }

    /** The names of the ledgers that anything was sent to. */
    public static List<String> ledgers(RegisterPlace place, String company) throws IOException {
        try (PostingRegister register = openToRead(place, company, "")) {
            return register.read(() -> {
                List<String> names = new ArrayList<>();
                try (PreparedStatement query = register.prepare(
                                "SELECT DISTINCT ledger FROM ledger_batch WHERE company = ? ORDER BY ledger", company);
                        ResultSet rows = query.executeQuery()) {
                    while (rows.next()) {
                        names.add(rows.getString(1));
                    }
                }
                return names;
            });
        }
    }

    private interface Work<T> {
        T run() throws SQLException, IOException;
    }

    private <T> T read(Work<T> work) throws IOException {
        try {
            if (database.format() < FIRST_FORMAT) {
                throw new RegisterException(
                        "the register is of an earlier format, from before anything was posted", null);
            }
            return work.run();
        } catch (SQLException e) {
            throw database.failure(e);
        } finally {
            database.rollback();
        }
    }

    private void write(Work<Boolean> work) throws IOException {
        boolean done = false;
        try {
            database.begin();
            work.run();
            database.commit();
            done = true;
        } catch (SQLException e) {
            throw database.failure(e);
        } finally {
            if (!done) {
                database.rollback();
            }
        }
    }

    private PreparedStatement prepare(String sql, @Nullable Object... values) throws SQLException {
        PreparedStatement statement = connection.prepareStatement(sql);
        for (int i = 0; i < values.length; i++) {
            statement.setObject(i + 1, values[i]);
        }
        return statement;
    }

    private void run(String sql, @Nullable Object... values) throws SQLException {
        try (PreparedStatement statement = prepare(sql, values)) {
            statement.executeUpdate();
        }
    }

    private long number(String sql, @Nullable Object... values) throws SQLException {
        try (PreparedStatement query = prepare(sql, values);
                ResultSet rows = query.executeQuery()) {
            rows.next();
            return rows.getLong(1);
        }
    }

    private long id(String batch) throws SQLException {
        return number("SELECT id FROM ledger_batch WHERE batch_key = ?", batch);
    }

    @Override
    public void begin(Noted noted, List<Balance> before, List<Closing> closings) throws IOException {
        write(() -> {
            long id = 1 + number("SELECT coalesce(max(id), 0) FROM ledger_batch");
            Batch batch = noted.batch();
            run(
                    "INSERT INTO ledger_batch VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'open')",
                    id,
                    company,
                    ledger,
                    batch.key(),
                    batch.name(),
                    batch.day().toString(),
                    batch.standing().word(),
                    noted.mode().words(),
                    noted.run(),
                    noted.began().toString(),
                    noted.mark());
            for (Balance balance : before) {
                run(
                        "INSERT INTO ledger_balance VALUES (?, ?, ?, ?, ?)",
                        id,
                        balance.account(),
                        balance.posted().currency().getCurrencyCode(),
                        balance.posted().minor(),
                        balance.drafts().minor());
            }
            int place = 0;
            for (Closing closing : closings) {
                run(
                        "INSERT INTO ledger_closing VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                        id,
                        place++,
                        closing.account(),
                        closing.from().toString(),
                        closing.day().toString(),
                        closing.opening().minor(),
                        closing.balance().minor(),
                        closing.balance().currency().getCurrencyCode(),
                        closing.file());
            }
            return true;
        });
    }

    @Override
    public void intend(String batch, List<SourcedEntry> parcel, Collection<Entry> replaced) throws IOException {
        Map<String, Entry> old = new HashMap<>();
        replaced.forEach(entry -> old.put(entry.key(), entry));
        byte[] content = pack(parcel, old);
        batchAtHand = "";
        atHand.clear();
        write(() -> {
            long id = id(batch);
            long place = 1 + number("SELECT coalesce(max(place), 0) FROM ledger_parcel WHERE batch_id = ?", id);
            run("INSERT INTO ledger_parcel VALUES (?, ?, ?)", id, place, content);
            long document = number("SELECT coalesce(max(id), 0) FROM ledger_document");
            try (ManyRows rows = new ManyRows(connection, "ledger_document", DOCUMENT_COLUMNS, parcel.size())) {
                for (SourcedEntry sent : parcel) {
                    Entry entry = sent.entry();
                    atHand.put(entry.key(), ++document);
                    rows.add(document).add(id).add(entry.key()).add(entry.digest());
                    rows.add(entry.kind())
                            .add(entry.reference())
                            .add(entry.date().toString());
                    rows.add(entry.debit()).add(entry.currency().getCurrencyCode());
                    rows.add(sent.file()).add(sent.row()).add(State.INTENDED.word());
                    rows.add((String) null)
                            .add((String) null)
                            .add((String) null)
                            .add((String) null);
                }
            }
            return true;
        });
        batchAtHand = batch;
    }

    // Nearly always it is of the parcel that was sent just now.
    private long document(String batch, long batchId, String key) throws SQLException {
        Long known = batch.equals(batchAtHand) ? atHand.get(key) : null;
        return known != null
                ? known
                : number("SELECT max(id) FROM ledger_document WHERE document_key = ? AND batch_id = ?", key, batchId);
    }

    private static byte[] pack(List<SourcedEntry> parcel, Map<String, Entry> replaced) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Deflater fast = new Deflater(Deflater.BEST_SPEED);
        try (DataOutputStream out =
                new DataOutputStream(new BufferedOutputStream(new DeflaterOutputStream(bytes, fast, BUFFER), BUFFER))) {
            out.writeInt(parcel.size());
            for (SourcedEntry sent : parcel) {
                EntryCodec.write(out, sent);
                Entry old = replaced.get(sent.entry().key());
                out.writeBoolean(old != null);
                if (old != null) {
                    EntryCodec.write(out, new SourcedEntry(old, "", new long[0]));
                }
            }
        } finally {
            fast.end();
        }
        return bytes.toByteArray();
    }

    @Override
    public void settle(String batch, List<Settled> settled, BalanceChanges effect) throws IOException {
        write(() -> {
            long id = id(batch);
            try (PreparedStatement update = connection.prepareStatement("UPDATE ledger_document SET state = ?,"
                    + " result = ?, ledger_number = ?, code = ?, words = ? WHERE id = ?")) {
                for (Settled one : settled) {
                    Answer answer = one.answer();
                    update.setString(1, one.state().word());
                    update.setString(
                            2, answer == null ? null : answer.result().name().toLowerCase(Locale.ROOT));
                    update.setString(3, answer == null ? null : answer.number());
                    update.setString(4, answer == null ? null : answer.code());
                    update.setString(5, answer == null ? null : answer.words());
                    update.setLong(6, document(batch, id, one.key()));
                    update.addBatch();
                }
                for (int changed : update.executeBatch()) {
                    if (changed == 0) {
                        throw new RegisterException("the register does not know a document that was sent", null);
                    }
                }
            }
            for (Map.Entry<BalanceChanges.Place, BalanceChanges.Sides> one :
                    effect.sides().entrySet()) {
                run(
                        "INSERT INTO ledger_effect VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (batch_id, account, currency)"
                                + " DO UPDATE SET debit = ledger_effect.debit + excluded.debit,"
                                + " credit = ledger_effect.credit + excluded.credit,"
                                + " lines = ledger_effect.lines + excluded.lines",
                        id,
                        one.getKey().account(),
                        one.getKey().currency(),
                        one.getValue().debit(),
                        one.getValue().credit(),
                        one.getValue().lines());
            }
            return true;
        });
    }

    @Override
    public void end(String batch, boolean withdrawn) throws IOException {
        write(() -> {
            run("UPDATE ledger_batch SET state = ? WHERE batch_key = ?", withdrawn ? "withdrawn" : "ended", batch);
            return true;
        });
    }

    @Override
    public void madeFinal(String batch) throws IOException {
        write(() -> {
            run("UPDATE ledger_batch SET standing = 'final' WHERE batch_key = ?", batch);
            return true;
        });
    }

    /** Rows that a server's driver holds at a time. */
    private static final int FETCH = 2000;

    private static final String DOCUMENTS = "SELECT b.batch_key, d.document_key, d.digest, d.kind, d.reference, d.day,"
            + " d.amount, d.currency, d.source_file, d.source_row, d.state, d.result, d.ledger_number, d.code, d.words"
            + " FROM ledger_document d JOIN ledger_batch b ON b.id = d.batch_id WHERE b.company = ? AND b.ledger = ?";

    private static void documents(PreparedStatement query, Consumer<Sent> target) throws SQLException {
        query.setFetchSize(FETCH);
        try (ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                String key = rows.getString(2);
                String result = rows.getString(12);
                Answer answer = result == null
                        ? null
                        : new Answer(
                                key,
                                Answer.Result.valueOf(result.toUpperCase(Locale.ROOT)),
                                rows.getString(13),
                                rows.getString(14),
                                rows.getString(15),
                                0);
                target.accept(new Sent(
                        rows.getString(1),
                        key,
                        rows.getString(3),
                        rows.getString(4),
                        rows.getString(5),
                        LocalDate.parse(rows.getString(6)),
                        new Money(rows.getLong(7), Currency.getInstance(rows.getString(8))),
                        rows.getString(9),
                        rows.getLong(10),
                        State.of(rows.getString(11)),
                        answer));
            }
        }
    }

    @Override
    public List<Sent> unsettled() throws IOException {
        return read(() -> {
            List<Sent> found = new ArrayList<>();
            try (PreparedStatement query = prepare(
                    DOCUMENTS
                            + " AND (d.state = 'intended' OR d.state = 'waiting' AND NOT EXISTS (SELECT 1"
                            + " FROM ledger_document later WHERE later.document_key = d.document_key"
                            + " AND later.id > d.id)) ORDER BY d.id",
                    company,
                    ledger)) {
                documents(query, found::add);
            }
            return found;
        });
    }

    @Override
    public Map<String, Sent> latest(Collection<String> keys) throws IOException {
        Map<String, Sent> found = new HashMap<>();
        withKeys(keys, "", List.of(), sent -> found.put(sent.key(), sent));
        return found;
    }

    @Override
    public Map<String, Sent> documents(String batch, Collection<String> keys) throws IOException {
        Map<String, Sent> found = new HashMap<>();
        withKeys(keys, " AND b.batch_key = ?", List.of(batch), sent -> found.put(sent.key(), sent));
        return found;
    }

    @Override
    public long waiting(String batch) throws IOException {
        return read(() -> number(
                "SELECT count(*) FROM ledger_document d WHERE d.batch_id = ? AND d.state NOT IN ('posted', 'withdrawn')"
                        + " AND (SELECT l.state FROM ledger_document l JOIN ledger_batch b ON b.id = l.batch_id"
                        + " WHERE l.document_key = d.document_key AND b.company = ? AND b.ledger = ?"
                        + " ORDER BY l.id DESC LIMIT 1) NOT IN ('posted', 'withdrawn')",
                id(batch),
                company,
                ledger));
    }

    @Override
    public List<Sent> posted(Collection<String> keys) throws IOException {
        List<Sent> found = new ArrayList<>();
        withKeys(keys, " AND d.state = 'posted'", List.of(), found::add);
        return found;
    }

    private void withKeys(Collection<String> keys, String where, List<Object> whereValues, Consumer<Sent> target)
            throws IOException {
        read(() -> {
            List<String> all = List.copyOf(keys);
            for (int from = 0; from < all.size(); from += KEYS_A_QUERY) {
                List<String> some = all.subList(from, Math.min(all.size(), from + KEYS_A_QUERY));
                String marks = String.join(", ", some.stream().map(k -> "?").toList());
                List<Object> values = new ArrayList<>(List.of(company, ledger));
                values.addAll(whereValues);
                values.addAll(some);
                try (PreparedStatement query = prepare(
                        DOCUMENTS + where + " AND d.document_key IN (" + marks + ") ORDER BY d.id", values.toArray())) {
                    documents(query, target);
                }
            }
            return true;
        });
    }

    @Override
    public List<Noted> batches() throws IOException {
        return read(() -> {
            List<Noted> found = new ArrayList<>();
            try (PreparedStatement query = prepare(
                            "SELECT batch_key, name, day, standing, mode, run, began, mark, state FROM ledger_batch"
                                    + " WHERE company = ? AND ledger = ? ORDER BY id",
                            company,
                            ledger);
                    ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    found.add(new Noted(
                            new Batch(
                                    rows.getString(1),
                                    rows.getString(2),
                                    LocalDate.parse(rows.getString(3)),
                                    Standing.valueOf(rows.getString(4).toUpperCase(Locale.ROOT))),
                            rows.getString(6),
                            PostMode.of(rows.getString(5)),
                            Instant.parse(rows.getString(7)),
                            rows.getLong(8),
                            BatchState.valueOf(rows.getString(9).toUpperCase(Locale.ROOT))));
                }
            }
            return found;
        });
    }

    @Override
    public List<Balance> before(String batch) throws IOException {
        return read(() -> {
            List<Balance> found = new ArrayList<>();
            try (PreparedStatement query = prepare(
                            "SELECT account, currency, posted, drafts FROM ledger_balance WHERE batch_id = ?"
                                    + " ORDER BY account, currency",
                            id(batch));
                    ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    Currency currency = Currency.getInstance(rows.getString(2));
                    found.add(new Balance(
                            rows.getString(1),
                            new Money(rows.getLong(3), currency),
                            new Money(rows.getLong(4), currency)));
                }
            }
            return found;
        });
    }

    @Override
    public BalanceChanges effect(String batch) throws IOException {
        return read(() -> {
            BalanceChanges effect = new BalanceChanges();
            try (PreparedStatement query = prepare(
                            "SELECT account, currency, debit, credit, lines FROM ledger_effect WHERE batch_id = ?",
                            id(batch));
                    ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    effect.add(
                            new BalanceChanges.Place(rows.getString(1), rows.getString(2)),
                            new BalanceChanges.Sides(rows.getLong(3), rows.getLong(4), rows.getLong(5)));
                }
            }
            return effect;
        });
    }

    @Override
    public List<Closing> closings(String batch) throws IOException {
        return read(() -> {
            List<Closing> found = new ArrayList<>();
            try (PreparedStatement query = prepare(
                            "SELECT account, first_day, day, opening, balance, currency, source_file FROM ledger_closing"
                                    + " WHERE batch_id = ? ORDER BY place",
                            id(batch));
                    ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    Currency currency = Currency.getInstance(rows.getString(6));
                    found.add(new Closing(
                            rows.getString(1),
                            LocalDate.parse(rows.getString(2)),
                            LocalDate.parse(rows.getString(3)),
                            new Money(rows.getLong(4), currency),
                            new Money(rows.getLong(5), currency),
                            rows.getString(7)));
                }
            }
            return found;
        });
    }

    @Override
    public void documents(String batch, Consumer<Sent> target) throws IOException {
        read(() -> {
            try (PreparedStatement query =
                    prepare(DOCUMENTS + " AND b.batch_key = ? ORDER BY d.id", company, ledger, batch)) {
                documents(query, target);
            }
            return true;
        });
    }

    @Override
    public long parcels(String batch) throws IOException {
        return read(() -> number("SELECT coalesce(max(place), 0) FROM ledger_parcel WHERE batch_id = ?", id(batch)));
    }

    @Override
    public void parcel(String batch, long place, EntryTarget target) throws IOException {
        byte[] content = read(() -> {
            try (PreparedStatement query = prepare(
                            "SELECT content FROM ledger_parcel WHERE batch_id = ? AND place = ?", id(batch), place);
                    ResultSet rows = query.executeQuery()) {
                rows.next();
                return Objects.requireNonNull(rows.getBytes(1));
            }
        });
        unpack(content, target);
    }

    private static void unpack(byte[] content, EntryTarget target) throws IOException {
        try (DataInputStream in = new DataInputStream(
                new BufferedInputStream(new InflaterInputStream(new ByteArrayInputStream(content)), BUFFER))) {
            int count = in.readInt();
            for (int i = 0; i < count; i++) {
                SourcedEntry sent = EntryCodec.read(in);
                target.take(sent, in.readBoolean() ? EntryCodec.read(in).entry() : null);
            }
        }
    }

    @Override
    public void close() {
        database.close();
    }
}
