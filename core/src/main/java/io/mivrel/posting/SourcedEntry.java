package io.mivrel.posting;

/**
 * An entry with the place of the document that it was made of.
 *
 * @param file the source file
 * @param rows its rows there, from 1, in order
 */
public record SourcedEntry(Entry entry, String file, long[] rows) {
    /** The first row. */
    public long row() {
        return rows.length == 0 ? 0 : rows[0];
    }
}
