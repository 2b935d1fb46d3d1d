package io.mivrel.shape;

import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Rows that go on in the lines below them, as texts that are wrapped in a print file. A line in which none of the columns
 * that begin a row is filled belongs to the row above: its texts are joined to those of the row, and what else it holds
 * fills the row's blank cells. It may go on behind a page heading. A row between that is left out ends it, and so does a
 * blank one.
 *
 * @param begins a row begins where one of these columns is filled
 * @param joins the columns of texts, which are joined with a blank between
 * @param filler what leads from the end of a text to the next column, such as {@code .}, and is taken off; may be empty
 * @param apart rows that are left out, and so are no part of another
 */
public record Wrapped(List<String> begins, List<String> joins, String filler, List<RowFilter> apart) implements Shape {
    /** Lines between a row and the one that goes on from it, such as those of a page heading and around it. */
    private static final int MOST_BEHIND = 500;

    public Wrapped {
        begins = List.copyOf(begins);
        joins = List.copyOf(joins);
        apart = List.copyOf(apart);
    }

    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return new Rows(rows, this);
    }

    @Override
    public List<String> needs() {
        List<String> needs = new ArrayList<>(begins);
        needs.addAll(joins);
        return needs;
    }

    private static final class Rows extends ShapedRows {
        private final Wrapped wrapped;
        private int[] begins = {};
        private int[] apart = {};
        /** The cell that is the whole line of a print file, which stays that of the first; -1 for none. */
        private int line = -1;

        private final Set<Integer> joins = new HashSet<>();
        private final Deque<Row> ready = new ArrayDeque<>();
        /** The row that may go on, and what stands behind its first line; {@code null} for none. */
        private byte @Nullable [][] open;

        private Row first = new Row();
        private @Nullable String twice;
        private final List<Row> behind = new ArrayList<>();
        private boolean suspended;
        private boolean underHead;

        Rows(RowSource inner, Wrapped wrapped) {
            super(inner);
            this.wrapped = wrapped;
        }

        @Override
        List<String> titlesOver(List<String> source) throws IOException {
            line = source.indexOf(LINE);
            begins = places(wrapped.begins, source, "wrapped");
            for (int place : places(wrapped.joins, source, "wrapped")) {
                joins.add(place);
            }
            apart = new int[wrapped.apart.size()];
            for (int i = 0; i < apart.length; i++) {
                String column = wrapped.apart.get(i).column();
                // A column that another shape adds later is not there yet.
                apart[i] = column.isEmpty()
                        ? -1
                        : column.startsWith("#") ? place(column, source, "") : source.indexOf(column);
            }
            return source;
        }

        @Override
        public @Nullable Row next() throws IOException {
            while (true) {
                Row done = ready.poll();
                if (done != null) {
                    return done;
                }
                Row row = inner.next();
                if (row == null) {
                    close(null);
                    return ready.poll();
                }
                take(row);
            }
        }

        private void take(Row row) throws IOException {
            if (row.ended() != null || row.fault() != null) {
                close(row.copy());
                return;
            }
            if (row.aside() != null) {
                if (row.aside() == LeftOut.PAGE_HEAD) {
                    suspended = false;
                    underHead = true;
                }
                stay(row.copy());
                return;
            }
            learnTitles(row);
            boolean isText = open != null && !suspended && isTextOnly(row) && !isFoot(row);
            if (row.isBlank() || !isText && isApart(row)) {
                // Those around a page heading do not end the row that goes on behind it.
                suspended |= !underHead;
                stay(row.copy());
            } else if (begins(row)) {
                close(null);
                begin(row);
            } else if (open == null || suspended) {
                Row lost = row.copy();
                lost.fault(RowFault.CONTINUES_NOTHING);
                close(lost);
            } else {
                goOn(row, open);
            }
        }

        private boolean begins(Row row) {
            for (int place : begins) {
                if (isFilled(row, place)) {
                    return true;
                }
            }
            return false;
        }

        // A text that goes on is never taken for something else, whatever its words.
        private boolean isTextOnly(Row row) {
            for (int i = 0; i < row.size(); i++) {
                if (i != line && !joins.contains(i) && isFilled(row, i)) {
                    return false;
                }
            }
            return !row.isBlank();
        }

        // A whole line that the layout leaves out, such as the foot of a page.
        private boolean isFoot(Row row) {
            for (int i = 0; i < apart.length; i++) {
                RowFilter filter = wrapped.apart.get(i);
                if (line >= 0
                        && apart[i] == line
                        && filter.test() == RowFilter.Test.IS
                        && filter.leavesOut(row, line)) {
                    return true;
                }
            }
            return false;
        }

        private boolean isApart(Row row) {
            for (int i = 0; i < apart.length; i++) {
                RowFilter filter = wrapped.apart.get(i);
                if ((apart[i] >= 0 || filter.column().isEmpty()) && filter.leavesOut(row, apart[i])) {
                    return true;
                }
            }
            return false;
        }

        private void begin(Row row) {
            byte[][] cells = new byte[row.size()][];
            for (int i = 0; i < cells.length; i++) {
                cells[i] = text(row, i);
            }
            open = cells;
            first = row.copy();
            twice = null;
            suspended = false;
            underHead = false;
        }

        private void goOn(Row row, byte[][] into) {
            underHead = false;
            for (int i = 0; i < Math.min(row.size(), into.length); i++) {
                byte[] text = text(row, i);
                if (text.length == 0 || i == line) {
                    continue;
                }
                if (into[i].length == 0) {
                    into[i] = text;
                } else if (joins.contains(i)) {
                    into[i] = joined(into[i], text);
                } else if (line < 0 || i < line || !Arrays.equals(into[i], text)) {
                    // What another shape has put behind the line, such as an account above, is the same in both.
                    twice = row.trimmed(i);
                }
            }
            if (row.placeBetween() > 0) {
                first.textBetween(row.placeBetween(), row.textBetween());
            }
            Row more = row.copy();
            more.aside(LeftOut.CONTINUED);
            behind.add(more);
        }

        private static byte[] joined(byte[] one, byte[] other) {
            byte[] both = new byte[one.length + 1 + other.length];
            System.arraycopy(one, 0, both, 0, one.length);
            both[one.length] = ' ';
            System.arraycopy(other, 0, both, one.length + 1, other.length);
            return both;
        }

        // Of a text, without what leads on to the next column.
        private byte[] text(Row row, int cell) {
            byte[] text = trimmed(row, cell);
            byte[] filler = bytes(wrapped.filler);
            if (filler.length != 1 || !joins.contains(cell)) {
                return text;
            }
            int end = text.length;
            while (end > 0 && text[end - 1] == filler[0]) {
                end--;
            }
            boolean leads = end < text.length && (end == 0 || text[end - 1] == ' ');
            while (leads && end > 0 && text[end - 1] == ' ') {
                end--;
            }
            return leads ? Arrays.copyOf(text, end) : text;
        }

        // Rows that are not its own stand behind the open row until that is whole.
        private void stay(Row row) {
            (open == null ? ready : behind).add(row);
            if (behind.size() > MOST_BEHIND) {
                // No row goes on so far below; a million blank lines must not fill the memory.
                close(null);
            }
        }

        private void close(@Nullable Row next) {
            if (open != null) {
                beginRow(first);
                for (byte[] cell : open) {
                    add(cell);
                }
                Row whole = finishRow().copy();
                if (twice != null) {
                    whole.fault(RowFault.CONTINUED_TWICE, twice);
                }
                ready.add(whole);
                ready.addAll(behind);
                behind.clear();
                open = null;
            }
            if (next != null) {
                ready.add(next);
            }
        }
    }
}
