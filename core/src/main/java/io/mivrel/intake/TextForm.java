package io.mivrel.intake;

import java.util.Objects;

/**
 * The form of a separated text file to be read.
 *
 * @param separator the character between cells
 * @param encoding the name of a character set, or {@code auto}: a byte-order mark, else strict UTF-8
 * @param titlesRow physical row of the titles, from 1; 0 when the file has none
 * @param until the beginning of a cell of the first row that is no data any more; empty when data goes to the end
 * @param newestFirst true when the latest row comes first
 */
public record TextForm(char separator, String encoding, int titlesRow, String until, boolean newestFirst) {
    public static final String AUTO = "auto";

    public TextForm {
        Objects.requireNonNull(encoding);
        Objects.requireNonNull(until);
    }

    /** Comma-separated UTF-8 with titles in the first row. */
    public static TextForm csv() {
        return new TextForm(',', AUTO, 1, "", false);
    }
}
