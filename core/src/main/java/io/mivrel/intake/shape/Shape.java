package io.mivrel.intake.shape;

import io.mivrel.intake.FileForm;
import io.mivrel.intake.RowSource;
import java.io.IOException;

/** What a layout says about the shape of a file. Immutable; applied in the order of the layout. */
public sealed interface Shape permits CarryDown, Tags, Link, FanOut {

    /** Opens files that stand beside the one being read. */
    interface Siblings {
        /** Opens a file by its plain name; the name {@code same} is the file itself. */
        RowSource open(String name, FileForm form) throws IOException;
    }

    /** The rows of another source in this shape. Closing it closes the other. */
    RowSource over(RowSource rows, Siblings siblings) throws IOException;
}
