package io.mivrel.practice;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.posting.Batch;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.Standing;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What must hold is held by the database itself, whatever program writes to it. */
public class ConstraintsTest {
    private static final String DEED = "INSERT INTO deed (id, company_id, at, what) VALUES (9, 1, 'now', 'test')";
    private static final String ENTRY =
            "INSERT INTO entry (id, company_id, key, digest, kind, reference, day, currency,"
                    + " narrative, line_count, standing, recorded) VALUES (50, 1, '%s', 'd', 'journals', '%s', '%s', 'GBP', '', %d,"
                    + " 'final', 9)";
    private static final String LINE = "INSERT INTO entry_line (entry_id, place, account_id, minor, narrative) VALUES"
            + " (50, %d, (SELECT id FROM account WHERE code = '%s'), %d, '')";

    @DataProvider
    public static Object[][] databases() {
        return new Object[][] {{false}, {true}};
    }

    private Connection open(boolean server) throws Exception {
        PracticePlace place = server
                ? ServerPromisesTest.newDatabase()
                : PracticePlace.file(Files.createTempDirectory("mivrel books").resolve("books.db"));
        try (PracticeLedger ledger = PracticeLedger.openOrCreate("practice", place, PosterProcess.Promised.BOOKS)) {
            Batch batch = new Batch("b", "b", LocalDate.of(2027, 3, 1), Standing.FINAL);
            ledger.post(batch, PostMode.ADD, List.of(PosterProcess.Entries.entry(1)));
        }
        Connection connection = server
                ? DriverManager.getConnection(place.url(), place.user(), place.password())
                : DriverManager.getConnection("jdbc:sqlite:" + place.file());
        try (Statement statement = connection.createStatement()) {
            statement.execute(server ? "SET search_path TO practice" : "PRAGMA foreign_keys = ON");
        }
        connection.setAutoCommit(false);
        return connection;
    }

    // True when all of it is accepted and committed.
    private static boolean isTaken(Connection connection, boolean server, String... statements) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.executeUpdate(
                    server
                            ? DEED.replace("what)", "what, first_entry, last_entry)")
                                    .replace("'test')", "'test', 50, 50)")
                            : DEED);
            for (String sql : statements) {
                statement.executeUpdate(sql);
            }
            connection.commit();
            return true;
        } catch (SQLException refused) {
            connection.rollback();
            return false;
        }
    }

    private static String entry(String key, String reference, String day, int lines) {
        return String.format(ENTRY, key, reference, day, lines);
    }

    private static String line(int place, String account, long minor) {
        return String.format(LINE, place, account, minor);
    }

    @Test(dataProvider = "databases")
    public void entriesThatAreNotRightAreRefused(boolean server) throws Exception {
        String first = line(1, "5010", 10);
        String second = line(2, "1200", -10);
        String right = entry("K", "A", "2027-03-01", 2);
        try (Connection books = open(server)) {
            assertThat(isTaken(books, server, first, line(2, "1200", -9), right))
                    .as("unbalanced")
                    .isFalse();
            assertThat(isTaken(books, server, first, second, entry("K", "A", "2027-03-01", 3)))
                    .as("a line short")
                    .isFalse();
            assertThat(isTaken(books, server, first, line(2, "6215", -10), right))
                    .as("a closed account")
                    .isFalse();
            assertThat(isTaken(books, server, first, second.replace("'1200'", "'none'"), right))
                    .as("no account")
                    .isFalse();
            assertThat(isTaken(books, server, first, second, entry("K", "A", "2027-01-15", 2)))
                    .as("a closed period")
                    .isFalse();
            assertThat(isTaken(books, server, first, second, entry("K1", "A", "2027-03-01", 2)))
                    .as("a key twice")
                    .isFalse();
            assertThat(isTaken(books, server, first, second, entry("K", "TR-1", "2027-03-01", 2)))
                    .as("a number twice")
                    .isFalse();
            assertThat(isTaken(books, server, first, second)).as("lines alone").isFalse();
            assertThat(isTaken(books, server, right))
                    .as("an entry without lines")
                    .isFalse();
            assertThat(isTaken(books, server, first, second, right))
                    .as("a right one")
                    .isTrue();
        }
    }

    @Test(dataProvider = "databases")
    public void whatIsRecordedStays(boolean server) throws Exception {
        try (Connection books = open(server)) {
            for (String sql : List.of(
                    "UPDATE entry_line SET minor = minor + 1",
                    "DELETE FROM entry_line",
                    "DELETE FROM entry",
                    "UPDATE entry SET day = '2027-03-31'",
                    "UPDATE entry SET standing = 'draft'",
                    "DELETE FROM deed",
                    "UPDATE deed SET what = 'nothing'",
                    "DELETE FROM account",
                    "INSERT INTO entry_line (entry_id, place, account_id, minor, narrative) VALUES (1, 9, 1, 0, '')")) {
                assertThat(isTaken(books, server, sql)).as(sql).isFalse();
            }
        }
    }
}
