package io.mivrel.practice;

import io.mivrel.database.ManyRows;
import io.mivrel.money.Money;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.Standing;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;

/** Writes many entries at once, each database in its fastest way. */
final class EntryWriter {
    private static final int BUFFER = 1 << 16;
    private static final int LINE_COLUMNS = 10;
    private static final int ENTRY_COLUMNS = 15;

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
        long all = rows.stream().mapToLong(row -> row.entry().lines().size()).sum();
        try (ManyRows lines = new ManyRows(database.connection(), "entry_line", LINE_COLUMNS, all)) {
            for (Row row : rows) {
                int place = 0;
                for (EntryLine line : row.entry().lines()) {
                    Money foreign = line.foreign();
                    lines.add(row.id()).add(++place);
                    lines.add(accounts.getOrDefault(line.account(), 0L).longValue());
                    lines.add(line.minor()).add(line.narrative());
                    lines.add(line.taxCode()).add(line.party());
                    lines.add(foreign == null ? null : foreign.currency().getCurrencyCode());
                    lines.add(foreign == null ? null : foreign.minor());
                    lines.add(JsonColumn.of(line.dimensions()));
                }
            }
        }
        try (ManyRows entries = new ManyRows(database.connection(), "entry", ENTRY_COLUMNS, rows.size())) {
            for (Row row : rows) {
                Entry entry = row.entry();
                entries.add(row.id()).add(company).add(row.batch());
                entries.add(row.keyed() ? entry.key() : null).add(row.keyed() ? entry.digest() : null);
                entries.add(entry.kind()).add(entry.reference());
                entries.add(entry.date().toString()).add(entry.currency().getCurrencyCode());
                entries.add(entry.narrative()).add(entry.lines().size());
                entries.add(row.standing().word()).add(row.deed());
                entries.add((String) null).add(row.reverses() == 0 ? null : Long.valueOf(row.reverses()));
            }
        }
    }

    private void copy(List<Row> rows, Map<String, Long> accounts) throws SQLException {
        copy("entry_line", rows, (row, text) -> lines(row, accounts, text));
        copy("entry", rows, this::entry);
    }

    /** Writes a row as COPY takes it. */
    private interface Lines {
        void write(Row row, StringBuilder text);
    }

    // The server takes in what was sent while the rest is made.
    private void copy(String table, List<Row> rows, Lines lines) throws SQLException {
        CopyIn copy =
                database.connection().unwrap(PGConnection.class).getCopyAPI().copyIn("COPY " + table + " FROM STDIN");
        try {
            StringBuilder text = new StringBuilder(BUFFER + BUFFER / 2);
            for (Row row : rows) {
                lines.write(row, text);
                if (text.length() >= BUFFER) {
                    send(text, copy);
                }
            }
            send(text, copy);
            copy.endCopy();
        } finally {
            if (copy.isActive()) {
                copy.cancelCopy();
            }
        }
    }

    private static void send(StringBuilder text, CopyIn copy) throws SQLException {
        byte[] bytes = text.toString().getBytes(StandardCharsets.UTF_8);
        copy.writeToCopy(bytes, 0, bytes.length);
        text.setLength(0);
    }

    private static void lines(Row row, Map<String, Long> accounts, StringBuilder lines) {
        int place = 0;
        for (EntryLine line : row.entry().lines()) {
            Money foreign = line.foreign();
            lines.append(row.id()).append('\t').append(++place);
            lines.append('\t').append(accounts.getOrDefault(line.account(), 0L).longValue());
            lines.append('\t').append(line.minor());
            text(lines.append('\t'), line.narrative());
            text(lines.append('\t'), line.taxCode());
            text(lines.append('\t'), line.party());
            text(lines.append('\t'), foreign == null ? null : foreign.currency().getCurrencyCode());
            text(lines.append('\t'), foreign == null ? null : Long.toString(foreign.minor()));
            text(lines.append('\t'), JsonColumn.of(line.dimensions()));
            lines.append('\n');
        }
    }

    private void entry(Row row, StringBuilder entries) {
        Entry entry = row.entry();
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
