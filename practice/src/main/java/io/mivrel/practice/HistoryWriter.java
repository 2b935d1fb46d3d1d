package io.mivrel.practice;

import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import org.jspecify.annotations.Nullable;

/** Adds to the history, and changes where entries stand. */
final class HistoryWriter {
    private final PracticeDatabase database;
    private final long company;

    HistoryWriter(PracticeDatabase database, long company) {
        this.database = database;
        this.company = company;
    }

    /** Adds to the history what is about to be done, with so many new entries from a number on; answers its place. */
    long add(String what, @Nullable Long batch, long firstEntry, long entries) throws SQLException {
        long id = 1 + database.number("SELECT coalesce(max(id), 0) FROM deed");
        Connection connection = database.connection();
        String sql = database.onServer()
                ? "INSERT INTO deed (id, company_id, at, what, batch_id, first_entry, last_entry) VALUES (?, ?, ?, ?, ?, ?, ?)"
                : "INSERT INTO deed (id, company_id, at, what, batch_id) VALUES (?, ?, ?, ?, ?)";
        try (PreparedStatement insert = connection.prepareStatement(sql)) {
            insert.setLong(1, id);
            insert.setLong(2, company);
            insert.setString(3, Instant.now().toString());
            insert.setString(4, what);
            insert.setObject(5, batch, Types.BIGINT);
            if (database.onServer()) {
                insert.setLong(6, firstEntry);
                insert.setLong(7, firstEntry + entries - 1);
            }
            insert.executeUpdate();
        }
        return id;
    }

    /** Takes drafts out. */
    void remove(Collection<Long> drafts, long deed) throws SQLException {
        if (drafts.isEmpty()) {
            return;
        }
        try (PreparedStatement update = database.connection()
                .prepareStatement("UPDATE entry SET standing = 'removed', removed = ? WHERE " + database.in("id"))) {
            update.setLong(1, deed);
            database.setNumbers(update, 2, drafts);
            update.executeUpdate();
        }
    }

    void markReversed(Collection<Long> finals) throws SQLException {
        set("reversed", finals);
    }

    void makeFinal(Collection<Long> drafts) throws SQLException {
        set("final", drafts);
    }

    private void set(String standing, Collection<Long> entries) throws SQLException {
        if (entries.isEmpty()) {
            return;
        }
        try (PreparedStatement update =
                database.connection().prepareStatement("UPDATE entry SET standing = ? WHERE " + database.in("id"))) {
            update.setString(1, standing);
            database.setNumbers(update, 2, entries);
            update.executeUpdate();
        }
    }

    /** The entry that reverses another on a day. It has no key. */
    EntryWriter.Row reversal(
            PostedEntry old, long id, @Nullable Long batch, long deed, LocalDate day, Standing standing) {
        Entry entry = old.entry();
        Entry reversed = Entry.of(
                "",
                entry.kind(),
                entry.reference(),
                day,
                entry.currency(),
                entry.narrative(),
                entry.lines().stream().map(EntryLine::reversed).toList());
        return new EntryWriter.Row(id, reversed, batch, false, standing, deed, Long.parseLong(old.number()));
    }
}
