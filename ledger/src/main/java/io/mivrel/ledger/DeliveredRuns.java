package io.mivrel.ledger;

import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a register knows of the deliveries of a company, and the way to take one back: its documents are withdrawn, so that
 * the next run delivers them again. Nothing is ever removed from the register.
 */
public final class DeliveredRuns {
    private DeliveredRuns() {}

    /**
     * One run that delivered something.
     *
     * @param number by which it can be taken back
     * @param name of the run
     * @param began its instant, as ISO 8601 writes it
     * @param documents how many it delivered
     * @param files that it delivered
     * @param back what is told of its taking back; {@code null} when it stands
     */
    public record DeliveredRun(
            long number,
            String name,
            String began,
            String kind,
            long documents,
            List<FileOfRun> files,
            @Nullable TakenBack back) {}

    /** One delivered file. Amounts in minor units, {@code minus} without sign. */
    public record FileOfRun(String name, String delivery, long documents, long plus, long minus, String currency) {}

    /** Who took a run back, when and why. */
    public record TakenBack(LocalDate day, String who, String why) {}

    /**
     * Days of a bank account that a run delivered.
     *
     * @param closing in minor units; {@code null} when it is not known
     */
    public record AccountDays(
            String account,
            LocalDate from,
            LocalDate to,
            @Nullable Long closing,
            String currency,
            String file) {}

    /** The runs of a company that delivered something, the earliest first. */
    public static List<DeliveredRun> of(RegisterPlace place, String company) throws IOException {
        try (RegisterDatabase database = RegisterDatabase.openToRead(place)) {
            try {
                return list(database, company);
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
    }

    private static List<DeliveredRun> list(RegisterDatabase database, String company) throws SQLException {
        Map<Long, List<FileOfRun>> files = files(database.connection());
        Map<Long, TakenBack> back = takenBack(database);
        List<DeliveredRun> runs = new ArrayList<>();
        try (PreparedStatement query = database.connection()
                .prepareStatement("SELECT id, name, began, kind, documents FROM run WHERE company = ?"
                        + " AND state = 'published' ORDER BY id")) {
            query.setString(1, company);
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    long id = rows.getLong(1);
                    if (files.containsKey(id)) {
                        runs.add(new DeliveredRun(
                                id,
                                rows.getString(2),
                                rows.getString(3),
                                rows.getString(4),
                                rows.getLong(5),
                                files.getOrDefault(id, List.of()),
                                back.get(id)));
                    }
                }
            }
        }
        return runs;
    }

    private static Map<Long, List<FileOfRun>> files(Connection connection) throws SQLException {
        Map<Long, List<FileOfRun>> files = new LinkedHashMap<>();
        try (PreparedStatement query =
                        connection.prepareStatement("SELECT run_id, name, delivery, documents, plus, minus,"
                                + " currency FROM delivered_file ORDER BY run_id, place");
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                files.computeIfAbsent(rows.getLong(1), id -> new ArrayList<>())
                        .add(new FileOfRun(
                                rows.getString(2),
                                rows.getString(3),
                                rows.getLong(4),
                                rows.getLong(5),
                                rows.getLong(6),
                                rows.getString(7)));
            }
        }
        return files;
    }

    private static Map<Long, TakenBack> takenBack(RegisterDatabase database) throws SQLException {
        Map<Long, TakenBack> back = new LinkedHashMap<>();
        if (database.standing().isEmpty()) {
            return back;
        }
        try (PreparedStatement query =
                        database.connection().prepareStatement("SELECT run_id, day, who, why FROM taken_back");
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                back.put(
                        rows.getLong(1),
                        new TakenBack(LocalDate.parse(rows.getString(2)), rows.getString(3), rows.getString(4)));
            }
        }
        return back;
    }

    /** The days that are covered, by account and in their order; without those that were taken back. */
    public static List<AccountDays> days(RegisterPlace place, String company) throws IOException {
        try (RegisterDatabase database = RegisterDatabase.openToRead(place)) {
            try (PreparedStatement query = database.connection()
                    .prepareStatement("SELECT account, first_day, last_day, closing, currency, source_file FROM"
                            + " account_days JOIN run ON run.id = run_id WHERE run.company = ? AND run.state ="
                            + " 'published'" + database.standing() + " ORDER BY account, last_day, first_day")) {
                query.setString(1, company);
                List<AccountDays> days = new ArrayList<>();
                try (ResultSet rows = query.executeQuery()) {
                    while (rows.next()) {
                        long closing = rows.getLong(4);
                        days.add(new AccountDays(
                                rows.getString(1),
                                LocalDate.parse(rows.getString(2)),
                                LocalDate.parse(rows.getString(3)),
                                rows.wasNull() ? null : closing,
                                rows.getString(5),
                                rows.getString(6)));
                    }
                }
                return days;
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
    }

    /** Takes the deliveries of a run back; throws when there is no such run, or it was taken back before. */
    public static void takeBack(RegisterPlace place, String company, long run, TakenBack said) throws IOException {
        DeliveredRun wanted = of(place, company).stream()
                .filter(one -> one.number() == run)
                .findFirst()
                .orElseThrow(() -> new RegisterException("no run of " + company + " has the number " + run, null));
        if (wanted.back() != null) {
            throw new RegisterException(
                    "run " + run + " was taken back on " + wanted.back().day() + " by "
                            + wanted.back().who(),
                    null);
        }
        try (RegisterDatabase database = RegisterDatabase.open(place)) {
            Connection connection = database.connection();
            try {
                for (String table : List.of("document", "document_pack")) {
                    try (PreparedStatement update = connection.prepareStatement(
                            "UPDATE " + table + " SET state = 'withdrawn' WHERE run_id = ? AND state = 'delivered'")) {
                        update.setLong(1, run);
                        update.executeUpdate();
                    }
                }
                try (PreparedStatement insert =
                        connection.prepareStatement("INSERT INTO taken_back VALUES (?, ?, ?, ?)")) {
                    insert.setLong(1, run);
                    insert.setString(2, said.day().toString());
                    insert.setString(3, said.who());
                    insert.setString(4, said.why());
                    insert.executeUpdate();
                }
                connection.commit();
            } catch (SQLException e) {
                throw database.failure(e);
            }
        }
    }
}
