package io.mivrel.delivery;

import java.util.Objects;

/**
 * The form of a delivered file.
 *
 * @param kind the word of its {@link RowForm}: {@code separated}, {@code fixed width}, {@code workbook}, or a program's own
 * @param separator the character between cells
 * @param encoding the name of a character set
 * @param lineEnd what ends a row
 * @param byteOrderMark true to begin with one
 * @param titles true to write the titles as the first row of every file
 * @param quoteAll true to quote every cell, false only those that need it
 * @param rowsAtMost most rows in one file without the titles, 0 for any number; a document is never divided
 * @param name pattern of the file name with {@code {run}}, {@code {date}} and {@code {part}}
 * @param tab the name of its sheet where it is a workbook; empty for any
 */
public record DeliveryFormat(
        String kind,
        char separator,
        String encoding,
        String lineEnd,
        boolean byteOrderMark,
        boolean titles,
        boolean quoteAll,
        int rowsAtMost,
        String name,
        String tab) {

    /** What a format is when nothing is said. */
    public static final String SEPARATED = "separated";

    public DeliveryFormat {
        Objects.requireNonNull(kind);
        Objects.requireNonNull(encoding);
        Objects.requireNonNull(lineEnd);
        Objects.requireNonNull(name);
        Objects.requireNonNull(tab);
    }

    /** Separated text. */
    public DeliveryFormat(
            char separator,
            String encoding,
            String lineEnd,
            boolean byteOrderMark,
            boolean titles,
            boolean quoteAll,
            int rowsAtMost,
            String name) {
        this(SEPARATED, separator, encoding, lineEnd, byteOrderMark, titles, quoteAll, rowsAtMost, name, "");
    }

    /** The same in another form. */
    public DeliveryFormat of(String otherKind) {
        return new DeliveryFormat(
                otherKind, separator, encoding, lineEnd, byteOrderMark, titles, quoteAll, rowsAtMost, name, tab);
    }

    /** Comma-separated UTF-8 with CRLF and titles, as RFC 4180 has it. */
    public static DeliveryFormat csv(String name) {
        return new DeliveryFormat(',', "UTF-8", "\r\n", false, true, false, 0, name);
    }

    /** The same with another separator, encoding and line end. */
    public DeliveryFormat with(char otherSeparator, String otherEncoding, String otherLineEnd) {
        return new DeliveryFormat(
                kind,
                otherSeparator,
                otherEncoding,
                otherLineEnd,
                byteOrderMark,
                titles,
                quoteAll,
                rowsAtMost,
                name,
                tab);
    }

    /** The same without a row of titles. */
    public DeliveryFormat withoutTitles() {
        return new DeliveryFormat(
                kind, separator, encoding, lineEnd, byteOrderMark, false, quoteAll, rowsAtMost, name, tab);
    }

    /** The same in files of so many rows at most; the name needs {@code {part}}. */
    public DeliveryFormat inParts(int rows) {
        return new DeliveryFormat(kind, separator, encoding, lineEnd, byteOrderMark, titles, quoteAll, rows, name, tab);
    }

    /** A text with {@code {run}}, {@code {date}} and {@code {part}} filled in. */
    public static String filled(String text, String run, String date, int part) {
        return text.replace("{run}", run).replace("{date}", date).replace("{part}", Integer.toString(part));
    }
}
