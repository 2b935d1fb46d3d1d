package io.mivrel.delivery;

import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.List;

/**
 * A form that delivered files have: how rows become bytes, and how they are read back for the proof. A program adds one of its
 * own by naming it as a service ({@link java.util.ServiceLoader}); deliveries then name its word under {@code kind}.
 */
public interface RowForm {
    /** Its word in settings, such as {@code fixed width}. */
    String word();

    /** What keeps a sheet from being written in this form, in words; empty when nothing does. */
    default List<String> gaps(Sheet sheet) {
        return List.of();
    }

    /**
     * Writes rows of a sheet, the titles first where it has some. What cannot be written is an {@link IOException} that says
     * what and why, and then nothing is delivered; it is never left out or changed.
     */
    RowWriter writer(OutputStream out, Sheet sheet) throws IOException;

    /** Reads the same bytes back while they are written: rows with as many cells as the sheet has columns. */
    RowSource reader(InputStream in, Sheet sheet) throws IOException;
}
