package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.time.DayOfWeek;
import java.time.Month;
import java.time.format.TextStyle;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * The names of months and days in the languages that are read, as the platform's locale data (Unicode CLDR) has them, short
 * and long, with and without accents. A name that means two months in two languages is left out; one that means two days
 * stands for both, and the date decides.
 */
public final class DateNames {
    /** Languages whose names are read. */
    private static final List<String> LANGUAGES =
            List.of("en", "de", "fr", "es", "it", "pt", "nl", "sv", "da", "nb", "fi", "pl", "cs");

    private static final List<TextStyle> SHORT = List.of(TextStyle.SHORT, TextStyle.SHORT_STANDALONE);
    private static final List<TextStyle> FULL = List.of(TextStyle.FULL, TextStyle.FULL_STANDALONE);
    private static final int LONGEST = 24;

    private static final Map<String, Integer> SHORT_MONTHS = months(SHORT);
    private static final Map<String, Integer> FULL_MONTHS = months(FULL);
    private static final Map<String, Integer> SHORT_DAYS = days(SHORT);
    private static final Map<String, Integer> FULL_DAYS = days(FULL);

    private DateNames() {}

    /** True for the name of a month in one of the languages, short or long. */
    public static boolean isMonth(String name) {
        String small = name.toLowerCase(Locale.ROOT);
        return FULL_MONTHS.containsKey(small) || SHORT_MONTHS.containsKey(small);
    }

    /** How many bytes of letters stand at a place. */
    static int letters(byte[] c, int i, int e) {
        int at = i;
        while (at < e && (c[at] < 0 || c[at] >= 'a' && c[at] <= 'z' || c[at] >= 'A' && c[at] <= 'Z')) {
            at++;
        }
        return at - i;
    }

    /** The month that letters name, from 1; 0 for none. */
    static int month(byte[] c, int i, int length, boolean full) {
        return find(c, i, length, full ? FULL_MONTHS : SHORT_MONTHS);
    }

    /** The days of the week that letters name, a bit for each, Monday the lowest; 0 for none. */
    static int days(byte[] c, int i, int length, boolean full) {
        return find(c, i, length, full ? FULL_DAYS : SHORT_DAYS);
    }

    private static int find(byte[] c, int i, int length, Map<String, Integer> names) {
        if (length == 0 || length > LONGEST) {
            return 0;
        }
        String name = new String(c, i, length, StandardCharsets.UTF_8);
        return names.getOrDefault(name.toLowerCase(Locale.ROOT), 0);
    }

    private static Map<String, Integer> months(List<TextStyle> styles) {
        Map<String, Integer> names = new HashMap<>();
        Set<String> doubtful = new HashSet<>();
        for (Month month : Month.values()) {
            for (String language : LANGUAGES) {
                for (TextStyle style : styles) {
                    for (String name : spellings(month.getDisplayName(style, Locale.forLanguageTag(language)))) {
                        Integer before = names.putIfAbsent(name, month.getValue());
                        if (before != null && before != month.getValue()) {
                            doubtful.add(name);
                        }
                    }
                }
            }
            // As they are known whatever locale data the platform has.
            String english = month.toString().toLowerCase(Locale.ROOT);
            names.put(styles.equals(FULL) ? english : english.substring(0, 3), month.getValue());
        }
        doubtful.forEach(names::remove);
        if (styles.equals(SHORT)) {
            names.put("sept", 9);
            names.put("mrz", 3);
        }
        return Map.copyOf(names);
    }

    private static Map<String, Integer> days(List<TextStyle> styles) {
        Map<String, Integer> names = new HashMap<>();
        for (DayOfWeek day : DayOfWeek.values()) {
            int bit = 1 << day.ordinal();
            for (String language : LANGUAGES) {
                for (TextStyle style : styles) {
                    for (String name : spellings(day.getDisplayName(style, Locale.forLanguageTag(language)))) {
                        names.merge(name, bit, (a, b) -> a | b);
                    }
                }
            }
            String english = day.toString().toLowerCase(Locale.ROOT);
            names.merge(styles.equals(FULL) ? english : english.substring(0, 3), bit, (a, b) -> a | b);
        }
        return Map.copyOf(names);
    }

    // Points are written or not, and old systems have no accents.
    private static Set<String> spellings(String name) {
        String small = name.toLowerCase(Locale.ROOT).replace(".", "").strip();
        if (small.isEmpty() || !small.chars().allMatch(Character::isLetter)) {
            return Set.of();
        }
        String bare = Normalizer.normalize(small, Normalizer.Form.NFD).replaceAll("\\p{M}", "");
        return Set.of(small).equals(Set.of(bare)) ? Set.of(small) : Set.of(small, bare);
    }
}
