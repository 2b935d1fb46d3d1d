package io.mivrel.corrections;

import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.RowsOver;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;

/** The rows of a file, each with its correction in its place. */
public final class CorrectedRows extends RowsOver {
    private final Map<Corrections.Place, Correction> places;
    private final BiConsumer<Correction, Correction> used;
    private final Corrections.PlaceCounter counter = new Corrections.PlaceCounter();
    private final RowKey keys = new RowKey();
    private final Row corrected = new Row();
    private @Nullable Correction now;
    private @Nullable Row last;

    /** {@code used} takes each correction that is made, and the same with what the row had before. */
    CorrectedRows(RowSource rows, Map<Corrections.Place, Correction> places, BiConsumer<Correction, Correction> used) {
        super(rows);
        this.places = places;
        this.used = used;
    }

    /** The same rows, whose keys can be asked for. */
    public static CorrectedRows of(RowSource rows) {
        return rows instanceof CorrectedRows already
                ? already
                : new CorrectedRows(rows, Map.of(), (correction, done) -> {});
    }

    /** True for a row that can be held and corrected, as against news of the format. */
    static boolean isData(Row row) {
        return row.ended() == null && row.aside() == null;
    }

    /** The key of the last row as it stands in the source, whatever it was corrected to. */
    public String key() {
        if (now != null) {
            return now.key();
        }
        return last == null ? "" : keys.of(last);
    }

    /** True when the last row was corrected, so that its key is not that of its cells. */
    public boolean isCorrected() {
        return now != null;
    }

    @Override
    public @Nullable Row next() throws IOException {
        Row row = inner.next();
        last = row;
        now = null;
        if (row == null) {
            return null;
        }
        Correction correction = places.get(counter.of(row));
        if (correction == null || !isData(row)) {
            return row;
        }
        now = correction;
        used.accept(correction, correction.inPlaceOf(RowKey.cells(row)));
        if (correction.decision() == Decision.LEAVE_OUT) {
            Row copy = row.copy();
            copy.aside(LeftOut.BY_DECISION);
            return copy;
        }
        List<String> cells = correction.cells();
        if (cells == null) {
            return row;
        }
        boolean again = row.isAgain();
        corrected.fill(row.number(), cells);
        correction.plain().forEach(corrected::plain);
        // Cells that a spreadsheet does not keep at the end of a row are blank, not missing.
        corrected.pad(row.size());
        if (again) {
            corrected.again();
        }
        return corrected;
    }

    @Override
    public void skipTo(long physicalRow) throws IOException {
        inner.skipTo(physicalRow);
    }
}
