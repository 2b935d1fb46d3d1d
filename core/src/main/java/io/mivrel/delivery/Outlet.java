package io.mivrel.delivery;

import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.List;

/**
 * Where the files of one sheet go. What is written stays out of sight until it is named. No existing file is ever
 * overwritten. The calls come in this order: parts are opened and read back, {@link #prepare}, {@link #publish}, {@link
 * #release}.
 */
public interface Outlet {
    /** Opens the next part, counted from 1; the one before must be closed. */
    RowWriter open(int part) throws IOException;

    /** A text of a part with {@code {run}}, {@code {date}} and {@code {part}} filled in, the date as {@code 2027-03-31}. */
    String named(String text, int part);

    /** Reads back a part, on any thread; while it is still being written, the reader waits for what comes. */
    RowSource readBack(int part) throws IOException;

    /** Makes all parts safe on disk and chooses their names; answers what is prepared, in the order of the parts. */
    List<PreparedFile> prepare() throws IOException;

    /**
     * Gives all parts their names; answers them, since a name that was taken meanwhile gets a number. Parts keep their
     * hidden names too until {@link #release}.
     */
    List<PreparedFile> publish() throws IOException;

    /** Removes the hidden names; the parts are published. */
    void release();

    /** Removes what was not published; never throws. */
    void discard();
}
