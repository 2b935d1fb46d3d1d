package io.mivrel.ledger;

import io.mivrel.delivery.PreparedFile;
import io.mivrel.history.DocumentHistory;
import io.mivrel.layout.DateWindow;
import io.mivrel.model.DocumentIdentity.Form;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Mivrel's memory of deeds for a company folder: runs, deliveries with their files, documents and their state. One register
 * serves all run sheets of the folder; {@code docs/register.md} describes its tables. Format {@value RegisterDatabase#FORMAT}.
 *
 * <p>A run opens it for itself, settles what {@linkplain #unfinished earlier runs left unfinished}, {@linkplain #begin
 * begins}, and tells when its files are {@linkplain #prepared prepared} and {@linkplain #published published}. Closing it
 * before the first of these forgets the run. For one thread.
 */
public final class Register implements DocumentHistory, AutoCloseable {
    /** A place of the register is the run and, in so many bits, the place within it. */
    private static final int PLACE_BITS = 32;
    /** So many days more than are needed are looked up at a time. */
    private static final int AHEAD = 61;

    private static final String PACKS = "SELECT d.run_id, d.place, d.account, d.currency, d.source_file,"
            + " d.source_ordinal, d.deliveries, d.documents, d.checksum, d.content FROM document_pack d";

    private final RegisterDatabase database;
    private final Connection connection;
    private @Nullable RunScope scope;
    private @Nullable KnownDocuments known;
    /** Of documents with names: which packs may hold one; {@code null} for lines of accounts. */
    private @Nullable PackIndex index;

    private @Nullable DeedWriter deeds;
    private long run;
    private long lacking;
    /** The documents of the place that was looked into last, by identity. */
    private final Map<Long, Earlier> inPlace = new HashMap<>();

    private long lookedInto = -1;
    /** By account: the first and the last day that all is known of. */
    private final Map<String, long[]> loaded = new HashMap<>();
    /** Rows and packs that are known. */
    private final Set<Long> loadedPlaces = new HashSet<>();

    private Map<Long, long[]> bitsOfRuns = Map.of();

    private Register(RegisterDatabase database) {
        this.database = database;
        this.connection = database.connection();
    }

    /** Loads the database engine beside other work, so that opening finds it ready. */
    public static void prepareEngine() {
        CompletableFuture.runAsync(Engine::load);
    }

    /** Opens the register for one run, making it when it is missing; a second run waits up to ten seconds and then fails. */
    public static Register open(RegisterPlace place) throws IOException {
        return new Register(RegisterDatabase.open(place));
    }

    /** Opens a register that exists, to look at only. */
    public static Register openToRead(RegisterPlace place) throws IOException {
        return new Register(RegisterDatabase.openToRead(place));
    }

    /** True when there is a register to look at. */
    public static boolean exists(RegisterPlace place) {
        return RegisterDatabase.exists(place);
    }

    /** Runs that ended between {@link #prepared} and {@link #published}, the earliest first. */
    public List<UnfinishedRun> unfinished() throws IOException {
        List<UnfinishedRun> runs = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(
                        "SELECT id, name, began, staged_evidence, evidence FROM run WHERE state = 'prepared' ORDER BY id")) {
            while (rows.next()) {
                runs.add(new UnfinishedRun(
                        rows.getLong(1),
                        rows.getString(2),
                        rows.getString(3),
                        files(rows.getLong(1)),
                        rows.getString(4),
                        rows.getString(5)));
            }
            return runs;
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    /** The hidden names that the files of the last run had, some of which may still be there when it was cut off. */
    public List<String> hiddenOfLastRun() throws IOException {
        try {
            return files(number("SELECT coalesce(max(id), 0) FROM run")).stream()
                    .map(PreparedFile::hidden)
                    .toList();
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    private List<PreparedFile> files(long of) throws SQLException {
        List<PreparedFile> files = new ArrayList<>();
        try (PreparedStatement query = connection.prepareStatement(
                "SELECT hidden, name, bytes, digest FROM delivered_file WHERE run_id = ? ORDER BY place")) {
            query.setLong(1, of);
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    files.add(
                            new PreparedFile(rows.getString(1), rows.getString(2), rows.getLong(3), rows.getString(4)));
                }
            }
        }
        return files;
    }

    /** Notes that all files of an unfinished run have their names. */
    public void settled(long unfinished, List<PreparedFile> files) throws IOException {
        publish(unfinished, files);
    }

    /** Loads what can matter to a run, and begins to note what it does. */
    public void begin(RunScope runScope) throws IOException {
        scope = runScope;
        try {
            connection.rollback();
            load();
            run = 1 + number("SELECT coalesce(max(id), 0) FROM run");
            restart();
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    /** The same for a run that delivers nothing. */
    public void beginCheck(RunScope runScope) throws IOException {
        scope = runScope;
        try {
            load();
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    private void restart() throws SQLException {
        connection.rollback();
        deeds = new DeedWriter(connection, run, scope());
        deeds().begin();
        database.waitAtCommitOnly();
    }

    private RunScope scope() {
        return Objects.requireNonNull(scope, "no run has begun");
    }

    private KnownDocuments known() {
        return Objects.requireNonNull(known, "no run has begun");
    }

    private DeedWriter deeds() {
        return Objects.requireNonNull(deeds, "a check notes nothing");
    }

    private long number(String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            result.next();
            return result.getLong(1);
        }
    }

    private void load() throws SQLException, IOException {
        boolean byAccount = scope().kind().isOfAccount();
        Map<Long, long[]> bits = deliveryBits();
        known = new KnownDocuments(count(), byAccount);
        bitsOfRuns = bits;
        loaded.clear();
        loadedPlaces.clear();
        checkRows();
        if (byAccount) {
            loadDays();
        } else {
            loadRows(scope().dates());
            index = new PackIndex(2 * number("SELECT coalesce(sum(documents), 0) FROM document_pack"));
            loadIndex(index);
        }
    }

    // Packs that were written without keys are read at once.
    private void loadIndex(PackIndex target) throws SQLException, IOException {
        if (database.format() >= 10) {
            String sql = "SELECT k.run_id, k.place, k.packs, k.checksum, k.keys FROM document_pack_keys k"
                    + " JOIN document_pack d ON d.run_id = k.run_id AND d.place = k.place"
                    + where("first_day", "last_day");
            try (PreparedStatement query = query(sql, scope().dates());
                    ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    byte[] keys = rows.getBytes(5);
                    if (DocumentPack.checksum(keys) != rows.getLong(4)) {
                        throw damagedPack(rows.getLong(1));
                    }
                    target.add(rows.getLong(1) << PLACE_BITS | rows.getLong(2), rows.getInt(3), keys);
                }
            }
        }
        List<Long> others = new ArrayList<>();
        String sql = "SELECT d.run_id, d.place FROM document_pack d" + where("first_day", "last_day");
        try (PreparedStatement query = query(sql, scope().dates());
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                long place = rows.getLong(1) << PLACE_BITS | rows.getLong(2);
                if (!target.knows(place)) {
                    others.add(place);
                }
            }
        }
        loadPacks(others);
    }

    // Of documents with names, those of the packs that may hold one like it.
    private void loadPacks(Iterable<Long> places) throws SQLException, IOException {
        for (long place : places) {
            if (!loadedPlaces.contains(place)) {
                try (PreparedStatement query =
                        connection.prepareStatement(PACKS + " WHERE d.run_id = ? AND d.place = ?")) {
                    query.setLong(1, place >>> PLACE_BITS);
                    query.setLong(2, place & (1L << PLACE_BITS) - 1);
                    loadPacks(query);
                }
            }
        }
    }

    private void loadPacks(long hash) throws IOException {
        if (index != null) {
            try {
                loadPacks(index.places(hash));
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
    }

    private RegisterException damagedPack(long of) {
        return database.damaged("a pack of run " + of + " is not as it was written");
    }

    // Of bank lines, which a date is part of, only those of the days around can matter; most files go on from day to
    // day.
    private void loadAround(String account, long day) throws IOException {
        long from = day - KnownDocuments.MOST_APART;
        long to = day + KnownDocuments.MOST_APART;
        long[] span = loaded.get(account);
        if (day == SourceRecord.ABSENT || span != null && span[0] <= from && to <= span[1]) {
            return;
        }
        long first = span == null ? from : Math.min(span[0], from);
        long last = span == null ? to + AHEAD : Math.max(span[1], to + AHEAD);
        loaded.put(account, new long[] {first, last});
        DateWindow wanted = scope().dates();
        DateWindow days = new DateWindow(
                later(LocalDate.ofEpochDay(first), wanted.from()), earlier(LocalDate.ofEpochDay(last), wanted.to()));
        if (!days.from().isAfter(days.to())) {
            try {
                loadRows(days);
                try (PreparedStatement query = query(PACKS + where("first_day", "last_day"), days)) {
                    loadPacks(query);
                }
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
    }

    private static LocalDate later(LocalDate one, LocalDate other) {
        return one.isAfter(other) ? one : other;
    }

    private static LocalDate earlier(LocalDate one, LocalDate other) {
        return one.isBefore(other) ? one : other;
    }

    // The documents that can matter: of the company and kind; of bank lines, which a date is part of, those of the
    // accounts
    // and wanted dates.
    private String where(String firstDay, String lastDay) {
        // What this run itself has noted so far is not of before.
        String all = " JOIN run ON run.id = d.run_id WHERE run.company = ? AND d.kind = ? AND d.state <> 'withdrawn'"
                + " AND d.run_id <> " + run;
        if (!scope().kind().isOfAccount()) {
            return all;
        }
        String marks =
                String.join(", ", scope().accounts().stream().map(a -> "?").toList());
        return all + " AND account IN (" + marks + ") AND " + lastDay + " >= ? AND " + firstDay + " <= ?";
    }

    private PreparedStatement query(String sql, DateWindow days) throws SQLException {
        PreparedStatement query = connection.prepareStatement(sql);
        int at = 1;
        query.setString(at++, scope().company());
        query.setString(at++, scope().kind().documents());
        if (scope().kind().isOfAccount()) {
            for (String account : scope().accounts()) {
                query.setString(at++, account);
            }
            boolean all = days.equals(DateWindow.ALL);
            query.setString(at++, all ? "0000" : days.from().toString());
            query.setString(at, all ? "9999" : days.to().toString());
        }
        return query;
    }

    private long count() throws SQLException {
        long count = 0;
        for (String sql : List.of(
                "SELECT count(*) FROM document d" + where("day", "day"),
                "SELECT coalesce(sum(d.documents), 0) FROM document_pack d" + where("first_day", "last_day"))) {
            try (PreparedStatement query = query(sql, scope().dates());
                    ResultSet result = query.executeQuery()) {
                result.next();
                count += result.getLong(1);
            }
        }
        return count;
    }

    // By run, the bit that each of its deliveries has in this run; deliveries that this run lacks share the highest.
    private Map<Long, long[]> deliveryBits() throws SQLException {
        Map<Long, long[]> bits = new HashMap<>();
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery("SELECT run_id, place, name FROM delivery")) {
            while (rows.next()) {
                int place = scope().deliveries().indexOf(rows.getString(3));
                bits.computeIfAbsent(rows.getLong(1), r -> new long[RunScope.MOST_DELIVERIES])[rows.getInt(2)] =
                        place < 0 ? Long.MIN_VALUE : 1L << place;
            }
        }
        return bits;
    }

    private static long deliveries(long mask, long @Nullable [] bits) {
        long mine = 0;
        for (int i = 0; bits != null && i < bits.length; i++) {
            mine |= (mask & 1L << i) != 0 ? bits[i] : 0;
        }
        return mine;
    }

    private void loadRows(DateWindow days) throws SQLException, IOException {
        // A register of format 3 that is only looked at has no figures.
        String figures = database.format() > 3 ? "figures" : "0";
        String sql = "SELECT run_id, account, identity, d.content, day, amount, told_by, deliveries, " + figures
                + ", place FROM document d"
                + where("day", "day");
        try (PreparedStatement query = query(sql, days);
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                if (!loadedPlaces.add(rows.getLong(1) << PLACE_BITS | rows.getLong(10))) {
                    continue;
                }
                known().reserve(1);
                known().add(
                                rows.getString(2),
                                rows.getLong(3),
                                rows.getLong(9),
                                rows.getLong(4),
                                LocalDate.parse(rows.getString(5)).toEpochDay(),
                                rows.getLong(6),
                                Form.valueOf(rows.getString(7)),
                                deliveries(rows.getLong(8), bitsOfRuns.get(rows.getLong(1))),
                                rows.getLong(1) << PLACE_BITS | rows.getLong(10));
            }
        }
    }

    // The rows of each run must be those that were written, in number and figures.
    private void checkRows() throws SQLException, IOException {
        try (Statement statement = connection.createStatement();
                ResultSet rows =
                        statement.executeQuery("SELECT run.id, run.documents, run.checksum, identity, content, day,"
                                + " amount FROM run JOIN document ON run_id = run.id WHERE run.checksum <> 0"
                                + " ORDER BY run.id, place")) {
            long of = -1;
            long count = 0;
            long left = 0;
            long checksum = 0;
            long wanted = 0;
            boolean more = rows.next();
            while (more) {
                of = rows.getLong(1);
                left = rows.getLong(2);
                wanted = rows.getLong(3);
                count = 0;
                checksum = 0;
                while (more && rows.getLong(1) == of) {
                    count++;
                    checksum = DeedWriter.add(
                            checksum,
                            rows.getLong(4),
                            rows.getLong(5),
                            LocalDate.parse(rows.getString(6)).toEpochDay(),
                            rows.getLong(7));
                    more = rows.next();
                }
                if (count != left || checksum != wanted) {
                    throw database.damaged("the documents of run " + of + " are not those that were written");
                }
            }
        }
    }

    private void loadPacks(PreparedStatement query) throws SQLException, IOException {
        try (ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                long place = rows.getLong(1) << PLACE_BITS | rows.getLong(2);
                if (!loadedPlaces.add(place)) {
                    continue;
                }
                known().reserve(rows.getLong(8));
                byte[] content = rows.getBytes(10);
                if (DocumentPack.checksum(content) != rows.getLong(9)) {
                    throw damagedPack(rows.getLong(1));
                }
                String account = rows.getString(3);
                long by = deliveries(rows.getLong(7), bitsOfRuns.get(rows.getLong(1)));
                DocumentPack.read(
                        content,
                        rows.getInt(8),
                        source(rows),
                        (identity, figures, own, day, amount, form, row, reference) ->
                                known().add(account, identity, figures, own, day, amount, form, by, place));
            }
        }
    }

    private static SourceFile source(ResultSet rows) throws SQLException {
        return new SourceFile(
                rows.getString(5), "", rows.getInt(6), rows.getString(3), Currency.getInstance(rows.getString(4)));
    }

    private void loadDays() throws SQLException {
        try (PreparedStatement query =
                connection.prepareStatement("SELECT account, told_by, first_day, last_day FROM account_days"
                        + " JOIN run ON run.id = run_id WHERE run.company = ?" + database.standing())) {
            query.setString(1, scope().company());
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    known().addDays(
                                    rows.getString(1),
                                    Form.valueOf(rows.getString(2)),
                                    LocalDate.parse(rows.getString(3)).toEpochDay(),
                                    LocalDate.parse(rows.getString(4)).toEpochDay());
                }
            }
        }
    }

    @Override
    public Verdict judge(Kind kind, RecordRange records, long identity, long content) throws IOException {
        if (known().isEmpty()) {
            return Verdict.NEW;
        }
        String account = records.block().source().account();
        boolean byAccount = kind.isOfAccount();
        if (byAccount) {
            loadAround(account == null ? "" : account, records.block().number(kind.date(), records.from()));
        } else {
            loadPacks(identity);
        }
        Verdict verdict = known().judge(
                        account == null ? "" : account,
                        identity,
                        content,
                        records.block().number(kind.date(), records.from()),
                        byAccount ? records.block().number(kind.amount(), records.from()) : 0,
                        byAccount ? kind.identity().form(records) : Form.NUMBER,
                        day -> kind.identity().identityOn(records, day));
        if (verdict == Verdict.DELIVERED) {
            long all = (1L << scope().deliveries().size()) - 1;
            lacking = all & ~known().lastDeliveries();
        }
        return verdict;
    }

    @Override
    public long lacking() {
        return lacking;
    }

    @Override
    public long coded() {
        return known().lastCoded();
    }

    @Override
    public long matchedByAmount() {
        return known().matchedByAmount();
    }

    @Override
    public @Nullable Earlier named(long identity) throws IOException {
        return earlier(known().named(identity));
    }

    @Override
    public @Nullable Earlier alike(long identity, long figures, long day) throws IOException {
        if (index != null) {
            for (long hash : KnownDocuments.aroundDays(figures, day)) {
                loadPacks(hash);
            }
        }
        return earlier(known().alike(identity, figures, day));
    }

    // Many documents in a row may be found so, and most lie in the pack that was looked into last.
    private @Nullable Earlier earlier(KnownDocuments.@Nullable Found found) throws IOException {
        if (found == null) {
            return null;
        }
        if (found.place() != lookedInto) {
            lookedInto = found.place();
            inPlace.clear();
            try {
                DocumentList.at(
                        connection,
                        found.place() >>> PLACE_BITS,
                        found.place() & (1L << PLACE_BITS) - 1,
                        (identity, document) -> inPlace.put(
                                identity,
                                new Earlier(
                                        document.reference(),
                                        document.file(),
                                        document.row(),
                                        document.day(),
                                        document.run())));
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
        return inPlace.get(found.identity());
    }

    @Override
    public @Nullable Earlier counterpart(String account, long amount, long day, long identity) throws IOException {
        List<Earlier> found = new ArrayList<>();
        LocalDate first = LocalDate.ofEpochDay(day - NEAR_DAYS);
        LocalDate last = LocalDate.ofEpochDay(day + NEAR_DAYS);
        String of = " d JOIN run ON run.id = run_id WHERE run.company = ? AND account = ? AND d.state <> 'withdrawn'"
                + " AND d.run_id <> " + run;
        try {
            for (String sql : List.of(
                    "SELECT run_id, place FROM document" + of + " AND day >= ? AND day <= ?" + database.standing(),
                    "SELECT run_id, place FROM document_pack" + of + " AND last_day >= ? AND first_day <= ?"
                            + database.standing())) {
                try (PreparedStatement query = connection.prepareStatement(sql)) {
                    query.setString(1, scope().company());
                    query.setString(2, account);
                    query.setString(3, first.toString());
                    query.setString(4, last.toString());
                    try (ResultSet rows = query.executeQuery()) {
                        while (rows.next()) {
                            DocumentList.at(connection, rows.getLong(1), rows.getLong(2), (own, document) -> {
                                boolean fits = document.amount().minor() == amount
                                        && !document.day().isBefore(first)
                                        && !document.day().isAfter(last);
                                if (fits) {
                                    found.add(new Earlier(
                                            document.reference(),
                                            document.file(),
                                            document.row(),
                                            document.day(),
                                            document.run()));
                                }
                            });
                        }
                    }
                }
            }
        } catch (SQLException e) {
            throw database.failure(e);
        }
        return found.isEmpty() ? null : found.get(0);
    }

    @Override
    public boolean covers(String account, long from, long to) {
        return known().covers(account, from, to);
    }

    @Override
    public void remember(Kind kind, RecordRange records, long identity, long figures, long content, long deliveries)
            throws IOException {
        if (deeds == null) {
            return;
        }
        try {
            long all = (1L << scope().deliveries().size()) - 1;
            deeds().add(kind, records, identity, figures, content, deliveries & all);
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    @Override
    public boolean foundChangedDays() {
        return known().foundChangedDays();
    }

    @Override
    public @Nullable Closing lastClosing(String account, LocalDate day) throws IOException {
        // Of the last days delivered; those of one day are ordered by their runs.
        String sql = "SELECT closing, last_day, source_file, name FROM account_days JOIN run ON run.id = run_id"
                + " WHERE run.company = ? AND account = ?";
        String order = " ORDER BY last_day DESC, run_id DESC, place DESC";
        try (PreparedStatement query = connection.prepareStatement(sql + database.standing() + order)) {
            query.setString(1, scope().company());
            query.setString(2, account);
            try (ResultSet rows = query.executeQuery()) {
                if (!rows.next()) {
                    return null;
                }
                long closing = rows.getLong(1);
                LocalDate last = LocalDate.parse(rows.getString(2));
                return rows.wasNull() && closing == 0 || last.isAfter(day) || rows.getObject(1) == null
                        ? null
                        : new Closing(closing, last, rows.getString(3), rows.getString(4));
            }
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    @Override
    public void startOver() throws IOException {
        known().startOver();
        if (deeds != null) {
            try {
                restart();
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
    }

    /**
     * Notes for good what the run is about to publish. A run without documents leaves no trace.
     *
     * @param stagedEvidence the hidden evidence folder; {@code null} for none
     * @param evidence the name it is to get; {@code null} for none
     */
    public void prepared(RunReport report, @Nullable String stagedEvidence, @Nullable String evidence)
            throws IOException {
        try {
            if (deeds().documents() == 0) {
                connection.rollback();
                return;
            }
            deeds().finish(report, stagedEvidence, evidence);
            database.commit();
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    /** Notes for good that all files have their names. */
    public void published(List<PreparedFile> files) throws IOException {
        if (deeds().documents() > 0) {
            publish(run, files);
        }
    }

    private void publish(long of, List<PreparedFile> files) throws IOException {
        try (PreparedStatement name = connection.prepareStatement(
                        "UPDATE delivered_file SET name = ? WHERE run_id = ? AND place = ?");
                Statement state = connection.createStatement()) {
            for (int i = 0; i < files.size(); i++) {
                name.setString(1, files.get(i).name());
                name.setLong(2, of);
                name.setLong(3, i);
                name.addBatch();
            }
            name.executeBatch();
            state.executeUpdate("UPDATE run SET state = 'published' WHERE id = " + of);
            database.commit();
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    /** Hands out all documents of a company, run by run in the order in which they were delivered. */
    public void documents(String company, Consumer<RegisteredDocument> target) throws IOException {
        list(company, new DocumentList.Wanted(null, null), target);
    }

    /** The documents of a company with this reference. */
    public List<RegisteredDocument> find(String company, String reference) throws IOException {
        List<RegisteredDocument> found = new ArrayList<>();
        list(company, new DocumentList.Wanted(reference, null), found::add);
        return found;
    }

    private void list(String company, DocumentList.Wanted wanted, Consumer<RegisteredDocument> target)
            throws IOException {
        try (Statement statement = connection.createStatement();
                ResultSet runs = statement.executeQuery("SELECT id, company, name, state FROM run ORDER BY id")) {
            while (runs.next()) {
                if (runs.getString(2).equals(company)) {
                    boolean published = DocumentList.isPublished(runs.getString(4));
                    new DocumentList(connection, runs.getLong(1), runs.getString(3), published)
                            .all(wanted, (identity, document) -> target.accept(document));
                }
            }
        } catch (SQLException e) {
            throw database.failure(e);
        }
    }

    @Override
    public void close() {
        if (known != null) {
            known().close();
        }
        if (index != null) {
            index.close();
        }
        database.close();
    }
}
