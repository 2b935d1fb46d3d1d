package io.mivrel.ledger;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.concurrent.atomic.AtomicInteger;

/** A real PostgreSQL server, begun when the first database on it is asked for. */
public final class ServerForTests {
    private final AtomicInteger databases = new AtomicInteger();
    private EmbeddedPostgres server;
    private RegisterPlace reused;

    public synchronized RegisterPlace newDatabase() throws IOException {
        if (server == null) {
            server = EmbeddedPostgres.builder().setLocaleConfig("locale", "C").start();
            Runtime.getRuntime().addShutdownHook(new Thread(this::stop));
        }
        String name = "register_" + databases.incrementAndGet();
        try (Connection connection = server.getPostgresDatabase().getConnection()) {
            connection.createStatement().executeUpdate("CREATE DATABASE " + name);
        } catch (SQLException e) {
            throw new IOException(e);
        }
        return RegisterPlace.server(server.getJdbcUrl("postgres", name), "postgres", "postgres");
    }

    /** A database that is the same each time, emptied: to make a new one takes long. */
    public synchronized RegisterPlace emptied() throws IOException {
        if (reused == null) {
            reused = newDatabase();
        }
        try (Connection connection = DriverManager.getConnection(reused.url(), reused.user(), reused.password())) {
            connection.createStatement().execute("DROP SCHEMA IF EXISTS practice CASCADE");
            connection.createStatement().execute("DROP SCHEMA public CASCADE");
            connection.createStatement().execute("CREATE SCHEMA public");
            return reused;
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    private void stop() {
        try {
            server.close();
        } catch (IOException leftBehind) {
            // The server ends with its parent.
        }
    }
}
