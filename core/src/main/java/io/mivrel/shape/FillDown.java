package io.mivrel.shape;

import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Cells that are printed once for several rows, such as the day above all its movements: a blank one takes the text of
 * the row above.
 *
 * @param columns the columns that are filled
 * @param where only rows with something in one of these columns are filled; empty for all that are not blank
 */
public record FillDown(List<String> columns, List<String> where) implements Shape {
    public FillDown {
        columns = List.copyOf(columns);
        where = List.copyOf(where);
    }

    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return new Rows(rows, this);
    }

    @Override
    public List<String> needs() {
        return columns;
    }

    private static final class Rows extends ShapedRows {
        private final FillDown filled;
        private int[] places = {};
        private int[] where = {};
        private byte[][] above = {};

        Rows(RowSource inner, FillDown filled) {
            super(inner);
            this.filled = filled;
        }

        @Override
        List<String> titlesOver(List<String> source) throws IOException {
            places = places(filled.columns, source, "fill down");
            where = places(filled.where, source, "fill down");
            above = new byte[places.length][0];
            return source;
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            if (row == null || passes(row)) {
                return row;
            }
            learnTitles(row);
            boolean wanted =
                    where.length == 0 ? !row.isBlank() : Arrays.stream(where).anyMatch(w -> isFilled(row, w));
            if (!wanted) {
                return row;
            }
            beginRow(row);
            for (int cell = 0; cell < row.size(); cell++) {
                int filling = indexOf(cell);
                if (filling < 0) {
                    copy(row, cell);
                    continue;
                }
                byte[] own = trimmed(row, cell);
                above[filling] = own.length > 0 ? own : above[filling];
                add(above[filling]);
            }
            return finishRow();
        }

        private int indexOf(int cell) {
            for (int i = 0; i < places.length; i++) {
                if (places[i] == cell) {
                    return i;
                }
            }
            return -1;
        }
    }
}
