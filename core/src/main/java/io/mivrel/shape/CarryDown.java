package io.mivrel.shape;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Headings that stand above the rows they belong to, such as an account above its movements: each is carried down into
 * a column of its own until the next one comes.
 */
public record CarryDown(List<Heading> headings) implements Shape {

    /**
     * One kind of heading.
     *
     * @param title the title of the new column
     * @param column where the heading stands; empty for the first cell that is filled
     * @param begins how its text begins
     * @param take what is taken out of it: the first group of the pattern; {@code null} for what follows the beginning
     */
    public record Heading(String title, String column, String begins, Pattern take) {}

    public CarryDown {
        headings = List.copyOf(headings);
    }

    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return over(rows);
    }

    /** The same where there are no other files. */
    public RowSource over(RowSource rows) {
        return new Rows(rows, headings);
    }

    @Override
    public boolean adds(String column) {
        return headings.stream().anyMatch(h -> h.title().equals(column));
    }

    @Override
    public List<String> needs() {
        return headings.stream().map(Heading::column).filter(c -> !c.isEmpty()).toList();
    }

    private static final class Rows extends ShapedRows {
        private final List<Heading> headings;
        private final byte[][] carried;
        private final int[] places;
        private int width;

        Rows(RowSource inner, List<Heading> headings) {
            super(inner);
            this.headings = headings;
            this.carried = new byte[headings.size()][0];
            this.places = new int[headings.size()];
        }

        @Override
        List<String> titlesOver(List<String> source) throws IOException {
            List<String> titles = new ArrayList<>(source);
            width = source.size();
            for (int i = 0; i < places.length; i++) {
                Heading heading = headings.get(i);
                places[i] = heading.column().isEmpty() ? -1 : place(heading.column(), source, heading.title());
                titles.add(heading.title());
            }
            return titles;
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            // A heading alone in its row has fewer cells than there are titles, and is none the worse for it.
            boolean isShort = row != null && row.fault() == RowFault.CELLS_MISSING;
            if (row == null || passes(row) && !isShort) {
                return row;
            }
            learnTitles(row);
            for (int i = 0; i < places.length; i++) {
                int cell = places[i] >= 0 ? places[i] : firstFilled(row);
                if (cell < row.size() && carries(row, cell, i)) {
                    row.aside(LeftOut.HEADING);
                    return row;
                }
            }
            if (isShort || row.isBlank() || !fits(row, width)) {
                return row;
            }
            beginRow(row);
            copyAll(row, width);
            for (byte[] text : carried) {
                add(text);
            }
            return finishRow();
        }

        private static int firstFilled(Row row) {
            for (int i = 0; i < row.size(); i++) {
                if (Spans.trimStart(row.bytes(), row.start(i), row.end(i)) < row.end(i)) {
                    return i;
                }
            }
            return row.size();
        }

        private boolean carries(Row row, int cell, int heading) {
            Heading wanted = headings.get(heading);
            byte[] text = trimmed(row, cell);
            if (text.length == 0 || !Spans.startsWith(text, 0, text.length, wanted.begins())) {
                return false;
            }
            if (wanted.take() == null) {
                int from = Spans.trimStart(text, bytes(wanted.begins()).length, text.length);
                carried[heading] = Arrays.copyOfRange(text, from, text.length);
                return true;
            }
            Matcher matcher = wanted.take().matcher(row.trimmed(cell));
            if (!matcher.find()) {
                return false;
            }
            String taken = matcher.groupCount() > 0 ? matcher.group(1) : matcher.group();
            carried[heading] = bytes(taken == null ? "" : taken.strip());
            return true;
        }
    }
}
