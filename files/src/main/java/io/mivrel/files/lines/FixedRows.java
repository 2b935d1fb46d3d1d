package io.mivrel.files.lines;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Fixed-width text: each column stands at the same places of every line. Places count characters, not bytes; a form feed
 * at the beginning of a line counts as none. The last cell of a row is the whole line, under the title {@value #LINE}. For
 * one thread.
 */
public final class FixedRows implements RowSource {
    public static final String LINE = "line";

    private final TextLines lines;
    private final boolean withLine;
    private final int[] from;
    private final int[] to;
    private final List<String> titles;
    /** Places of the line that belong to a column; beyond the last one everything is of no column. */
    private final BitSet covered;

    /** The same the other way round: from and to, exclusive, of each stretch of no column; the last has no end. */
    private final int[] gaps;

    private final Row row = new Row();
    private boolean checked;

    public FixedRows(TextLines lines, List<Slice> slices) {
        this(lines, slices, true);
    }

    private FixedRows(TextLines lines, List<Slice> slices, boolean withLine) {
        this.withLine = withLine;
        this.lines = lines;
        this.from = slices.stream().mapToInt(s -> s.from() - 1).toArray();
        this.to = slices.stream().mapToInt(Slice::to).toArray();
        List<String> names = new ArrayList<>(slices.stream().map(Slice::name).toList());
        names.add(LINE);
        this.titles = List.copyOf(names);
        int last = slices.stream().mapToInt(Slice::to).max().orElse(0);
        this.covered = new BitSet(last);
        slices.forEach(s -> covered.set(s.from() - 1, s.to()));
        this.gaps = gaps(covered);
    }

    /** Rows without the blanks around cells, and without the whole line as their last one. */
    public static FixedRows columnsOnly(TextLines lines, List<Slice> slices) {
        return new FixedRows(lines, slices, false);
    }

    private static int[] gaps(BitSet covered) {
        List<Integer> gaps = new ArrayList<>();
        int from = covered.nextClearBit(0);
        for (int to = covered.nextSetBit(from); to >= 0; to = covered.nextSetBit(from)) {
            gaps.addAll(List.of(from, to));
            from = covered.nextClearBit(to);
        }
        gaps.addAll(List.of(from, Integer.MAX_VALUE));
        return gaps.stream().mapToInt(Integer::intValue).toArray();
    }

    @Override
    public List<String> titles() {
        return titles;
    }

    @Override
    public @Nullable Row next() throws IOException {
        if (!checked) {
            checked = true;
            if (!lines.isText()) {
                row.begin(1);
                row.fault(RowFault.NOT_TEXT);
                return row;
            }
        }
        if (!lines.next()) {
            return null;
        }
        byte[] b = lines.bytes();
        int start = lines.start();
        int end = lines.end();
        while (start < end && b[start] == '\f') {
            start++;
        }
        row.begin(lines.number());
        row.over(b);
        boolean plain = Spans.isAsciiWithoutNul(b, start, end);
        if (plain) {
            for (int i = 0; i < from.length; i++) {
                row.add(Math.min(start + from[i], end), Math.min(start + to[i], end));
            }
        } else {
            for (int i = 0; i < from.length; i++) {
                int first = place(b, start, end, from[i]);
                row.add(first, place(b, first, end, to[i] - from[i]));
            }
        }
        if (withLine) {
            row.add(start, end);
        } else {
            row.trim();
        }
        if (plain) {
            findInGaps(b, start, end);
        } else {
            findBetween(b, start, end);
        }
        if (lines.isTooLong()) {
            row.fault(RowFault.TOO_LONG);
        } else if (lines.isDamaged()) {
            row.fault(RowFault.BYTES_UNREADABLE);
        } else if (!plain && hasNul(b, start, end)) {
            row.fault(RowFault.NUL);
        }
        return row;
    }

    // Of a line of ASCII: a byte is a place.
    private void findInGaps(byte[] b, int start, int end) {
        for (int gap = 0; gap < gaps.length; gap += 2) {
            int to = Math.min(gaps[gap + 1], end - start);
            for (int place = gaps[gap]; place < to; place++) {
                if (b[start + place] != ' '
                        && b[start + place] != '|'
                        && Spans.trimStart(b, start + place, end) == start + place) {
                    row.textBetween(place + 1, text(b, start + place, start + to));
                    return;
                }
            }
        }
    }

    private void findBetween(byte[] b, int start, int end) {
        int place = 0;
        for (int i = start; i < end; i += Spans.length(b[i])) {
            if (b[i] != ' ' && !covered.get(place) && !isStroke(b, i) && Spans.trimStart(b, i, end) == i) {
                int next = covered.nextSetBit(place);
                row.textBetween(place + 1, text(b, i, next < 0 ? end : place(b, i, end, next - place)));
                return;
            }
            place++;
        }
    }

    // A stroke between two columns is no text: | or the upright of a box (U+2502, U+2551).
    private static boolean isStroke(byte[] b, int i) {
        return b[i] == '|'
                || b[i] == (byte) 0xE2 && i + 2 < b.length && b[i + 1] == (byte) 0x94 && b[i + 2] == (byte) 0x82
                || b[i] == (byte) 0xE2 && i + 2 < b.length && b[i + 1] == (byte) 0x95 && b[i + 2] == (byte) 0x91;
    }

    private static String text(byte[] b, int start, int end) {
        return new String(b, start, end - start, StandardCharsets.UTF_8).strip();
    }

    private static boolean hasNul(byte[] b, int start, int end) {
        for (int i = start; i < end; i++) {
            if (b[i] == 0) {
                return true;
            }
        }
        return false;
    }

    // Where the character stands that is so many after the start.
    private static int place(byte[] b, int start, int end, int characters) {
        int at = start;
        for (int i = 0; i < characters && at < end; i++) {
            at += Spans.length(b[at]);
        }
        return Math.min(at, end);
    }

    @Override
    public void close() throws IOException {
        lines.close();
    }
}
