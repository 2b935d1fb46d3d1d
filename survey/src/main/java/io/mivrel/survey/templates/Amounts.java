package io.mivrel.survey.templates;

import java.math.BigDecimal;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Amounts of samples, in whatever form they are written. */
final class Amounts {
    private static final Pattern AMOUNT = Pattern.compile(
            "[-+]?\\d{1,3}(?:[.,' \u00a0]\\d{3})*(?:[.,]\\d{1,4})?-?|[-+]?\\d+(?:[.,]\\d{1,4})?-?|\\(\\d[\\d.,' \u00a0]*\\)");

    private Amounts() {}

    static boolean isAmount(String cell) {
        return AMOUNT.matcher(cell).matches();
    }

    /** The decimal mark of an amount where it tells; empty where it does not. */
    static Set<Character> decimalMark(String cell) {
        String figures = cell.replaceAll("[^\\d.,]", "");
        int last = Math.max(figures.lastIndexOf('.'), figures.lastIndexOf(','));
        if (last < 0) {
            return Set.of();
        }
        char mark = figures.charAt(last);
        boolean both = figures.indexOf(mark == '.' ? ',' : '.') >= 0;
        boolean once = figures.indexOf(mark) == last;
        return once && (both || figures.length() - last - 1 != 3) ? Set.of(mark) : Set.of();
    }

    /** Its value; {@code null} when it is not an amount, or its marks do not tell it. */
    static @Nullable BigDecimal value(String cell) {
        if (!isAmount(cell)) {
            return null;
        }
        Set<Character> decimal = decimalMark(cell);
        if (decimal.isEmpty() && cell.matches(".*[.,].*")) {
            return null;
        }
        boolean minus = cell.startsWith("-") || cell.startsWith("(") || cell.endsWith("-");
        StringBuilder plain = new StringBuilder();
        for (char c : cell.toCharArray()) {
            if (c >= '0' && c <= '9') {
                plain.append(c);
            } else if (decimal.contains(c)) {
                plain.append('.');
            }
        }
        BigDecimal value = new BigDecimal(plain.toString());
        return minus ? value.negate() : value;
    }

    /** The sum of all; {@code null} when one has no value. */
    static @Nullable BigDecimal sum(List<String> cells) {
        BigDecimal sum = BigDecimal.ZERO;
        for (String cell : cells) {
            BigDecimal value = cell.isEmpty() ? BigDecimal.ZERO : value(cell);
            if (value == null) {
                return null;
            }
            sum = sum.add(value);
        }
        return sum;
    }
}
