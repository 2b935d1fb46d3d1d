package io.mivrel.intake;

import io.mivrel.rows.Row;
import org.jspecify.annotations.Nullable;

/**
 * Tells whether the last figure of a file was cut off: it has no line end behind it, and fewer decimals than the figures
 * above it all have. For one thread.
 */
final class LastCell {
    private static final int LOOKED_AT = 50;
    private static final int LEAST = 3;

    private int looks;
    private int rows;
    private int decimals = -1;
    private boolean varies;

    /** Answers the last figure when the row was cut off in it; else {@code null}. */
    @Nullable
    String cutOff(Row row) {
        if (looks >= LOOKED_AT && !row.isUnended()) {
            return null;
        }
        looks++;
        int behind = decimals(row);
        if (row.isUnended()) {
            boolean shorter = rows >= LEAST && !varies && decimals > 0 && behind < decimals;
            return shorter ? row.trimmed(row.size() - 1) : null;
        }
        if (behind >= 0) {
            varies |= rows > 0 && behind != decimals;
            decimals = behind;
            rows++;
        }
        return null;
    }

    // Digits behind the last mark of the last cell: 0 for a whole number, -1 for what is no figure.
    private static int decimals(Row row) {
        String cell = row.size() == 0 ? "" : row.trimmed(row.size() - 1);
        if (!cell.matches("[-+(]?[0-9][0-9.,' ]*[)-]?|[-+]?")) {
            return -1;
        }
        int mark = Math.max(cell.lastIndexOf('.'), cell.lastIndexOf(','));
        return mark < 0
                ? 0
                : (int) cell.substring(mark).chars().filter(Character::isDigit).count();
    }
}
