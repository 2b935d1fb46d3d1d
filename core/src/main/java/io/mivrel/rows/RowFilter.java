package io.mivrel.rows;

import io.mivrel.text.Spans;
import java.util.List;
import java.util.Objects;

/**
 * A rule that leaves rows out by what stands in them. Immutable.
 *
 * @param column title or place of the column looked at; empty for any
 * @param test how the cell is compared with the texts
 * @param texts any of these; compared exactly, without blanks around the cell
 * @param keep true to leave out the rows that do not fit, false to leave out those that do
 */
public record RowFilter(String column, Test test, List<String> texts, boolean keep) {

    /** How a cell is compared with a text. */
    public enum Test {
        IS,
        BEGINS,
        CONTAINS
    }

    public RowFilter {
        Objects.requireNonNull(column);
        Objects.requireNonNull(test);
        texts = List.copyOf(texts);
    }

    /** As layouts write it. */
    public String word() {
        return keep ? "only" : "leave out";
    }

    /** True when the row is left out; {@code place} is the place of the column, -1 for any. */
    public boolean leavesOut(Row row, int place) {
        boolean fits = false;
        if (place >= 0) {
            fits = place < row.size() && fits(row, place);
        } else {
            for (int i = 0; i < row.size() && !fits; i++) {
                fits = fits(row, i);
            }
        }
        return fits != keep;
    }

    private boolean fits(Row row, int cell) {
        byte[] bytes = row.bytes();
        int start = Spans.trimStart(bytes, row.start(cell), row.end(cell));
        int end = Spans.trimEnd(bytes, start, row.end(cell));
        for (String text : texts) {
            boolean fits = switch (test) {
                case IS -> Spans.equal(bytes, start, end, text);
                case BEGINS -> Spans.startsWith(bytes, start, end, text);
                case CONTAINS -> row.text(cell).contains(text);
            };
            if (fits) {
                return true;
            }
        }
        return false;
    }
}
