package io.mivrel.shape;

import io.mivrel.rows.FileFormat;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.List;

/** What a layout says about the shape of a file. Immutable; applied in the order of the layout. */
public sealed interface Shape permits CarryDown, PageHeads, Wrapped, FillDown, Years, Tags, Link, FanOut {

    /** Opens files that stand beside the one being read. */
    interface Siblings {
        /** Opens a file by its plain name; the name {@code same} is the file itself. */
        RowSource open(String name, FileFormat form) throws IOException;
    }

    /** The rows of another source in this shape. Closing it closes the other. */
    RowSource over(RowSource rows, Siblings siblings) throws IOException;

    /** True for a column that the rows have only by this shape. */
    default boolean adds(String column) {
        return false;
    }

    /** The columns that the rows must have before it, by title or place. */
    default List<String> needs() {
        return List.of();
    }
}
