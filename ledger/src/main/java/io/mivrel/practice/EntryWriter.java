package io.mivrel.practice;

import io.mivrel.money.Money;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.Standing;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyManager;

/** Writes many entries at once, each database in its fastest way. */
final class EntryWriter {
    private static final int BUFFER = 1 << 16;

    private final PracticeDatabase database;
    private final long company;

    /** An entry to write: what it is given besides its content. {@code reverses} is 0 for none. */
    record Row(
            long id, Entry entry, @Nullable Long batch, boolean keyed, Standing standing, long deed, long reverses) {}

    EntryWriter(PracticeDatabase database, long company) {
        this.database = database;
        this.company = company;
    }

    /** {@code accounts} gives the number of each account code. */
    void write(List<Row> rows, Map<String, Long> accounts) throws SQLException {
        if (rows.isEmpty()) {
            return;
        }
        if (database.onServer()) {
            copy(rows, accounts);
        } else {
            insert(rows, accounts);
        }
    }

    private void insert(List<Row> rows, Map<String, Long> accounts) throws SQLException {
        Connection connection = database.connection();
        try (PreparedStatement lines =
                        connection.prepareStatement("INSERT INTO entry_line VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)");
                PreparedStatement entries = connection.prepareStatement(
                        "INSERT INTO entry VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, NULL, ?)")) {
            for (Row row : rows) {
                int place = 0;
                for (EntryLine line : row.entry().lines()) {
                    Money foreign = line.foreign();
                    lines.setLong(1, row.id());
                    lines.setLong(2, ++place);
                    lines.setLong(3, accounts.getOrDefault(line.account(), 0L));
                    lines.setLong(4, line.minor());
                    lines.setString(5, line.narrative());
                    lines.setString(6, line.taxCode());
                    lines.setString(7, line.party());
                    lines.setString(
                            8, foreign == null ? null : foreign.currency().getCurrencyCode());
                    lines.setObject(9, foreign == null ? null : foreign.minor(), Types.BIGINT);
                    lines.setString(10, JsonText.of(line.dimensions()));
                    lines.addBatch();
                }
            }
            lines.executeBatch();
            for (Row row : rows) {
                Entry entry = row.entry();
                entries.setLong(1, row.id());
                entries.setLong(2, company);
                entries.setObject(3, row.batch(), Types.BIGINT);
                entries.setString(4, row.keyed() ? entry.key() : null);
                entries.setString(5, row.keyed() ? entry.digest() : null);
                entries.setString(6, entry.kind());
                entries.setString(7, entry.reference());
                entries.setString(8, entry.date().toString());
                entries.setString(9, entry.currency().getCurrencyCode());
                entries.setString(10, entry.narrative());
                entries.setLong(11, entry.lines().size());
                entries.setString(12, row.standing().word());
                entries.setLong(13, row.deed());
                entries.setObject(14, row.reverses() == 0 ? null : row.reverses(), Types.BIGINT);
                entries.addBatch();
            }
            entries.executeBatch();
        }
    }

    private void copy(List<Row> rows, Map<String, Long> accounts) throws SQLException {
        StringBuilder lines = new StringBuilder(BUFFER);
        StringBuilder entries = new StringBuilder(BUFFER);
        for (Row row : rows) {
            Entry entry = row.entry();
            int place = 0;
            for (EntryLine line : entry.lines()) {
                Money foreign = line.foreign();
                lines.append(row.id()).append('\t').append(++place);
                lines.append('\t')
                        .append(accounts.getOrDefault(line.account(), 0L).longValue());
                lines.append('\t').append(line.minor());
                text(lines.append('\t'), line.narrative());
                text(lines.append('\t'), line.taxCode());
                text(lines.append('\t'), line.party());
                text(
                        lines.append('\t'),
                        foreign == null ? null : foreign.currency().getCurrencyCode());
                text(lines.append('\t'), foreign == null ? null : Long.toString(foreign.minor()));
                text(lines.append('\t'), JsonText.of(line.dimensions()));
                lines.append('\n');
            }
            entries.append(row.id()).append('\t').append(company).append('\t');
            text(entries, row.batch() == null ? null : row.batch().toString());
            text(entries.append('\t'), row.keyed() ? entry.key() : null);
            text(entries.append('\t'), row.keyed() ? entry.digest() : null);
            text(entries.append('\t'), entry.kind());
            text(entries.append('\t'), entry.reference());
            entries.append('\t').append(entry.date());
            entries.append('\t').append(entry.currency().getCurrencyCode());
            text(entries.append('\t'), entry.narrative());
            entries.append('\t').append(entry.lines().size());
            entries.append('\t').append(row.standing().word());
            entries.append('\t').append(row.deed()).append("\t\\N\t");
            text(entries, row.reverses() == 0 ? null : Long.toString(row.reverses()));
            entries.append('\n');
        }
        CopyManager copy = database.connection().unwrap(PGConnection.class).getCopyAPI();
        try {
            copy.copyIn("COPY entry_line FROM STDIN", new java.io.ByteArrayInputStream(bytes(lines)), BUFFER);
            copy.copyIn("COPY entry FROM STDIN", new java.io.ByteArrayInputStream(bytes(entries)), BUFFER);
        } catch (IOException e) {
            throw new SQLException("the rows could not be sent", e);
        }
    }

    private static byte[] bytes(StringBuilder text) {
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    // The text form of COPY: a tab ends a value, a backslash stands before what would end it, and \N is no value.
    private static void text(StringBuilder out, @Nullable String value) {
        if (value == null) {
            out.append("\\N");
            return;
        }
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            switch (c) {
                case '\\' -> out.append("\\\\");
                case '\t' -> out.append("\\t");
                case '\n' -> out.append("\\n");
                case '\r' -> out.append("\\r");
                default -> out.append(c);
            }
        }
    }
}
