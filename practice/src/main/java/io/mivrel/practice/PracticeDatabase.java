package io.mivrel.practice;

import io.mivrel.posting.LedgerException;
import java.io.IOException;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Collection;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConfig.JournalMode;
import org.sqlite.SQLiteConfig.SynchronousMode;

/** The connection to the books, and what SQLite and PostgreSQL do differently. */
final class PracticeDatabase implements AutoCloseable {
    private static final String SCHEMA = "practice";
    private static final String FILE_VERSION = "1";
    private static final String SERVER_VERSION = "2";
    /** Keys come in no order, so that their index is written all over; negative, it is in KiB. */
    private static final int CACHE_KIB = -65_536;

    private static final int WAIT_MILLIS = 30_000;
    /** Who writes to the books on a server waits for this lock, so that what is recorded has an order. */
    private static final long WRITERS = 0x6D69767072L;

    private final PracticePlace place;
    private final Connection connection;
    private final boolean onServer;

    private PracticeDatabase(PracticePlace place, Connection connection) {
        this.place = place;
        this.connection = connection;
        this.onServer = place.file() == null;
    }

    /** True when there is something at the place. */
    static boolean exists(PracticePlace place) {
        return place.file() == null || Files.exists(place.file());
    }

    static PracticeDatabase open(PracticePlace place) throws LedgerException {
        try {
            if (place.file() != null && place.file().toAbsolutePath().getParent() != null) {
                Files.createDirectories(place.file().toAbsolutePath().getParent());
            }
            try (PracticeDatabase asked = connect(place)) {
                if (asked.version().equals(place.file() == null ? SERVER_VERSION : FILE_VERSION)) {
                    return connect(place);
                }
            }
            migrate(place);
            return connect(place);
        } catch (FlywayException e) {
            throw new LedgerException(
                    LedgerException.Kind.REFUSED, place + ": its tables cannot be made: " + e.getMessage(), e);
        } catch (SQLException e) {
            throw failure(place, e, LedgerException.Kind.BUSY);
        } catch (IOException e) {
            throw new LedgerException(LedgerException.Kind.REFUSED, place + ": " + e.getMessage(), e);
        }
    }

    private static PracticeDatabase connect(PracticePlace place) throws SQLException {
        return new PracticeDatabase(place, place.file() == null ? server(place) : file(place));
    }

    private static Connection file(PracticePlace place) throws SQLException {
        SQLiteConfig config = new SQLiteConfig();
        config.setBusyTimeout(WAIT_MILLIS);
        config.enforceForeignKeys(true);
        config.setSynchronous(SynchronousMode.FULL);
        config.setJournalMode(JournalMode.WAL);
        config.setCacheSize(CACHE_KIB);
        // Transactions are begun and ended in so many words: left to itself the driver holds one all the time.
        return config.createConnection("jdbc:sqlite:" + place.file());
    }

    private static Connection server(PracticePlace place) throws SQLException {
        Connection connection = DriverManager.getConnection(place.url(), place.user(), place.password());
        connection.setSchema(SCHEMA);
        connection.setAutoCommit(false);
        // A plan made once for any list searches it from the start for each row: 20,000 keys took a minute and a half.
        connection.unwrap(PGConnection.class).setPrepareThreshold(0);
        try (Statement statement = connection.createStatement()) {
            // A parcel's rows, which the checks look at, stay in memory.
            statement.execute("SET SESSION work_mem = '32MB'");
            connection.commit();
        }
        return connection;
    }

    // Flyway takes its time, so it is only called when the books are not as they should be.
    private static void migrate(PracticePlace place) {
        boolean onServer = place.file() == null;
        String url = onServer ? place.url() : "jdbc:sqlite:" + place.file();
        Flyway.configure()
                .dataSource(url, place.user(), place.password())
                .locations("classpath:io/mivrel/practice/" + (onServer ? "postgresql" : "sqlite"))
                .schemas(onServer ? new String[] {SCHEMA} : new String[0])
                .load()
                .migrate();
    }

    private String version() throws SQLException {
        String schema = onServer ? SCHEMA : null;
        try (ResultSet tables = connection.getMetaData().getTables(null, schema, "flyway_schema_history", null)) {
            if (!tables.next()) {
                return "";
            }
        }
        try (Statement statement = connection.createStatement();
                ResultSet version =
                        statement.executeQuery("SELECT max(version) FROM flyway_schema_history WHERE success = "
                                + (onServer ? "true" : "1"))) {
            version.next();
            String found = version.getString(1);
            return found == null ? "" : found;
        }
    }

    Connection connection() {
        return connection;
    }

    boolean onServer() {
        return onServer;
    }

    private void execute(String sql) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    /** Begins to read. */
    void begin() throws SQLException {
        if (!onServer) {
            execute("BEGIN");
        }
    }

    void commit() throws SQLException {
        if (onServer) {
            connection.commit();
        } else {
            execute("COMMIT");
        }
    }

    /** Begins to write: nobody else does until the transaction ends. */
    void beginToWrite() throws SQLException {
        if (!onServer) {
            execute("BEGIN IMMEDIATE");
        } else {
            try (PreparedStatement lock = connection.prepareStatement("SELECT pg_advisory_xact_lock(?)")) {
                lock.setLong(1, WRITERS);
                lock.executeQuery().close();
            }
        }
    }

    /** A condition that a column is one of a list; the list is set by {@link #set}. */
    String in(String column) {
        return onServer ? column + " = ANY (?)" : column + " IN (SELECT value FROM json_each(?))";
    }

    /** Sets the list of a condition. */
    void set(PreparedStatement statement, int at, Collection<String> values) throws SQLException {
        if (onServer) {
            statement.setArray(at, connection.createArrayOf("text", values.toArray()));
        } else {
            statement.setString(at, JsonColumn.of(values));
        }
    }

    /** Sets the list of a condition on numbers. */
    void setNumbers(PreparedStatement statement, int at, Collection<Long> values) throws SQLException {
        if (onServer) {
            statement.setArray(at, connection.createArrayOf("bigint", values.toArray()));
        } else {
            statement.setString(at, values.toString());
        }
    }

    long number(String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            result.next();
            return result.getLong(1);
        }
    }

    void rollback() {
        try {
            if (onServer) {
                connection.rollback();
            } else {
                execute("ROLLBACK");
            }
        } catch (SQLException gone) {
            // Nothing of it was written either way.
        }
    }

    /** What to tell of a failure; {@code kind} is what is known when it is not clear that nothing was done. */
    LedgerException failure(SQLException e, LedgerException.Kind kind) {
        return failure(place, e, kind);
    }

    private static LedgerException failure(PracticePlace place, SQLException e, LedgerException.Kind kind) {
        String message = e.getMessage() == null ? "" : e.getMessage();
        boolean busy = message.contains("BUSY") || message.contains("locked");
        String state = e.getSQLState() == null ? "" : e.getSQLState();
        boolean wrong = state.startsWith("28") || state.startsWith("3D") || message.contains("No suitable driver");
        LedgerException.Kind known = wrong ? LedgerException.Kind.REFUSED : busy ? LedgerException.Kind.BUSY : kind;
        return new LedgerException(known, place + ": the practice ledger cannot be used: " + message, e);
    }

    /** A failed statement: a constraint of the database refuses, whatever is tried again. */
    static @Nullable String refused(SQLException e) {
        String message = e.getMessage() == null ? "" : e.getMessage();
        boolean constraint = message.contains("SQLITE_CONSTRAINT") || "P0001".equals(e.getSQLState());
        boolean taken = "23505".equals(e.getSQLState());
        return constraint || taken ? message : null;
    }

    @Override
    public void close() {
        rollback();
        try {
            connection.close();
        } catch (SQLException gone) {
            // It is closed in any case.
        }
    }
}
