package io.mivrel.files.lines;

import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Held rows of a file that was no separated text, handed back as the comma-separated text that Mivrel wrote: the first
 * row says which column each cell is, whatever the layout says of the file itself.
 */
public final class HandedBack implements RowSource {
    /** Title of the column that Mivrel adds, by which its own files are known. */
    public static final String MARK = "Mivrel row";

    private final SeparatedRows rows;
    private final List<String> titles = new ArrayList<>();

    public HandedBack(Path file) throws IOException {
        rows = SeparatedRows.open(file, ',', FileFormat.AUTO);
        Row first = rows.next();
        for (int i = 0; first != null && i < first.size(); i++) {
            titles.add(first.trimmed(i));
        }
    }

    @Override
    public List<String> titles() {
        return titles;
    }

    @Override
    public @Nullable Row next() throws IOException {
        return rows.next();
    }

    @Override
    public void close() throws IOException {
        rows.close();
    }
}
