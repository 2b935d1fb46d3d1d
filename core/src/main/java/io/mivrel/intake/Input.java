package io.mivrel.intake;

import io.mivrel.layout.Layout;
import io.mivrel.rows.RowSource;
import java.io.IOException;

/**
 * One file that a run takes in.
 *
 * @param name the file as the user knows it
 * @param layout how it is laid out
 * @param opener opens it; a run may open it more than once
 */
public record Input(String name, Layout layout, Opener opener) {

    /** Opens a file anew. */
    public interface Opener {
        RowSource open() throws IOException;
    }
}
