package io.mivrel.files.statements;

import io.mivrel.layout.StatementColumns;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.Statement;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Locale;

/** What the statement readers have in common: they read on until an entry or the end of a statement has come. */
abstract class StatementRows implements RowSource {
    /** Longest text of a field that is kept. */
    static final int LONGEST = 1 << 16;

    private final String wantedAccount;
    private final Deque<Object> ready = new ArrayDeque<>();
    private final Row row = new Row();
    private boolean wanted = true;
    private UnreadableFileException refused;

    /** @param wantedAccount only statements of this account are read; empty for all */
    StatementRows(String wantedAccount) {
        this.wantedAccount = plain(wantedAccount);
    }

    /** Reads on, and gives what it finds to {@link #give} and {@link #end}; false at the end of the file. */
    abstract boolean advance() throws IOException;

    /** A statement of this account begins; asked before its first entry. */
    final void begin(String account) {
        wanted =
                wantedAccount.isEmpty() || plain(account == null ? "" : account).equals(wantedAccount);
    }

    final void give(StatementEntry entry) {
        if (!wanted) {
            entry.aside = LeftOut.OTHER_ACCOUNT;
        }
        ready.add(entry);
    }

    final void end(Statement statement) {
        if (wanted) {
            ready.add(statement);
        }
    }

    @Override
    public final List<String> titles() {
        return StatementColumns.ALL;
    }

    @Override
    public final Row next() throws IOException {
        while (ready.isEmpty()) {
            if (refused != null) {
                throw refused;
            }
            try {
                if (!advance() && ready.isEmpty()) {
                    return null;
                }
            } catch (UnreadableFileException e) {
                // What was read before it counts as read.
                refused = e;
            }
        }
        Object next = ready.poll();
        if (next instanceof StatementEntry entry) {
            row.fill(entry.row, entry.cells());
            row.fault(entry.fault);
            row.aside(entry.aside);
        } else {
            row.begin(0);
            row.ends((Statement) next);
        }
        return row;
    }

    private static String plain(String account) {
        return account.replaceAll("[^0-9A-Za-z]", "").toUpperCase(Locale.ROOT);
    }

    /** The amount of money that goes out: a minus before it, whatever it looks like. */
    static String minus(String amount) {
        return "-" + amount;
    }

    /** Adds a text to another with a blank between; what is there already is not said twice. */
    static String joined(String text, String more) {
        String added = more.strip();
        if (text.isEmpty()) {
            return added;
        }
        return added.isEmpty() || text.equals(added) ? text : text + " " + added;
    }
}
