package io.mivrel.rows;

import io.mivrel.model.Finding;
import java.io.Closeable;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Hands out the rows of one file in their order. The one interface to implement for a new kind of file. A source that
 * meets a file which cannot be read on throws {@link UnreadableFileException}.
 */
public interface RowSource extends Closeable {

    /** The next row, valid until the next call, or {@code null} at the end. */
    @Nullable
    Row next() throws IOException;

    /**
     * May pass over physical rows, as long as none from {@code physicalRow} on is passed over. Faster than reading them,
     * where the format allows; a row must really begin there.
     */
    default void skipTo(long physicalRow) throws IOException {
        // Nothing is passed over: the caller reads on until the row comes.
    }

    /** The names of the cells where the format itself fixes them, known before the first row; else {@code null}. */
    default @Nullable List<String> titles() {
        return null;
    }

    /** What was noticed about the file as a whole and does not keep it from being read; asked at its end. */
    default List<Finding> remarks() {
        return List.of();
    }
}
