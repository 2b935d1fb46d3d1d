package io.mivrel.survey;

import io.mivrel.layout.Whose;
import io.mivrel.text.TradeWords;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Finds out whose a file is, by what stands beside its rows: number, currency, bank and holder of the account. */
final class OwnerSearch {
    private static final BigInteger NINETY_SEVEN = BigInteger.valueOf(97);

    private OwnerSearch() {}

    /** A value that stands beside the rows with words before it: in one cell with a colon, or in the next that is filled. */
    record Labelled(String label, String value) {}

    /** All of them in some rows. */
    static List<Labelled> labelled(Collection<Sample.Kept> rows) {
        List<Labelled> found = new ArrayList<>();
        for (Sample.Kept row : rows) {
            List<String> cells = row.cells();
            for (int i = 0; i < cells.size(); i++) {
                String cell = cells.get(i);
                int colon = cell.indexOf(':');
                String label = colon > 0 ? cell.substring(0, colon).strip() : cell;
                String value = colon > 0 ? cell.substring(colon + 1).strip() : "";
                for (int next = i + 1; value.isEmpty() && next < cells.size(); next++) {
                    value = cells.get(next);
                }
                if (!label.isEmpty() && !value.isEmpty()) {
                    found.add(new Labelled(label, value));
                }
            }
        }
        return found;
    }

    /**
     * What the rows say.
     *
     * @param numberColumn the column of account numbers, in a file of several accounts; {@code null} for none
     */
    static Whose find(Collection<Sample.Kept> rows, @Nullable String numberColumn) {
        Map<String, Whose.Mark> marks = new LinkedHashMap<>();
        for (Labelled one : labelled(rows)) {
            String what = what(one.label, one.value);
            if (what != null && !(what.equals(Whose.NUMBER) && numberColumn != null)) {
                marks.putIfAbsent(what, new Whose.Mark(one.label, List.of(one.value)));
            }
        }
        return new Whose(marks, numberColumn);
    }

    private static @Nullable String what(String label, String value) {
        if (StatedCurrency.ofCode(value) != null) {
            return Whose.CURRENCY;
        }
        boolean number = isNumber(value);
        if (isIban(value) || number && TradeWords.is("account-label", label)) {
            return Whose.NUMBER;
        }
        if (TradeWords.is("holder-label", label) && value.chars().anyMatch(Character::isLetter)) {
            return Whose.HOLDER;
        }
        return TradeWords.is("bank-label", label) && number ? Whose.BANK : null;
    }

    // Digits with blanks, strokes and perhaps letters or stars between, not a day.
    private static boolean isNumber(String text) {
        long digits = text.chars().filter(Character::isDigit).count();
        return digits >= 4
                && text.length() <= 40
                && text.matches("[\\p{L}\\p{N}*./ -]+")
                && !text.matches("\\d{1,4}[-./ ]\\d{1,2}[-./ ]\\d{1,4}.*");
    }

    /** True for an international account number whose check digits are right (ISO 13616). */
    static boolean isIban(String text) {
        String bare = text.replace(" ", "").toUpperCase(Locale.ROOT);
        if (!bare.matches("[A-Z]{2}\\d{2}[A-Z0-9]{11,30}")) {
            return false;
        }
        StringBuilder digits = new StringBuilder();
        (bare.substring(4) + bare.substring(0, 4)).chars().forEach(c -> digits.append(Character.digit(c, 36)));
        return new BigInteger(digits.toString()).mod(NINETY_SEVEN).intValue() == 1;
    }
}
