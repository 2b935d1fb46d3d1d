package io.mivrel.files.settings;

import io.mivrel.layout.Layout;
import java.nio.file.Path;

/** Reads a layout on its own, outside of a run sheet. */
public final class LayoutReader {
    private LayoutReader() {}

    /** Throws with every problem of the layout at once. */
    public static Layout read(Path file) throws SettingsException {
        Problems problems = new Problems();
        Layout layout = LayoutFile.read(file, file.toString(), problems);
        problems.throwIfAny();
        return layout;
    }
}
