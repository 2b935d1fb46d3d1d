package io.mivrel.shape;

import io.mivrel.model.Rule;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.RowsOver;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Rows of a source whose titles stand in one of them, known to whoever asks. For one thread. */
public final class TitledRows extends RowsOver {
    private final int titlesRow;
    private final int titleRows;
    private final int dataRow;
    private List<String> above = List.of();
    private final String until;
    private final boolean strict;
    private boolean below;
    private @Nullable List<String> titles;

    /** The rows of a file of this form. */
    public TitledRows(RowSource inner, FileFormat form) {
        super(inner);
        this.titlesRow = form.titlesRow();
        this.titleRows = form.titleRows();
        this.dataRow = form.dataRow();
        this.until = form.until();
        // Of separated text, a row with fewer cells than titles is a broken one.
        this.strict = form.kind() == FileKind.SEPARATED;
        this.titles = inner.titles();
    }

    @Override
    public @Nullable Row next() throws IOException {
        Row row = inner.next();
        if (row == null || row.ended() != null || row.aside() != null || row.fault() != null) {
            return row;
        }
        if (titles == null && row.number() == titlesRow && !row.isBlank()) {
            titles = row.titlesBelow(above);
            row.aside(LeftOut.TITLES);
        } else if (titles == null && row.number() < titlesRow && row.number() > titlesRow - titleRows) {
            above = row.titlesBelow(above);
            row.aside(LeftOut.TITLES);
        } else if (row.number() < titlesRow || row.number() < dataRow) {
            row.aside(LeftOut.ABOVE_TITLES);
        } else if (titles == null) {
            if (titlesRow == 0) {
                return below(row);
            }
            throw new UnreadableFileException(
                    Rule.TITLES_MISSING,
                    row.number(),
                    "row " + titlesRow + " is blank or missing",
                    "compare the layout's 'titles' with the file");
        } else if (strict && titlesRow > 0 && row.size() < titles.size() && !row.isBlank()) {
            row.fault(RowFault.CELLS_MISSING);
        }
        return below(row);
    }

    private Row below(Row row) {
        below |= row.aside() == null && !until.isEmpty() && begins(row);
        if (below && row.aside() == null) {
            row.aside(LeftOut.BELOW_DATA);
        }
        return row;
    }

    private boolean begins(Row row) {
        for (int i = 0; i < row.size(); i++) {
            int start = Spans.trimStart(row.bytes(), row.start(i), row.end(i));
            if (Spans.startsWith(row.bytes(), start, row.end(i), until)) {
                return true;
            }
        }
        return false;
    }

    @Override
    public @Nullable List<String> titles() {
        return titles;
    }
}
