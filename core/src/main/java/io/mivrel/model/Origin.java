package io.mivrel.model;

/**
 * Where something began: the file as the user named it, the sheet (empty for files without sheets) and the first
 * physical row, counted from 1; row 0 means the file as a whole. Immutable.
 */
public record Origin(String file, String sheet, long row) {

    /** A place in a file that has no sheets. */
    public static Origin of(String file, long row) {
        return new Origin(file, "", row);
    }

    @Override
    public String toString() {
        String place = sheet.isEmpty() ? file : file + " sheet " + sheet;
        return row == 0 ? place : place + " row " + row;
    }
}
