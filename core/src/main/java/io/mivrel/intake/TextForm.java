package io.mivrel.intake;

import java.util.Objects;

/**
 * The form of a separated text file to be read.
 *
 * @param separator the character between cells
 * @param encoding the name of a character set, or {@code auto}: a byte-order mark, else strict UTF-8
 * @param titlesRow physical row of the titles, from 1; 0 when the file has none
 * @param dataRow physical row of the first row of data, where there are no titles; rows above it are left out
 * @param until the beginning of a cell of the first row that is no data any more; empty when data goes to the end
 * @param newestFirst true when the latest row comes first
 */
public record TextForm(char separator, String encoding, int titlesRow, int dataRow, String until, boolean newestFirst) {
    public static final String AUTO = "auto";

    /** A form whose data begins below the titles, or at the top when there are none. */
    public TextForm(char separator, String encoding, int titlesRow, String until, boolean newestFirst) {
        this(separator, encoding, titlesRow, titlesRow + 1, until, newestFirst);
    }

    public TextForm {
        Objects.requireNonNull(encoding);
        Objects.requireNonNull(until);
    }

    /** Comma-separated UTF-8 with titles in the first row. */
    public static TextForm csv() {
        return new TextForm(',', AUTO, 1, "", false);
    }
}
