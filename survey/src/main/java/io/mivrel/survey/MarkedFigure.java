package io.mivrel.survey;

import java.nio.charset.StandardCharsets;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
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
    private static final int LONGEST = 4;
    /** Bytes of a mark and of blanks and signs beyond ASCII beside it. */
    private static final int MOST_BYTES = 16;

    /** Countries whose sign of their currency stands beside amounts. */
    private static final List<String> COUNTRIES = List.of(
            "en-GB", "en-US", "en-IN", "en-CA", "en-AU", "de-DE", "de-CH", "fr-FR", "es-ES", "pt-BR", "nl-NL", "sv-SE",
            "da-DK", "nb-NO", "pl-PL", "cs-CZ", "ja-JP", "hu-HU", "ro-RO", "tr-TR", "he-IL");

    private static final Set<String> CURRENCIES = currencies();
    private static final Set<String> SIDES = Set.of("CR", "DR", "C", "D", "S", "H", "CT", "DT");
    private static final String PART_OF_FIGURE = "0123456789.,'\u2019 \u00a0\u202f\u2007\u2009+-\u2212\u2013()";

    /** {@code null} when the cell has no mark, or more than one, or when it is no figure with one. */
    static @Nullable MarkedFigure of(byte[] bytes, int start, int end) {
        int others = 0;
        for (int i = start; i < end; i++) {
            boolean plain = bytes[i] >= '(' && bytes[i] <= '9' || bytes[i] == ' ' || bytes[i] == '\'';
            others += plain ? 0 : 1;
        }
        if (others == 0 || others > MOST_BYTES) {
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
        if (!isMark(mark.strip(), trails)) {
            return null;
        }
        boolean isSide = trails && SIDES.contains(mark.toUpperCase(Locale.ROOT));
        String figure = (before.strip() + behind.strip()).strip();
        return new MarkedFigure(figure.getBytes(StandardCharsets.UTF_8), mark, isSide);
    }

    private static boolean isMark(String mark, boolean trails) {
        String small = mark.toLowerCase(Locale.ROOT).replace(".", "");
        return trails && SIDES.contains(mark.toUpperCase(Locale.ROOT))
                || CURRENCIES.contains(small)
                || mark.codePoints().allMatch(c -> Character.getType(c) == Character.CURRENCY_SYMBOL);
    }

    // Codes of ISO 4217, and the signs that the platform's locale data (Unicode CLDR) has for them.
    private static Set<String> currencies() {
        Set<String> known = new HashSet<>();
        Currency.getAvailableCurrencies()
                .forEach(c -> known.add(c.getCurrencyCode().toLowerCase(Locale.ROOT)));
        for (String country : COUNTRIES) {
            Locale locale = Locale.forLanguageTag(country);
            known.add(Currency.getInstance(locale)
                    .getSymbol(locale)
                    .toLowerCase(Locale.ROOT)
                    .replace(".", ""));
        }
        known.addAll(Set.of("rs", "fr", "us$", "eur"));
        return Set.copyOf(known);
    }
}
