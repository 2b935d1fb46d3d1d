package io.mivrel.rows;

import java.util.List;
import java.util.Objects;

/**
 * The form of a file to be read. Immutable.
 *
 * @param kind what kind of file it is
 * @param separator the character between cells of separated text
 * @param encoding the name of a character set, or {@code auto}: a byte-order mark, else strict UTF-8; for text only
 * @param part the sheet of a workbook by name or place ({@code #2}), empty for the first one; or the account number whose
 *     statements are read, empty for all
 * @param slices the columns of fixed-width text; empty for other kinds
 * @param titlesRow physical row of the titles, from 1, the last where they take several; 0 when the file has none
 * @param titleRows how many rows the titles take, joined with a blank between; usually 1
 * @param dataRow physical row of the first row of data, where there are no titles; rows above it are left out
 * @param until the beginning of a cell of the first row that is no data any more; empty when data goes to the end
 * @param order in which order of time the rows stand
 */
public record FileFormat(
        FileKind kind,
        char separator,
        String encoding,
        String part,
        List<Slice> slices,
        int titlesRow,
        int titleRows,
        int dataRow,
        String until,
        RowOrder order) {
    public static final String AUTO = "auto";

    /**
     * A column of fixed-width text.
     *
     * @param name its title
     * @param from the first place on the line, from 1
     * @param to the last place, included
     */
    public record Slice(String name, int from, int to) {}

    public FileFormat {
        Objects.requireNonNull(kind);
        Objects.requireNonNull(encoding);
        Objects.requireNonNull(part);
        Objects.requireNonNull(until);
        slices = List.copyOf(slices);
    }

    /** Comma-separated UTF-8 with titles in the first row. */
    public static FileFormat csv() {
        return separated(',', AUTO);
    }

    /** Separated text with titles in the first row. */
    public static FileFormat separated(char separator, String encoding) {
        return new FileFormat(
                FileKind.SEPARATED, separator, encoding, "", List.of(), 1, 1, 2, "", RowOrder.OLDEST_FIRST);
    }

    /** The same saved with another separator and in another encoding. */
    public FileFormat saved(char withSeparator, String inEncoding) {
        return new FileFormat(
                kind, withSeparator, inEncoding, part, slices, titlesRow, titleRows, dataRow, until, order);
    }

    /** The same with its titles in this row and its data below; 0 for data from the top without titles. */
    public FileFormat titlesIn(int row) {
        return new FileFormat(kind, separator, encoding, part, slices, row, titleRows, row + 1, until, order);
    }

    /** The same with data that ends before a row with a cell that begins so. */
    public FileFormat endingAt(String beginning) {
        return new FileFormat(kind, separator, encoding, part, slices, titlesRow, titleRows, dataRow, beginning, order);
    }

    /** The same with rows in another order. */
    public FileFormat ordered(RowOrder other) {
        return new FileFormat(kind, separator, encoding, part, slices, titlesRow, titleRows, dataRow, until, other);
    }

    /** The same with the latest row first. */
    public FileFormat latestFirst() {
        return ordered(RowOrder.NEWEST_FIRST);
    }

    /** Says of a place in a fixed-width line, from 1, which stretch of no column it belongs to. */
    public String gapAt(int place) {
        Slice before = null;
        Slice after = null;
        for (Slice slice : slices) {
            if (slice.to() < place && (before == null || slice.to() > before.to())) {
                before = slice;
            }
            if (slice.from() > place && (after == null || slice.from() < after.from())) {
                after = slice;
            }
        }
        int from = before == null ? 1 : before.to() + 1;
        String words =
                after == null ? "from place " + from + " on" : "from place " + from + " to " + (after.from() - 1);
        if (before != null && after != null) {
            words += ", between '" + before.name() + "' and '" + after.name() + "',";
        } else if (before != null) {
            words += ", behind '" + before.name() + "',";
        }
        return words + " there is no column";
    }

    /** A statement format that fixes its own columns. */
    public static FileFormat statement(FileKind kind) {
        return new FileFormat(kind, ',', AUTO, "", List.of(), 0, 1, 1, "", RowOrder.OLDEST_FIRST);
    }

    /** The same in an encoding. */
    public FileFormat encodedIn(String other) {
        return new FileFormat(kind, separator, other, part, slices, titlesRow, titleRows, dataRow, until, order);
    }

    /** A sheet of a workbook with its titles in a row; {@code sheet} is a name, {@code #2} or empty. */
    public static FileFormat workbook(String sheet, int titlesRow) {
        return new FileFormat(
                FileKind.WORKBOOK, ',', AUTO, sheet, List.of(), titlesRow, 1, titlesRow + 1, "", RowOrder.OLDEST_FIRST);
    }

    /** Fixed-width text without titles that are read. */
    public static FileFormat fixedWidth(String encoding, Slice... slices) {
        return new FileFormat(
                FileKind.FIXED_WIDTH, ',', encoding, "", List.of(slices), 0, 1, 1, "", RowOrder.OLDEST_FIRST);
    }
}
