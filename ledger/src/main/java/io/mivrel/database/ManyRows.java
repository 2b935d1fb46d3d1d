package io.mivrel.database;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.util.Collections;
import org.jspecify.annotations.Nullable;

/** Inserts rows by statements of many rows each, which takes much less than a statement for each row. */
public final class ManyRows implements AutoCloseable {
    /** More gain nothing. */
    private static final int ROWS = 100;

    private final Connection connection;
    private final String start;
    private final String row;
    private final int columns;
    private long left;
    private @Nullable PreparedStatement statement;
    private int places;
    private int at;

    /** Ready for so many rows, of which each has so many values. */
    public ManyRows(Connection connection, String table, int columns, long rows) {
        this.connection = connection;
        this.start = "INSERT INTO " + table + " VALUES ";
        this.row = "(" + String.join(", ", Collections.nCopies(columns, "?")) + ")";
        this.columns = columns;
        this.left = rows;
    }

    private PreparedStatement next() throws SQLException {
        if (statement == null || at == places) {
            int rows = (int) Math.min(ROWS, left);
            if (statement == null || rows * columns != places) {
                closeStatement();
                statement = connection.prepareStatement(start + String.join(", ", Collections.nCopies(rows, row)));
                places = rows * columns;
            }
            left -= rows;
            at = 0;
        }
        at++;
        return statement;
    }

    private void write(PreparedStatement set) throws SQLException {
        if (at == places) {
            set.executeUpdate();
        }
    }

    public ManyRows add(long value) throws SQLException {
        PreparedStatement set = next();
        set.setLong(at, value);
        write(set);
        return this;
    }

    public ManyRows add(@Nullable Long value) throws SQLException {
        PreparedStatement set = next();
        set.setObject(at, value, Types.BIGINT);
        write(set);
        return this;
    }

    public ManyRows add(@Nullable String value) throws SQLException {
        PreparedStatement set = next();
        set.setString(at, value);
        write(set);
        return this;
    }

    private void closeStatement() throws SQLException {
        if (statement != null) {
            statement.close();
        }
    }

    /** Throws when rows are missing: the last statement was not complete, and is not written. */
    @Override
    public void close() throws SQLException {
        closeStatement();
        if (left > 0 || at != places) {
            throw new IllegalStateException("fewer rows than were announced");
        }
    }
}
