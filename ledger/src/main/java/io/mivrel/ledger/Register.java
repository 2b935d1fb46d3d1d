package io.mivrel.ledger;

import io.mivrel.run.DocumentHistory;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.concurrent.CompletableFuture;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConfig.TransactionMode;

/**
 * Mivrel's memory of what was delivered, in one SQLite file: the fingerprints of all documents that the runs of a name
 * have delivered, packed by the thousand. Format 2, kept in {@code user_version}; another one is refused.
 *
 * <p>Opening takes the register for one run: a second run waits up to ten seconds and then fails. Nothing is remembered
 * for good until {@link #commit}; closing without it forgets. For one thread.
 */
public final class Register implements DocumentHistory, AutoCloseable {
    private static final int FORMAT = 2;
    private static final int WAIT_MILLIS = 10_000;
    private static final int PACK = 8192;

    private final Path file;
    private final String run;
    private final Connection connection;
    private final Delivered delivered = new Delivered();
    private final ByteBuffer pack = ByteBuffer.allocate(PACK * 2 * Long.BYTES);
    private long lastKept;

    private Register(Path file, String run, Connection connection) {
        this.file = file;
        this.run = run;
        this.connection = connection;
    }

    /** Loads the database engine on a thread of its own, which takes a while, so that opening finds it ready. */
    public static void prepareEngine() {
        CompletableFuture.runAsync(Engine::load);
    }

    /** Opens the register for runs of a name, making it and its folder when missing. */
    public static Register open(Path file, String run) throws IOException {
        Files.createDirectories(file.toAbsolutePath().getParent());
        Engine.load();
        SQLiteConfig config = new SQLiteConfig();
        config.setBusyTimeout(WAIT_MILLIS);
        config.setTransactionMode(TransactionMode.IMMEDIATE);
        try {
            Connection connection = config.createConnection("jdbc:sqlite:" + file.toAbsolutePath());
            Register register = new Register(file, run, connection);
            try {
                connection.setAutoCommit(false);
                register.prepare();
                register.load();
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
                ? "is in use by another run; try again when that has ended"
                : "cannot be used: " + message;
        return new RegisterException(file + ": the register " + why, e);
    }

    private void prepare() throws SQLException, IOException {
        try (Statement statement = connection.createStatement()) {
            // An update takes the register at once, rather than when the first document is remembered.
            statement.executeUpdate("CREATE TABLE IF NOT EXISTS delivered ("
                    + "id INTEGER PRIMARY KEY, run TEXT NOT NULL, fingerprints BLOB NOT NULL)");
            int format;
            try (ResultSet version = statement.executeQuery("PRAGMA user_version")) {
                format = version.getInt(1);
            }
            if (format > FORMAT) {
                throw new RegisterException(
                        file + ": the register has format " + format + ", and this Mivrel knows formats up to "
                                + FORMAT,
                        null);
            }
            if (format != 0 && format < FORMAT) {
                // Its fingerprints were worked out in another way: every document would look new.
                throw new RegisterException(
                        file + ": the register has format " + format + " of an early build, and what it holds cannot be"
                                + " compared any more; move it away, and leave out by date what was delivered",
                        null);
            }
            statement.executeUpdate("PRAGMA user_version = " + FORMAT);
        }
    }

    private void load() throws SQLException {
        try (PreparedStatement query =
                connection.prepareStatement("SELECT id, fingerprints FROM delivered WHERE run = ? ORDER BY id")) {
            query.setString(1, run);
            try (ResultSet packs = query.executeQuery()) {
                while (packs.next()) {
                    ByteBuffer longs = ByteBuffer.wrap(packs.getBytes(2));
                    while (longs.remaining() >= 2 * Long.BYTES) {
                        delivered.add(longs.getLong(), longs.getLong());
                    }
                }
            }
        }
        try (Statement statement = connection.createStatement();
                ResultSet last = statement.executeQuery("SELECT coalesce(max(id), 0) FROM delivered")) {
            lastKept = last.getLong(1);
        }
    }

    @Override
    public Verdict judge(long identity, long content) {
        return delivered.judge(identity, content);
    }

    @Override
    public void remember(long identity, long content) throws IOException {
        pack.putLong(identity).putLong(content);
        if (!pack.hasRemaining()) {
            store();
        }
    }

    private void store() throws IOException {
        if (pack.position() == 0) {
            return;
        }
        byte[] bytes = new byte[pack.position()];
        pack.flip().get(bytes);
        pack.clear();
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO delivered (run, fingerprints) VALUES (?, ?)")) {
            insert.setString(1, run);
            insert.setBytes(2, bytes);
            insert.executeUpdate();
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    @Override
    public void startOver() throws IOException {
        pack.clear();
        delivered.startOver();
        try (PreparedStatement delete = connection.prepareStatement("DELETE FROM delivered WHERE id > ?")) {
            delete.setLong(1, lastKept);
            delete.executeUpdate();
        } catch (SQLException e) {
            throw failure(file, e);
        }
    }

    /** Makes all that was remembered last for good. */
    public void commit() throws IOException {
        store();
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
