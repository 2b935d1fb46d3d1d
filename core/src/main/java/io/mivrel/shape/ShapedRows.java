package io.mivrel.shape;

import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.RowsOver;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.text.Nearest;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What the shapes have in common: rows of another source, copied into rows with more cells. For one thread. */
abstract class ShapedRows extends RowsOver {
    /** Title of the cell that holds the whole line of fixed-width text. */
    static final String LINE = "line";

    private final Row out = new Row();
    private byte[] bytes = new byte[1 << 12];
    private int length;
    private @Nullable List<String> titles;

    ShapedRows(RowSource inner) {
        super(inner);
    }

    /** The titles of this shape, given those of the source; asked once, at the first row that may be data. */
    abstract List<String> titlesOver(List<String> source) throws IOException;

    /** Titles of the source; its columns are called by their places where it has none. */
    final void learnTitles(Row first) throws IOException {
        if (titles != null) {
            return;
        }
        List<String> source = inner.titles();
        if (source == null) {
            source = new ArrayList<>();
            for (int i = 1; i <= first.size(); i++) {
                source.add(Integer.toString(i));
            }
        }
        titles = List.copyOf(titlesOver(source));
    }

    @Override
    public final @Nullable List<String> titles() {
        return titles;
    }

    /** Begins a new row for the physical row of another. */
    final void beginRow(Row like) {
        out.begin(like.number());
        if (like.isAgain()) {
            out.again();
        }
        if (like.placeBetween() > 0) {
            out.textBetween(like.placeBetween(), like.textBetween());
        }
        length = 0;
    }

    final void copy(Row from, int cell) {
        if (cell >= 0 && cell < from.size()) {
            add(from.bytes(), from.start(cell), from.end(cell));
        } else {
            out.add(length, length);
        }
    }

    final void copyAll(Row from, int cells) {
        for (int i = 0; i < cells; i++) {
            copy(from, i);
        }
    }

    /** False, with the fault set, when something stands beyond so many cells, where it would be lost. */
    static boolean fits(Row row, int cells) {
        for (int i = cells; i < row.size(); i++) {
            if (trimmed(row, i).length > 0) {
                row.fault(RowFault.CELLS_EXTRA, row.trimmed(i));
                return false;
            }
        }
        return true;
    }

    final void add(byte[] from, int start, int end) {
        if (length + end - start > bytes.length) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + end - start));
        }
        System.arraycopy(from, start, bytes, length, end - start);
        out.add(length, length + end - start);
        length += end - start;
    }

    final void add(byte[] text) {
        add(text, 0, text.length);
    }

    final Row finishRow() {
        out.over(bytes);
        return out;
    }

    /** The bytes of a cell without blanks around it. */
    static byte[] trimmed(Row row, int cell) {
        if (cell < 0 || cell >= row.size()) {
            return new byte[0];
        }
        int start = Spans.trimStart(row.bytes(), row.start(cell), row.end(cell));
        return Arrays.copyOfRange(row.bytes(), start, Spans.trimEnd(row.bytes(), start, row.end(cell)));
    }

    static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** The place of a column among titles, which may be named by its place as {@code #3}. */
    static int place(String column, List<String> titles, String purpose) throws UnreadableFileException {
        int place = column.startsWith("#") ? Integer.parseInt(column.substring(1)) - 1 : titles.indexOf(column);
        if (place < 0 || place >= titles.size()) {
            String near = Nearest.one(column, titles);
            throw new UnreadableFileException(
                    Rule.COLUMN_MISSING,
                    0,
                    "the layout takes '" + column + "' for '" + purpose + "', but the columns are "
                            + Finding.clip(String.join(", ", titles)),
                    near == null ? "" : "was '" + near + "' meant?");
        }
        return place;
    }

    static int[] places(List<String> columns, List<String> titles, String purpose) throws UnreadableFileException {
        int[] places = new int[columns.size()];
        for (int i = 0; i < places.length; i++) {
            places[i] = place(columns.get(i), titles, purpose);
        }
        return places;
    }

    /** True when something but blanks stands in a cell. */
    static boolean isFilled(Row row, int cell) {
        return cell >= 0
                && cell < row.size()
                && Spans.trimStart(row.bytes(), row.start(cell), row.end(cell)) < row.end(cell);
    }

    /** True for a row that this shape hands on as it is. */
    static boolean passes(Row row) {
        return row.ended() != null || row.aside() != null || row.fault() != null;
    }
}
