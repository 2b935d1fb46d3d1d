package io.mivrel.delivery;

import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.List;

/**
 * Where the files of one delivery go. What is written stays out of sight until {@link #publish}, which gives every part
 * its name; no existing file is ever overwritten.
 */
public interface Outlet {

    /** Opens the next part, counted from 1; the one before must be closed. */
    RowWriter open(int part) throws IOException;

    /** Reads back a part, on any thread; while it is still being written, the reader waits for what comes. */
    RowSource readBack(int part) throws IOException;

    /** The digest of a part that was written and closed, with the name of its kind before a colon. */
    String digest(int part) throws IOException;

    /** Makes all parts safe on disk and gives them their names, all or none; answers the names as the user knows them. */
    List<String> publish() throws IOException;

    /** Removes what was not published, or takes back what was; never throws. */
    void discard();
}
