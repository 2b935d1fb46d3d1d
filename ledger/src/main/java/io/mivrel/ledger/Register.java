package io.mivrel.ledger;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.BitSet;
import java.util.Optional;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConfig.TransactionMode;

/**
 * Mivrel's memory of what was delivered, in one SQLite file. An input file is known by its SHA-256 digest; with it stand
 * the rows that were not delivered then, held or outside the wanted dates, since all its other rows are done with.
 *
 * <p>Opening takes the register for one run: a second run waits up to ten seconds and then fails. Nothing is remembered
 * until {@link #commit}. For one thread.
 */
public final class Register implements AutoCloseable {
    private static final int FORMAT = 1;
    private static final int WAIT_MILLIS = 10_000;

    private final Path file;
    private final Connection connection;

    private Register(Path file, Connection connection) {
        this.file = file;
        this.connection = connection;
    }

    /**
     * What an earlier run remembered of an input file.
     *
     * @param rowsLeft rows not delivered then, by physical line; the others are done with
     * @param deliveredAt when, in ISO 8601
     */
    public record Known(BitSet rowsLeft, String deliveredAt) {}

    /** Opens the register, making it and its folder when missing, and takes it for one run. */
    public static Register open(Path file) throws IOException {
        Files.createDirectories(file.toAbsolutePath().getParent());
        SQLiteConfig config = new SQLiteConfig();
        config.setBusyTimeout(WAIT_MILLIS);
        config.setTransactionMode(TransactionMode.IMMEDIATE);
        try {
            Connection connection = config.createConnection("jdbc:sqlite:" + file.toAbsolutePath());
            Register register = new Register(file, connection);
            try {
                connection.setAutoCommit(false);
                register.prepare();
                return register;
            } catch (SQLException | IOException e) {
                register.close();
                throw e;
            }
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    private static RegisterException failure(Path file, SQLException e) {
        String message = e.getMessage() == null ? "" : e.getMessage();
        String why = message.contains("BUSY") || message.contains("locked")
                ? "another run is using it; try again when that has ended"
                : "cannot be used: " + message;
        return new RegisterException(file + ": the register " + why, e);
    }

    private void prepare() throws SQLException, IOException {
        try (Statement statement = connection.createStatement()) {
            int format;
            try (ResultSet version = statement.executeQuery("PRAGMA user_version")) {
                format = version.getInt(1);
            }
            if (format > FORMAT) {
                throw new RegisterException(
                        file + ": the register has format " + format + ", and this Mivrel knows formats up to " + FORMAT,
                        null);
            }
            statement.executeUpdate("CREATE TABLE IF NOT EXISTS delivered ("
                    + "run TEXT NOT NULL, digest TEXT NOT NULL, bytes INTEGER NOT NULL, file TEXT NOT NULL,"
                    + " rows_left BLOB NOT NULL, at TEXT NOT NULL, PRIMARY KEY (run, digest)) WITHOUT ROWID");
            statement.executeUpdate("PRAGMA user_version = " + FORMAT);
        }
    }

    /** True when the run has delivered a file of this size before: only then is its digest worth asking for. */
    public boolean mayKnow(String run, long bytes) throws IOException {
        try (PreparedStatement query =
                connection.prepareStatement("SELECT 1 FROM delivered WHERE run = ? AND bytes = ? LIMIT 1")) {
            query.setString(1, run);
            query.setLong(2, bytes);
            try (ResultSet found = query.executeQuery()) {
                return found.next();
            }
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    /** What is known of a file with this digest. */
    public Optional<Known> known(String run, String digest) throws IOException {
        try (PreparedStatement query =
                connection.prepareStatement("SELECT rows_left, at FROM delivered WHERE run = ? AND digest = ?")) {
            query.setString(1, run);
            query.setString(2, digest);
            try (ResultSet found = query.executeQuery()) {
                return found.next()
                        ? Optional.of(new Known(BitSet.valueOf(found.getBytes(1)), found.getString(2)))
                        : Optional.empty();
            }
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    /** Remembers that a file was delivered but for some rows; replaces what was known. */
    public void remember(String run, String digest, long bytes, String name, BitSet rowsLeft, Instant at)
            throws IOException {
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT OR REPLACE INTO delivered (run, digest, bytes, file, rows_left, at) VALUES (?, ?, ?, ?, ?, ?)")) {
            insert.setString(1, run);
            insert.setString(2, digest);
            insert.setLong(3, bytes);
            insert.setString(4, name);
            insert.setBytes(5, rowsLeft.toByteArray());
            insert.setString(6, at.toString());
            insert.executeUpdate();
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    /** Makes all that was remembered last. */
    public void commit() throws IOException {
        try {
            connection.commit();
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    @Override
    public void close() {
        try {
            if (!connection.isClosed()) {
                connection.rollback();
            }
        } catch (SQLException nothingBegun) {
            // The connection is closed in any case.
        }
        try {
            connection.close();
        } catch (SQLException alreadyGone) {
            // There is nothing to save.
        }
    }
}
