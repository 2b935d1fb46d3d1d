package io.mivrel.run;

import io.mivrel.intake.Layout;
import io.mivrel.intake.RowSource;
import java.io.IOException;
import java.util.BitSet;

/**
 * One file that a run takes in.
 *
 * @param name the file as the user knows it
 * @param layout how it is laid out
 * @param opener opens it; a run may open it more than once
 * @param onlyRows when not {@code null}, the other rows were delivered before
 */
public record Input(String name, Layout layout, Opener opener, BitSet onlyRows) {

    /** Opens a file anew. */
    public interface Opener {
        RowSource open() throws IOException;
    }

    public Input(String name, Layout layout, Opener opener) {
        this(name, layout, opener, null);
    }
}
