package io.mivrel.survey;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A figure with a mark beside it: the sign or code of a currency, or the side of an amount.
 *
 * @param figure the bytes of the figure alone, with its sign
 * @param mark the mark
 * @param isSide true for the mark of a side
 */
record MarkedFigure(byte[] figure, String mark, boolean isSide) {
    private static final int LONGEST = 6;
    private static final Set<String> SIDES = Set.of("CR", "DR", "C", "D", "S", "H", "CT", "DT");
    private static final String PART_OF_FIGURE = "0123456789.,'\u2019 \u00a0\u202f\u2007\u2009+-\u2212\u2013()";

    /** {@code null} when the cell has no mark, or more than one, or when it is no figure with one. */
    static @Nullable MarkedFigure of(byte[] bytes, int start, int end) {
        boolean plain = true;
        for (int i = start; plain && i < end; i++) {
            plain = bytes[i] >= '(' && bytes[i] <= '9' || bytes[i] == ' ' || bytes[i] == '\'';
        }
        if (plain) {
            return null;
        }
        String cell = new String(bytes, start, end - start, StandardCharsets.UTF_8);
        int from = -1;
        int to = -1;
        for (int i = 0; i < cell.length(); i++) {
            if (PART_OF_FIGURE.indexOf(cell.charAt(i)) < 0) {
                from = from < 0 ? i : from;
                to = i + 1;
            }
        }
        if (from < 0 || to - from > LONGEST) {
            return null;
        }
        String before = cell.substring(0, from);
        String behind = cell.substring(to);
        boolean leads = before.chars().noneMatch(Character::isDigit);
        boolean trails = behind.chars().noneMatch(Character::isDigit);
        if (leads == trails) {
            return null;
        }
        String mark = cell.substring(from, to);
        boolean isSide = trails && SIDES.contains(mark.toUpperCase(Locale.ROOT));
        String figure = (before.strip() + behind.strip()).strip();
        return new MarkedFigure(figure.getBytes(StandardCharsets.UTF_8), mark, isSide);
    }
}
