package io.mivrel.delivery;

import java.io.Closeable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Takes the cells of rows in their order and writes them in some file format. */
public interface RowWriter extends Closeable {

    /** The next cell of the row: the UTF-8 bytes from {@code from} up to {@code to}, unquoted. */
    void cell(byte[] bytes, int from, int to) throws IOException;

    void endRow() throws IOException;

    /** A row that is one text from end to end, without separators or quotes of the form's own. */
    default void line(String text) throws IOException {
        texts(List.of(text));
    }

    /** A whole row of texts that are no data: titles, and what stands above and below. */
    default void texts(List<String> cells) throws IOException {
        for (String text : cells) {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            cell(bytes, 0, bytes.length);
        }
        endRow();
    }
}
