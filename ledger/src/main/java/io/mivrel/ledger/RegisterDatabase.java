package io.mivrel.ledger;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConfig.TransactionMode;

/**
 * The database of a register, and the lock that lets one run at a time use it: SQLite in a file, or PostgreSQL on a server.
 * The statements that both understand stand in {@link Register}; what differs stands here.
 */
final class RegisterDatabase implements AutoCloseable {
    /** The format that this Mivrel writes. */
    static final int FORMAT = 10;
    /** The first format that is still read; its registers get what they lack by {@code register-N.sql}. */
    private static final int OLDEST = 3;

    private static final int WAIT_MILLIS = 10_000;
    /** Posting may take long, and who waits for it then sees what was posted. */
    private static final int POSTING_WAIT_MILLIS = 600_000;

    /** Keys come in no order, so that their index is written all over; negative, it is in KiB. */
    private static final int POSTING_CACHE_KIB = -32_768;

    private static final int LOOK_AGAIN_MILLIS = 50;
    /** The number of the lock that runs on a server take; no other program has a reason to. */
    private static final long SERVER_LOCK = 0x6D697672656CL;

    private final RegisterPlace place;
    private final Connection connection;
    private final @Nullable FileChannel lockFile;

    private RegisterDatabase(RegisterPlace place, Connection connection, @Nullable FileChannel lockFile) {
        this.place = place;
        this.connection = connection;
        this.lockFile = lockFile;
    }

    /** Opens it for one run, which no other run can do until it is closed; makes it when it is missing. */
    static RegisterDatabase open(RegisterPlace place) throws IOException {
        if (place.file() == null) {
            return onServer(place);
        }
        Files.createDirectories(place.file().toAbsolutePath().getParent());
        FileChannel lock = lock(place, ".lock", WAIT_MILLIS);
        @Nullable Connection connection = null;
        try {
            connection = file(place, false);
            RegisterDatabase database = new RegisterDatabase(place, connection, lock);
            database.checkFile();
            database.prepareSchema();
            return database;
        } catch (SQLException | IOException e) {
            close(connection);
            lock.close();
            throw e instanceof SQLException failed ? failure(place, failed) : (IOException) e;
        }
    }

    /**
     * Opens it for one program that posts, which waits for another that does; makes it when it is missing. It does not keep
     * runs from using the register, and each of its transactions waits for theirs.
     */
    static RegisterDatabase openToPost(RegisterPlace place) throws IOException {
        // Runs and posting make the tables alike, so the first one to come does.
        open(place).close();
        FileChannel lock = place.file() == null ? null : lock(place, ".posting", POSTING_WAIT_MILLIS);
        @Nullable Connection connection = null;
        boolean ready = false;
        try {
            connection = place.file() == null ? server(place) : file(place, false);
            RegisterDatabase database = new RegisterDatabase(place, connection, lock);
            if (place.file() != null) {
                // Left to itself the driver holds a transaction all the time, which would keep runs out.
                connection.setAutoCommit(true);
                try (Statement statement = connection.createStatement()) {
                    statement.execute("PRAGMA cache_size = " + POSTING_CACHE_KIB);
                }
            } else {
                database.lockServer(SERVER_LOCK + 1, POSTING_WAIT_MILLIS);
            }
            ready = true;
            return database;
        } catch (SQLException e) {
            throw failure(place, e);
        } finally {
            if (!ready) {
                close(connection);
                if (lock != null) {
                    lock.close();
                }
            }
        }
    }

    /** Opens one that exists, to look at only. */
    static RegisterDatabase openToRead(RegisterPlace place) throws IOException {
        try {
            RegisterDatabase database =
                    new RegisterDatabase(place, place.file() == null ? server(place) : file(place, true), null);
            if (place.file() != null) {
                database.checkFile();
            }
            if (database.format() < OLDEST || database.format() > FORMAT) {
                throw database.wrongFormat(database.format());
            }
            return database;
        } catch (SQLException e) {
            throw failure(place, e);
        }
    }

    /** True when there is a register to look at: a file without content is none. */
    static boolean exists(RegisterPlace place) {
        try {
            return place.file() == null || Files.exists(place.file()) && Files.size(place.file()) > 0;
        } catch (IOException unreadable) {
            // What is there and cannot be looked at is told when it is opened.
            return true;
        }
    }

    private static RegisterDatabase onServer(RegisterPlace place) throws IOException {
        @Nullable Connection connection = null;
        try {
            connection = server(place);
            RegisterDatabase database = new RegisterDatabase(place, connection, null);
            database.lockServer(SERVER_LOCK, WAIT_MILLIS);
            database.prepareSchema();
            return database;
        } catch (SQLException | IOException e) {
            close(connection);
            throw e instanceof SQLException failed ? failure(place, failed) : (IOException) e;
        }
    }

    private static SQLException noDriver() {
        return new SQLException("there is no driver for it; add io.mivrel:mivrel-extras to the class path");
    }

    private static Connection server(RegisterPlace place) throws SQLException {
        String url = Objects.requireNonNull(place.url());
        if (DriverManager.drivers().noneMatch(driver -> accepts(driver, url))) {
            throw noDriver();
        }
        Connection connection = DriverManager.getConnection(url, place.user(), place.password());
        connection.setAutoCommit(false);
        return connection;
    }

    private static boolean accepts(Driver driver, String url) {
        try {
            return driver.acceptsURL(url);
        } catch (SQLException refused) {
            return false;
        }
    }

    private static Connection file(RegisterPlace place, boolean readOnly) throws SQLException {
        try {
            return connect(place, readOnly);
        } catch (NoClassDefFoundError absent) {
            throw noDriver();
        }
    }

    private static Connection connect(RegisterPlace place, boolean readOnly) throws SQLException {
        Engine.load();
        SQLiteConfig config = new SQLiteConfig();
        config.setBusyTimeout(WAIT_MILLIS);
        config.setReadOnly(readOnly);
        if (!readOnly) {
            config.setTransactionMode(TransactionMode.IMMEDIATE);
        }
        Connection connection = config.createConnection(
                "jdbc:sqlite:" + Objects.requireNonNull(place.file()).toAbsolutePath());
        connection.setAutoCommit(false);
        return connection;
    }

    // The lock is the process's: one that dies lets it go.
    private static FileChannel lock(RegisterPlace place, String ending, long wait) throws IOException {
        Path register = Objects.requireNonNull(place.file());
        Path file = register.resolveSibling(register.getFileName() + ending);
        FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        long end = System.nanoTime() + wait * 1_000_000L;
        while (true) {
            FileLock lock;
            try {
                lock = channel.tryLock();
            } catch (OverlappingFileLockException heldInThisProcess) {
                lock = null;
            }
            if (lock != null) {
                return channel;
            }
            if (System.nanoTime() > end) {
                channel.close();
                throw inUse(place);
            }
            pause(channel);
        }
    }

    private static void pause(FileChannel channel) throws IOException {
        try {
            Thread.sleep(LOOK_AGAIN_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            channel.close();
            throw new IOException("interrupted", e);
        }
    }

    private void lockServer(long number, long wait) throws SQLException, IOException {
        long end = System.nanoTime() + wait * 1_000_000L;
        try (PreparedStatement query = connection.prepareStatement("SELECT pg_try_advisory_lock(?)")) {
            query.setLong(1, number);
            while (true) {
                try (ResultSet got = query.executeQuery()) {
                    got.next();
                    if (got.getBoolean(1)) {
                        connection.commit();
                        return;
                    }
                }
                if (System.nanoTime() > end) {
                    throw inUse(place);
                }
                Thread.sleep(LOOK_AGAIN_MILLIS);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }

    private static RegisterException inUse(RegisterPlace place) {
        return new RegisterException(
                place + ": the register is in use by another run; try again when that has ended", null);
    }

    // Looks at the structure of the whole file: pages, indexes, row formats.
    private void checkFile() throws SQLException, IOException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("PRAGMA quick_check(1)")) {
            if (result.next() && !result.getString(1).equals("ok")) {
                throw damaged(result.getString(1));
            }
        }
        connection.rollback();
    }

    RegisterException damaged(String what) {
        return new RegisterException(
                place + ": the register is damaged (" + what
                        + "). Put back a copy of it from before the damage; without it,"
                        + " what was delivered is not known",
                null);
    }

    private void prepareSchema() throws SQLException, IOException {
        int format = format();
        if (format == FORMAT) {
            return;
        }
        if (format > FORMAT || format > 0 && format < OLDEST) {
            throw wrongFormat(format);
        }
        for (int next = Math.max(OLDEST, format + 1); next <= FORMAT; next++) {
            execute(script("register-" + next + ".sql"));
        }
        connection.commit();
    }

    private void execute(String script) throws SQLException {
        for (String command : script.split(";")) {
            String sql = command.replaceAll("(?m)^\\s*--.*$", "").strip();
            if (!sql.isEmpty()) {
                try (Statement statement = connection.createStatement()) {
                    statement.executeUpdate(sql);
                }
            }
        }
    }

    private static String script(String name) throws IOException {
        try (InputStream in = RegisterDatabase.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IOException("the script " + name + " is missing");
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private RegisterException wrongFormat(int format) {
        return new RegisterException(
                format > FORMAT
                        ? place + ": the register has format " + format + ", and this Mivrel knows formats up to "
                                + FORMAT
                        : place + ": the register has format " + format
                                + " of an early build, and what it holds cannot be"
                                + " compared any more; move it away, and leave out by date what was delivered",
                null);
    }

    /** 0 for an empty database. */
    int format() throws SQLException {
        if (place.file() != null) {
            try (Statement statement = connection.createStatement();
                    ResultSet version = statement.executeQuery("PRAGMA user_version")) {
                int early = version.getInt(1);
                if (early != 0) {
                    return early;
                }
            }
        }
        try (ResultSet tables = connection.getMetaData().getTables(null, null, "register_format", null)) {
            if (!tables.next()) {
                return 0;
            }
        }
        try (Statement statement = connection.createStatement();
                ResultSet format = statement.executeQuery("SELECT max(format) FROM register_format")) {
            format.next();
            return format.getInt(1);
        }
    }

    Connection connection() {
        return connection;
    }

    /** A condition that leaves out runs that were taken back, where the register can have any. */
    String standing() throws SQLException {
        return format() < 6 ? "" : " AND run_id NOT IN (SELECT run_id FROM taken_back)";
    }

    /**
     * Waits for readers at the commit alone. A transaction that outgrows the engine's cache asks for the whole file again and
     * again on its way and can do without: with a wait each time, a run beside a reader would not end.
     */
    void waitAtCommitOnly() throws SQLException {
        waitAtMost(0);
    }

    /** Commits, after waiting for readers of the file. */
    void commit() throws SQLException {
        waitAtMost(WAIT_MILLIS);
        if (connection.getAutoCommit()) {
            execute("COMMIT");
        } else {
            connection.commit();
        }
    }

    /** Begins a transaction that writes, where it does not begin by itself. */
    void begin() throws SQLException {
        if (connection.getAutoCommit()) {
            waitAtMost(WAIT_MILLIS);
            execute("BEGIN IMMEDIATE");
        }
    }

    private void waitAtMost(int millis) throws SQLException {
        if (place.file() != null) {
            try (Statement statement = connection.createStatement()) {
                statement.execute("PRAGMA busy_timeout = " + millis);
            }
        }
    }

    RegisterException failure(SQLException e) {
        return failure(place, e);
    }

    private static RegisterException failure(RegisterPlace place, SQLException e) {
        String message = e.getMessage() == null ? "" : e.getMessage();
        boolean busy = message.contains("BUSY") || message.contains("locked");
        return busy ? inUse(place) : new RegisterException(place + ": the register cannot be used: " + message, e);
    }

    private static void close(@Nullable Connection connection) {
        try {
            if (connection != null) {
                connection.close();
            }
        } catch (SQLException alreadyGone) {
            // There is nothing to save.
        }
    }

    void rollback() {
        try {
            if (connection.getAutoCommit()) {
                execute("ROLLBACK");
            } else {
                connection.rollback();
            }
        } catch (SQLException nothingBegun) {
            // There is nothing to take back.
        }
    }

    @Override
    public void close() {
        rollback();
        close(connection);
        try {
            if (lockFile != null) {
                lockFile.close();
            }
        } catch (IOException alreadyGone) {
            // The lock goes with the process.
        }
    }
}
