package io.mivrel.ledger;

import io.mivrel.model.SourceFile;
import io.mivrel.money.Money;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Lists the documents of one run, whether each has a row of its own or they lie in packs. */
final class DocumentList {
    private final Connection connection;
    private final long run;
    private final String name;
    private final boolean published;
    private final List<String> deliveries = new ArrayList<>();

    DocumentList(Connection connection, long run, String name, boolean published) throws SQLException {
        this.connection = connection;
        this.run = run;
        this.name = name;
        this.published = published;
        try (PreparedStatement query =
                connection.prepareStatement("SELECT name FROM delivery WHERE run_id = ? ORDER BY place")) {
            query.setLong(1, run);
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    deliveries.add(rows.getString(1));
                }
            }
        }
    }

    private List<String> deliveries(long mask) {
        List<String> by = new ArrayList<>();
        for (int i = 0; i < deliveries.size(); i++) {
            if ((mask & 1L << i) != 0) {
                by.add(deliveries.get(i));
            }
        }
        return by;
    }

    /** Takes a document and its identity. */
    interface ByIdentity {
        void document(long identity, RegisteredDocument document);
    }

    /** Those of one place of a run: a document with a row of its own, or those of a pack. */
    static void at(Connection connection, long run, long place, ByIdentity target) throws SQLException {
        try (PreparedStatement query = connection.prepareStatement("SELECT name, state FROM run WHERE id = ?")) {
            query.setLong(1, run);
            try (ResultSet rows = query.executeQuery()) {
                if (rows.next()) {
                    new DocumentList(connection, run, rows.getString(1), isPublished(rows.getString(2)))
                            .all(new Wanted(null, place), target);
                }
            }
        }
    }

    static boolean isPublished(String stateOfRun) {
        return stateOfRun.equals("published");
    }

    /** Those with rows and those in packs. */
    void all(Wanted wanted, ByIdentity target) throws SQLException {
        rows(wanted, target);
        packs(wanted, target);
    }

    // What a run is about to deliver is delivered once the run is published; no row is written again for it.
    private String state(String state) {
        return published ? state : "intended";
    }

    /** Which documents are wanted: by reference, or by the place in the run; both {@code null} for all. */
    record Wanted(@Nullable String reference, @Nullable Long place) {}

    private void rows(Wanted wanted, ByIdentity target) throws SQLException {
        String sql =
                "SELECT kind, account, reference, day, amount, currency, state, source_file, source_row, deliveries, identity"
                        + " FROM document WHERE run_id = ?"
                        + (wanted.reference == null ? "" : " AND reference = ?")
                        + (wanted.place == null ? "" : " AND place = ?")
                        + " ORDER BY place";
        try (PreparedStatement query = connection.prepareStatement(sql)) {
            query.setLong(1, run);
            int at = 2;
            if (wanted.reference != null) {
                query.setString(at++, wanted.reference);
            }
            if (wanted.place != null) {
                query.setLong(at, wanted.place);
            }
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    target.document(
                            rows.getLong(11),
                            new RegisteredDocument(
                                    name,
                                    rows.getString(1),
                                    rows.getString(2),
                                    rows.getString(3),
                                    LocalDate.parse(rows.getString(4)),
                                    new Money(rows.getLong(5), Currency.getInstance(rows.getString(6))),
                                    state(rows.getString(7)),
                                    rows.getString(8),
                                    rows.getLong(9),
                                    deliveries(rows.getLong(10))));
                }
            }
        }
    }

    private void packs(Wanted wanted, ByIdentity target) throws SQLException {
        String sql =
                "SELECT kind, account, currency, source_file, source_ordinal, deliveries, state, documents, content"
                        + " FROM document_pack WHERE run_id = ?" + (wanted.place == null ? "" : " AND place = ?")
                        + " ORDER BY place";
        try (PreparedStatement query = connection.prepareStatement(sql)) {
            query.setLong(1, run);
            if (wanted.place != null) {
                query.setLong(2, wanted.place);
            }
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    pack(rows, wanted, target);
                }
            }
        }
    }

    private void pack(ResultSet rows, Wanted wanted, ByIdentity target) throws SQLException {
        String kind = rows.getString(1);
        String account = rows.getString(2);
        Currency currency = Currency.getInstance(rows.getString(3));
        SourceFile source = new SourceFile(rows.getString(4), "", rows.getInt(5), account, currency);
        List<String> by = deliveries(rows.getLong(6));
        String state = state(rows.getString(7));
        DocumentPack.read(
                rows.getBytes(9), rows.getInt(8), source, (own, figures, content, day, amount, form, row, called) -> {
                    if (wanted.reference == null || wanted.reference.equals(called)) {
                        target.document(
                                own,
                                new RegisteredDocument(
                                        name,
                                        kind,
                                        account,
                                        called,
                                        LocalDate.ofEpochDay(day),
                                        new Money(amount, currency),
                                        state,
                                        source.name(),
                                        row,
                                        by));
                    }
                });
    }
}
