package io.mivrel.rows;

import io.mivrel.text.Spans;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A view of one row: its cells are spans of a buffer of UTF-8 bytes that belongs to the row source, so a row is valid only
 * until the next one is asked for, and a string is made only of a cell that is kept. Cell numbers count from 0.
 */
public final class Row {
    /** Stands in a held row where its source had no cell, until somebody puts there what belongs. */
    public static final String NO_CELL = "no cell here";

    private byte[] bytes = new byte[0];
    private int[] spans = new int[64];
    private int size;
    /** Whether any of the remarks below was made since {@link #begin}. */
    private boolean remarks;

    private long number;
    private @Nullable RowFault fault;
    private @Nullable String faultValue;
    private boolean quoteInside;
    private @Nullable LeftOut aside;
    private boolean again;
    private int betweenPlace;
    private boolean unended;
    private String between = "";
    private @Nullable Statement statement;
    /** Cells that are numbers or days by the format itself; {@code null} for none. */
    private @Nullable BitSet plain;

    /** Empties it for the row that begins at the given physical line, counted from 1. For row sources. */
    public void begin(long physicalRow) {
        number = physicalRow;
        size = 0;
        if (plain != null) {
            plain = null;
        }
        if (remarks) {
            remarks = false;
            fault = null;
            faultValue = null;
            quoteInside = false;
            aside = null;
            again = false;
            betweenPlace = 0;
            unended = false;
            statement = null;
        }
    }

    /** True when something besides its cells must be looked at; if not, no other question need be asked. */
    public boolean hasRemarks() {
        return remarks;
    }

    /** Sets the buffer that the spans refer to. For row sources. */
    public void over(byte[] buffer) {
        bytes = buffer;
    }

    /** Takes the blanks around its cells off. For row sources. */
    public void trim() {
        for (int i = 0; i < size; i++) {
            int start = Spans.trimStart(bytes, spans[2 * i], spans[2 * i + 1]);
            spans[2 * i] = start;
            spans[2 * i + 1] = Spans.trimEnd(bytes, start, spans[2 * i + 1]);
        }
    }

    /** Adds a cell. For row sources. */
    public void add(int start, int end) {
        if (2 * size == spans.length) {
            growSpans();
        }
        spans[2 * size] = start;
        spans[2 * size + 1] = end;
        size++;
    }

    /** Adds blank cells until there are so many. */
    public void pad(int cells) {
        while (size < cells) {
            add(0, 0);
        }
    }

    /** A row of its own with the same cells and remarks, for what must outlast the next one. */
    public Row copy() {
        Row copy = new Row();
        copy.begin(number);
        int length = 0;
        for (int i = 0; i < size; i++) {
            length += end(i) - start(i);
        }
        byte[] own = new byte[length];
        int at = 0;
        for (int i = 0; i < size; i++) {
            int cell = end(i) - start(i);
            System.arraycopy(bytes, start(i), own, at, cell);
            copy.add(at, at + cell);
            at += cell;
        }
        copy.over(own);
        copy.plain = plain == null ? null : (BitSet) plain.clone();
        if (remarks) {
            copy.remarks = true;
            copy.fault = fault;
            copy.faultValue = faultValue;
            copy.quoteInside = quoteInside;
            copy.aside = aside;
            copy.again = again;
            copy.betweenPlace = betweenPlace;
            copy.between = between;
            copy.unended = unended;
            copy.statement = statement;
        }
        return copy;
    }

    /** Fills it with cells that are strings already. For row sources. */
    public void fill(long physicalRow, List<String> cells) {
        begin(physicalRow);
        byte[][] encoded = new byte[cells.size()][];
        int length = 0;
        for (int i = 0; i < encoded.length; i++) {
            encoded[i] = cells.get(i).getBytes(StandardCharsets.UTF_8);
            length += encoded[i].length;
        }
        over(new byte[length]);
        int at = 0;
        for (byte[] cell : encoded) {
            System.arraycopy(cell, 0, bytes, at, cell.length);
            add(at, at + cell.length);
            at += cell.length;
        }
    }

    /**
     * Start and end of each cell by turns, for row sources that fill them without a call for each cell; they then set
     * {@link #size(int)}, and {@link #growSpans} when there is no room.
     */
    public int[] spans() {
        return spans;
    }

    /** Doubles the room for spans and answers them. For row sources. */
    public int[] growSpans() {
        spans = Arrays.copyOf(spans, spans.length * 2);
        return spans;
    }

    /** Sets the number of cells whose spans were filled. For row sources. */
    public void size(int cells) {
        size = cells;
    }

    /** Moves the end of a cell, after doubled quotes were made single. For row sources. */
    public void end(int cell, int end) {
        spans[2 * cell + 1] = end;
    }

    public void fault(@Nullable RowFault found) {
        remarks = true;
        fault = found;
    }

    /** The same, with the text that is wrong, where it is not the first cell. */
    public void fault(RowFault found, String value) {
        remarks = true;
        fault = found;
        faultValue = value;
    }

    public void quoteInside() {
        remarks = true;
        quoteInside = true;
    }

    /**
     * Says that a cell is a number or a day by the format itself, as in a workbook: it is written with a point and without
     * thousands, or as ISO 8601 says, whatever the layout says of texts. For row sources.
     */
    public void plain(int cell) {
        plain = plain == null ? new BitSet() : plain;
        plain.set(cell);
    }

    /** True for a cell that is a number or a day by the format itself. */
    public boolean isPlain(int cell) {
        return plain != null && plain.get(cell);
    }

    /** Marks a row that the source itself knows to be no record. For row sources. */
    public void aside(LeftOut cause) {
        remarks = true;
        aside = cause;
    }

    /** Makes it no row at all, but the news that a statement has ended. For row sources. */
    public void ends(Statement ended) {
        remarks = true;
        statement = ended;
    }

    /** Says that the physical row has given an earlier row already. For row sources. */
    public void again() {
        remarks = true;
        again = true;
    }

    /** True when the physical row has given an earlier row already. */
    public boolean isAgain() {
        return again;
    }

    /**
     * Says that something stands between the columns of fixed-width text, where it would be lost. For row sources.
     *
     * @param place the place in the line where it begins, from 1
     * @param text what stands there
     */
    public void textBetween(int place, String text) {
        remarks = true;
        betweenPlace = place;
        between = text;
    }

    /** Says that the file ends without a line end behind this row. For row sources. */
    public void unended() {
        remarks = true;
        unended = true;
    }

    /** True for a last row without a line end. */
    public boolean isUnended() {
        return unended;
    }

    /** The place in the line, from 1, where something begins that is in no cell; 0 when nothing is. */
    public int placeBetween() {
        return betweenPlace;
    }

    /** What stands where no cell is. */
    public String textBetween() {
        return between;
    }

    /** Why the source knows this row to be no record; {@code null} when it may be one. */
    public @Nullable LeftOut aside() {
        return aside;
    }

    /** The statement that ended; {@code null} for a real row. */
    public @Nullable Statement ended() {
        return statement;
    }

    /** The UTF-8 bytes that the cells lie in. */
    public byte[] bytes() {
        return bytes;
    }

    public int size() {
        return size;
    }

    public int start(int cell) {
        return spans[2 * cell];
    }

    public int end(int cell) {
        return spans[2 * cell + 1];
    }

    /** The first physical line of the row in its file, from 1. */
    public long number() {
        return number;
    }

    /** What is wrong with the row as a whole, or {@code null}. */
    public @Nullable RowFault fault() {
        return fault;
    }

    /** The text that is wrong with the row as a whole; its first cell where the source named none. */
    public String faultValue() {
        return faultValue != null ? faultValue : size > 0 ? text(0) : "";
    }

    public boolean hasQuoteInside() {
        return quoteInside;
    }

    /** The cell as a string, as it stands. */
    public String text(int cell) {
        return new String(bytes, start(cell), end(cell) - start(cell), StandardCharsets.UTF_8);
    }

    /** The cell as a string without blanks around it. */
    public String trimmed(int cell) {
        int start = Spans.trimStart(bytes, start(cell), end(cell));
        return new String(bytes, start, Spans.trimEnd(bytes, start, end(cell)) - start, StandardCharsets.UTF_8);
    }

    /** Its cells as titles, each with the title that stands above it before it. */
    public List<String> titlesBelow(List<String> above) {
        List<String> titles = new ArrayList<>(size);
        for (int i = 0; i < Math.max(size, above.size()); i++) {
            String upper = i < above.size() ? above.get(i) : "";
            String lower = i < size ? trimmed(i) : "";
            titles.add(upper.isEmpty() || lower.isEmpty() ? upper + lower : upper + " " + lower);
        }
        return titles;
    }

    /** True when no cell holds more than blanks. */
    public boolean isBlank() {
        for (int i = 0; i < size; i++) {
            if (Spans.trimStart(bytes, start(i), end(i)) < end(i)) {
                return false;
            }
        }
        return true;
    }
}
