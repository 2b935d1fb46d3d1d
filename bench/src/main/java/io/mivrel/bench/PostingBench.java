package io.mivrel.bench;

import io.mivrel.books.AccountType;
import io.mivrel.books.Books;
import io.mivrel.books.Period;
import io.mivrel.ledger.PostingRegister;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.EntrySource;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.Poster;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.Proof;
import io.mivrel.posting.Prover;
import io.mivrel.posting.RetryPolicy;
import io.mivrel.posting.SourcedEntry;
import io.mivrel.posting.Standing;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.PracticePlace;
import io.mivrel.practice.web.PracticeServer;
import io.mivrel.practice.web.WebLedger;
import io.mivrel.practice.web.WebPlace;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import org.postgresql.PGConnection;

/**
 * Posting, beside a bare bulk insert of the same rows, committed as often: into tables without a key or an index, and into
 * tables with the keys and indexes of the books, by which a document is found again; neither checks anything. Arguments: the
 * number of lines, the rounds. Prints a table; the figures of one round stand beside one another.
 */
public final class PostingBench {
    private static final Currency POUND = Currency.getInstance("GBP");
    private static final int ACCOUNTS = 400;
    private static final int PARCEL = 20_000;
    private static final int DAYS = 365;
    private static final LocalDate FIRST = LocalDate.of(2027, 1, 1);
    private static final String TOKEN = "a token for the bench";

    private PostingBench() {}

    /** Entries of two and three lines in turn. */
    private record Entries(int lines) implements EntrySource {
        static Entry entry(int i) {
            String text = "casting and tuning, order " + i;
            long amount = 1_000 + i % 977_777;
            EntryLine bank = EntryLine.of(Integer.toString(1000 + i % ACCOUNTS), -amount, text);
            List<EntryLine> lines = i % 2 == 0
                    ? List.of(EntryLine.of(Integer.toString(1000 + (i + 7) % ACCOUNTS), amount, text), bank)
                    : List.of(
                            EntryLine.of(Integer.toString(1000 + (i + 7) % ACCOUNTS), amount - 333, text),
                            EntryLine.of(Integer.toString(1000 + (i + 9) % ACCOUNTS), 333, text),
                            bank);
            // As keys are: the digits of a hash.
            String key = Long.toString(i * 0x9E3779B97F4A7C15L >>> 1, 32).toUpperCase(Locale.ROOT);
            return Entry.of(key, "journals", "TR-" + i, FIRST.plusDays(i % DAYS), POUND, "", lines);
        }

        @Override
        public long size() {
            return lines * 2L / 5;
        }

        @Override
        public void entries(Target target) throws java.io.IOException {
            for (int i = 0; i < size(); i++) {
                target.take(new SourcedEntry(entry(i), "bench.csv", new long[] {i + 1}));
            }
        }

        /** Handed out in parcels, with nothing else done. */
        void parcels(Parcels target) throws Exception {
            List<Entry> parcel = new ArrayList<>(PARCEL);
            for (int i = 0; i < size(); i++) {
                parcel.add(entry(i));
                if (parcel.size() == PARCEL || i == size() - 1) {
                    target.take(parcel);
                    parcel.clear();
                }
            }
        }
    }

    private interface Parcels {
        void take(List<Entry> parcel) throws Exception;
    }

    private interface Work {
        void run() throws Exception;
    }

    private static double seconds(Work work) throws Exception {
        long begin = System.nanoTime();
        work.run();
        return (System.nanoTime() - begin) / 1e9;
    }

    private static Books books() {
        Books.Builder books =
                Books.named("Larkmoor Bell Foundry", POUND).period(Period.open(FIRST, FIRST.plusDays(DAYS)));
        for (int i = 0; i < ACCOUNTS; i++) {
            books.account(Integer.toString(1000 + i), "Account " + i, AccountType.EXPENSE);
        }
        return books.build();
    }

    /** Runs. */
    public static void main(String[] args) throws Exception {
        int lines = args.length > 0 ? Integer.parseInt(args[0]) : 1_000_000;
        int rounds = args.length > 1 ? Integer.parseInt(args[1]) : 3;
        Entries entries = new Entries(lines);
        System.out.println("| round | into | what | seconds | lines/s | of bare | of bare with keys |");
        System.out.println("|---|---|---|---|---|---|---|");
        try (EmbeddedPostgres server =
                EmbeddedPostgres.builder().setLocaleConfig("locale", "C").start()) {
            for (int round = 1; round <= rounds; round++) {
                Path folder = Files.createTempDirectory("mivrel-bench");
                new Round(round, "SQLite", entries, bareFile(folder.resolve("bare.db"), entries, List.of()))
                        .run(folder, "", bareFile(folder.resolve("keyed.db"), entries, FILE_KEYS));
                try (Connection main = server.getPostgresDatabase().getConnection()) {
                    main.createStatement().executeUpdate("CREATE DATABASE bench_" + round);
                }
                String url = server.getJdbcUrl("postgres", "bench_" + round);
                new Round(round, "PostgreSQL", entries, bareServer(url, entries, List.of()))
                        .run(folder, url, bareServer(url, entries, SERVER_KEYS));
                web(round, folder);
            }
        }
    }

    /** One round into one database; {@code bare} is how long the bare insert took. */
    private record Round(int round, String into, Entries entries, double bare) {
        private void print(String what, double seconds, double keyed) {
            System.out.printf(
                    Locale.ROOT,
                    "| %d | %s | %s | %.2f | %,.0f | %.2f | %.2f |%n",
                    round,
                    into,
                    what,
                    seconds,
                    entries.lines / seconds,
                    bare / seconds,
                    keyed / seconds);
        }

        private void run(Path folder, String url, double keyed) throws Exception {
            print("bare bulk insert", bare, keyed);
            print("bare bulk insert with keys", keyed, keyed);
            Batch batch = new Batch("batch", "Batch", FIRST, Standing.DRAFT);
            try (PracticeLedger ledger = open(folder.resolve("alone.db"), url, books())) {
                double alone = seconds(() -> entries.parcels(parcel -> ledger.post(batch, PostMode.ADD, parcel)));
                print("practice books, all checks", alone, keyed);
            }
            if (!url.isEmpty()) {
                try (Connection connection = DriverManager.getConnection(url, "postgres", "postgres");
                        Statement statement = connection.createStatement()) {
                    statement.execute("DROP SCHEMA practice CASCADE");
                }
            }
            try (PracticeLedger ledger = open(folder.resolve("whole.db"), url, books());
                    PostingRegister log = PostingRegister.open(
                            RegisterPlace.file(folder.resolve(into + "-register.db")),
                            "Larkmoor Bell Foundry",
                            "bench")) {
                print("posting, with the register", seconds(() -> post(ledger, log, entries)), keyed);
                print("proving", seconds(() -> prove(ledger, log)), keyed);
            }
        }
    }

    private static PracticeLedger open(Path file, String url, Books books) throws Exception {
        PracticePlace place =
                url.isEmpty() ? PracticePlace.file(file) : PracticePlace.server(url, "postgres", "postgres");
        return PracticeLedger.openOrCreate("bench", place, books);
    }

    private static void post(Ledger ledger, PostingLog log, EntrySource entries) throws Exception {
        Batch batch = new Batch("batch", "Batch", FIRST, Standing.DRAFT);
        new Poster(ledger, log, RetryPolicy.USUAL)
                .post(
                        new Poster.Order(batch, "bench", PostMode.ADD, 0, Instant.now(), List.of()),
                        entries,
                        (sent, all) -> {});
    }

    private static void prove(Ledger ledger, PostingLog log) throws Exception {
        Proof proof =
                new Prover(ledger, log, RetryPolicy.USUAL).prove(log.batches().get(0));
        if (!proof.holds()) {
            throw new IllegalStateException(proof.differences().toString());
        }
    }

    // A thousand documents over HTTP on this machine, with the proof.
    private static void web(int round, Path folder) throws Exception {
        try (PracticeLedger behind = open(folder.resolve("web.db"), "", books());
                PracticeServer server = PracticeServer.start(behind, PracticeServer.Settings.local(0, TOKEN));
                Ledger ledger = new WebLedger("bench", new WebPlace(server.address(), TOKEN, null));
                PostingRegister log = PostingRegister.open(
                        RegisterPlace.file(folder.resolve("web-register.db")), "Larkmoor Bell Foundry", "bench")) {
            double taken = seconds(() -> {
                post(ledger, log, new Entries(2_500));
                prove(ledger, log);
            });
            System.out.printf(
                    Locale.ROOT, "| %d | HTTP | 1,000 documents posted and proved | %.2f | | | |%n", round, taken);
        }
    }

    private static double bareFile(Path file, Entries entries, List<String> keys) throws Exception {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            // As the practice ledger has them.
            for (String pragma : List.of("synchronous = FULL", "journal_mode = WAL", "cache_size = -65536")) {
                try (Statement statement = connection.createStatement()) {
                    statement.execute("PRAGMA " + pragma);
                }
            }
            makeTables(connection, keys);
            connection.setAutoCommit(false);
            try (PreparedStatement entry = connection.prepareStatement(
                            "INSERT INTO entry VALUES (?, 1, 1, ?, ?, ?, ?, ?, ?, ?, ?, 'draft', 1, NULL, NULL)");
                    PreparedStatement line = connection.prepareStatement(
                            "INSERT INTO entry_line VALUES (?, ?, ?, ?, ?, NULL, NULL, NULL, NULL, NULL)")) {
                long[] id = {0};
                return seconds(() -> entries.parcels(parcel -> {
                    for (Entry one : parcel) {
                        entry.setLong(1, ++id[0]);
                        entry.setString(2, one.key());
                        entry.setString(3, one.digest());
                        entry.setString(4, one.kind());
                        entry.setString(5, one.reference());
                        entry.setString(6, one.date().toString());
                        entry.setString(7, "GBP");
                        entry.setString(8, one.narrative());
                        entry.setLong(9, one.lines().size());
                        entry.addBatch();
                        int place = 0;
                        for (EntryLine each : one.lines()) {
                            line.setLong(1, id[0]);
                            line.setLong(2, ++place);
                            line.setLong(3, Long.parseLong(each.account()));
                            line.setLong(4, each.minor());
                            line.setString(5, each.narrative());
                            line.addBatch();
                        }
                    }
                    entry.executeBatch();
                    line.executeBatch();
                    connection.commit();
                }));
            }
        }
    }

    private static void makeTables(Connection connection, List<String> keys) throws Exception {
        try (Statement statement = connection.createStatement()) {
            statement.executeUpdate("DROP TABLE IF EXISTS entry");
            statement.executeUpdate("DROP TABLE IF EXISTS entry_line");
            statement.executeUpdate(BARE_ENTRY);
            statement.executeUpdate(BARE_LINE);
            for (String key : keys) {
                statement.executeUpdate(key);
            }
        }
    }

    private static double bareServer(String url, Entries entries, List<String> keys) throws Exception {
        try (Connection connection = DriverManager.getConnection(url, "postgres", "postgres")) {
            makeTables(connection, keys);
            connection.setAutoCommit(false);
            long[] id = {0};
            return seconds(() -> entries.parcels(parcel -> {
                StringBuilder heads = new StringBuilder();
                StringBuilder lines = new StringBuilder();
                for (Entry one : parcel) {
                    heads.append(++id[0])
                            .append("\t1\t1\t")
                            .append(one.key())
                            .append('\t')
                            .append(one.digest());
                    heads.append('\t').append(one.kind()).append('\t').append(one.reference());
                    heads.append('\t')
                            .append(one.date())
                            .append("\tGBP\t")
                            .append(one.narrative())
                            .append('\t');
                    heads.append(one.lines().size()).append("\tdraft\t1\t\\N\t\\N\n");
                    int place = 0;
                    for (EntryLine each : one.lines()) {
                        lines.append(id[0])
                                .append('\t')
                                .append(++place)
                                .append('\t')
                                .append(each.account());
                        lines.append('\t').append(each.minor()).append('\t').append(each.narrative());
                        lines.append("\t\\N\t\\N\t\\N\t\\N\t\\N\n");
                    }
                }
                var copy = connection.unwrap(PGConnection.class).getCopyAPI();
                copy.copyIn("COPY entry FROM STDIN", bytes(heads));
                copy.copyIn("COPY entry_line FROM STDIN", bytes(lines));
                connection.commit();
            }));
        }
    }

    private static ByteArrayInputStream bytes(StringBuilder text) {
        return new ByteArrayInputStream(text.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static final String BARE_ENTRY =
            "CREATE TABLE entry (id BIGINT, company_id BIGINT, batch_id BIGINT, key TEXT, digest TEXT, kind TEXT,"
                    + " reference TEXT, day TEXT, currency TEXT, narrative TEXT, line_count BIGINT, standing TEXT,"
                    + " recorded BIGINT, removed BIGINT, reverses BIGINT)";

    private static final String BARE_LINE =
            "CREATE TABLE entry_line (entry_id BIGINT, place BIGINT, account_id BIGINT, minor BIGINT, narrative TEXT,"
                    + " tax_code TEXT, party TEXT, foreign_currency TEXT, foreign_minor BIGINT, dimensions TEXT)";

    private static final List<String> KEYS = List.of(
            "CREATE UNIQUE INDEX entry_id ON entry (id)",
            "CREATE UNIQUE INDEX line_id ON entry_line (entry_id, place)",
            "CREATE UNIQUE INDEX entry_by_key ON entry (company_id, key) WHERE standing IN ('draft', 'final')",
            "CREATE UNIQUE INDEX journal_by_reference ON entry (company_id, reference, substr(day, 1, 4))"
                    + " WHERE kind = 'journals' AND reverses IS NULL AND standing IN ('draft', 'final')");

    private static List<String> keys(String brin) {
        List<String> all = new ArrayList<>(KEYS);
        all.add("CREATE INDEX entry_by_batch ON entry " + brin + "(batch_id)");
        all.add("CREATE INDEX entry_by_recorded ON entry " + brin + "(recorded)");
        return all;
    }

    private static final List<String> FILE_KEYS = keys("");
    private static final List<String> SERVER_KEYS = keys("USING brin ");
}
