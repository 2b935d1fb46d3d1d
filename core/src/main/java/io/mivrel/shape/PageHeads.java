package io.mivrel.shape;

import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The headings of the pages of a print file: all lines from one that begins in one way to one that begins in another are
 * left out, wherever they stand, and so is all that stands above the first page's.
 *
 * @param begins how the first line of each heading begins
 * @param ends how its last line begins; the same as {@code begins} for headings of one line
 */
public record PageHeads(String begins, String ends) implements Shape {
    /** No heading is longer. */
    public static final int MOST_LINES = 60;

    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return new Rows(rows, this);
    }

    private static final class Rows extends ShapedRows {
        private final PageHeads heads;
        /** Where the heading began that is being read; 0 between headings. */
        private long began;

        private boolean first = true;
        private int line = -1;

        Rows(RowSource inner, PageHeads heads) {
            super(inner);
            this.heads = heads;
        }

        @Override
        List<String> titlesOver(List<String> source) {
            line = source.indexOf(LINE);
            return source;
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            if (row == null) {
                if (began > 0) {
                    throw unended();
                }
                return null;
            }
            if (row.ended() != null || row.fault() != null) {
                return row;
            }
            learnTitles(row);
            if (began == 0 && begins(row, heads.begins)) {
                began = row.number();
                if (heads.ends.equals(heads.begins)) {
                    end();
                    row.aside(LeftOut.PAGE_HEAD);
                    return row;
                }
            }
            if (began > 0) {
                if (row.number() - began >= MOST_LINES) {
                    throw unended();
                }
                if (row.number() > began && begins(row, heads.ends)) {
                    end();
                }
                aside(row);
            } else if (first) {
                // What stands above the first page's titles is no data.
                aside(row);
            }
            return row;
        }

        private static void aside(Row row) {
            if (row.aside() == null) {
                row.aside(row.isBlank() ? LeftOut.BLANK : LeftOut.PAGE_HEAD);
            }
        }

        private void end() {
            began = 0;
            first = false;
        }

        private UnreadableFileException unended() {
            return new UnreadableFileException(
                    Rule.PAGE_HEAD_UNENDED,
                    began,
                    "a page heading begins here, but no line that begins with '" + heads.ends + "' ends it",
                    "compare 'page heads' in the layout with the file; is it cut off?");
        }

        // Of fixed-width text the whole line, blanks before it included: a text that goes on may begin with the same
        // words further right. Elsewhere any cell.
        private boolean begins(Row row, String text) {
            byte[] bytes = row.bytes();
            if (line >= 0) {
                return line < row.size() && Spans.startsWith(bytes, row.start(line), row.end(line), text);
            }
            for (int i = 0; i < row.size(); i++) {
                int start = Spans.trimStart(bytes, row.start(i), row.end(i));
                if (start < row.end(i) && Spans.startsWith(bytes, start, row.end(i), text)) {
                    return true;
                }
            }
            return false;
        }
    }
}
