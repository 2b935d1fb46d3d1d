package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.time.DayOfWeek;
import java.time.Month;
import java.time.format.TextStyle;
import java.util.Arrays;
import java.util.Calendar;
import java.util.Collection;
import java.util.GregorianCalendar;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/**
 * The names of months and days, as the platform's locale data (Unicode CLDR) has them, short and long, with and without
 * accents: of some usual languages together, or of one. Of several languages, a name that means two months in two of them is
 * left out; one that means two days stands for both, and the date decides. Of one language, the beginning of a month's name
 * that no other month has is that month. Immutable; looked up when the first name is asked for, since most dates are figures.
 */
public final class DateNames {
    private static final Map<String, DateNames> SINGLE = new ConcurrentHashMap<>();

    private static final List<Integer> SHORT = List.of(Calendar.SHORT_FORMAT, Calendar.SHORT_STANDALONE);
    private static final List<Integer> FULL = List.of(Calendar.LONG_FORMAT, Calendar.LONG_STANDALONE);
    private static final int LONGEST = 40;
    private static final int LEAST_BEGINNING = 3;

    /** The usual languages together. */
    static final DateNames USUAL =
            new DateNames("", List.of("en", "de", "fr", "es", "it", "pt", "nl", "sv", "da", "nb", "fi", "pl", "cs"));

    /** Months from 1; days of the week as bits, Monday the lowest. */
    private record Tables(
            Map<String, Integer> shortMonths,
            Map<String, Integer> fullMonths,
            Map<String, Integer> shortDays,
            Map<String, Integer> fullDays) {}

    private final String language;
    private final List<String> languages;
    private volatile @Nullable Tables tables;

    private DateNames(String language, List<String> languages) {
        this.language = language;
        this.languages = languages;
    }

    private Tables tables() {
        Tables known = tables;
        if (known == null) {
            known = new Tables(
                    months(SHORT, languages), months(FULL, languages), days(SHORT, languages), days(FULL, languages));
            tables = known;
        }
        return known;
    }

    /** The names of one language, by its code of ISO 639; of the usual ones for an empty code. */
    static DateNames of(String language) {
        return language.isEmpty() ? USUAL : SINGLE.computeIfAbsent(language, l -> new DateNames(l, List.of(l)));
    }

    /** The code of the language; empty for the usual ones together. */
    String language() {
        return language;
    }

    /** A month as it is written: in the one language, or in English where there are several. */
    String month(Month month, boolean full) {
        return language.isEmpty()
                ? DatePattern.name(month, full)
                : month.getDisplayName(full ? TextStyle.FULL : TextStyle.SHORT, Locale.forLanguageTag(language));
    }

    /** The same of a day of the week. */
    String day(DayOfWeek day, boolean full) {
        return language.isEmpty()
                ? DatePattern.name(day, full)
                : day.getDisplayName(full ? TextStyle.FULL : TextStyle.SHORT, Locale.forLanguageTag(language));
    }

    /** True for the name of a month in one of the usual languages, short or long. */
    public static boolean isMonth(String name) {
        return USUAL.month(name) > 0;
    }

    /** The codes of all languages whose months the platform knows, in their order. */
    public static Set<String> languages() {
        Set<String> codes = new TreeSet<>();
        Arrays.stream(Locale.getAvailableLocales())
                .map(Locale::getLanguage)
                .filter(code -> !code.isEmpty())
                .forEach(codes::add);
        return codes;
    }

    /**
     * The languages whose names cover all of some words, months or days of the week: one for each way in which they name the
     * months; empty when the usual languages cover them, or none does.
     */
    public static Set<String> covering(Collection<String> words) {
        if (words.isEmpty() || words.stream().allMatch(USUAL::knows)) {
            return Set.of();
        }
        Set<List<Integer>> ways = new HashSet<>();
        Set<String> found = new LinkedHashSet<>();
        for (String language : languages()) {
            DateNames names = of(language);
            if (words.stream().allMatch(names::knows)
                    && ways.add(words.stream().map(names::month).toList())) {
                found.add(language);
            }
        }
        return found;
    }

    private boolean knows(String word) {
        String small = word.toLowerCase(Locale.ROOT);
        return month(word) > 0
                || tables().shortDays.containsKey(small)
                || tables().fullDays.containsKey(small);
    }

    private int month(String name) {
        String small = name.toLowerCase(Locale.ROOT);
        Integer full = tables().fullMonths.get(small);
        Integer known = full == null ? tables().shortMonths.get(small) : full;
        return known != null ? known : language.isEmpty() ? 0 : beginning(small);
    }

    // How months are cut short differs from one version of the locale data to the next.
    private int beginning(String small) {
        Set<Integer> months = new HashSet<>();
        if (small.length() >= LEAST_BEGINNING) {
            tables().fullMonths.forEach((name, month) -> {
                if (name.startsWith(small)) {
                    months.add(month);
                }
            });
        }
        return months.size() == 1 ? months.iterator().next() : 0;
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
    int month(byte[] c, int i, int length, boolean full) {
        if (!mayBeName(length)) {
            return 0;
        }
        String name = new String(c, i, length, StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
        int month = (full ? tables().fullMonths : tables().shortMonths).getOrDefault(name, 0);
        return month > 0 || full || language.isEmpty() ? month : beginning(name);
    }

    // In the usual languages no name has a single letter.
    private boolean mayBeName(int length) {
        return length <= LONGEST && length > (language.isEmpty() ? 1 : 0);
    }

    /** The days of the week that letters name, a bit for each, Monday the lowest; 0 for none. */
    int days(byte[] c, int i, int length, boolean full) {
        if (!mayBeName(length)) {
            return 0;
        }
        String name = new String(c, i, length, StandardCharsets.UTF_8);
        return (full ? tables().fullDays : tables().shortDays).getOrDefault(name.toLowerCase(Locale.ROOT), 0);
    }

    private static Map<String, Integer> months(List<Integer> styles, List<String> languages) {
        Map<String, Set<Integer>> found = found(Calendar.MONTH, styles, languages);
        Map<String, Integer> names = new HashMap<>();
        found.forEach((name, months) -> {
            if (months.size() == 1) {
                names.put(name, months.iterator().next() + 1);
            }
        });
        // As they are known whatever locale data the platform has.
        if (languages.size() > 1) {
            for (Month month : Month.values()) {
                names.put(english(month, styles), month.getValue());
            }
            if (styles.equals(SHORT)) {
                names.put("sept", 9);
                names.put("mrz", 3);
            }
        }
        return Map.copyOf(names);
    }

    private static Map<String, Integer> days(List<Integer> styles, List<String> languages) {
        Map<String, Integer> names = new HashMap<>();
        found(Calendar.DAY_OF_WEEK, styles, languages)
                .forEach((name, days) -> days.forEach(day -> names.merge(name, bit(day), (a, b) -> a | b)));
        for (DayOfWeek day : DayOfWeek.values()) {
            names.merge(english(day, styles), 1 << day.ordinal(), (a, b) -> a | b);
        }
        return Map.copyOf(names);
    }

    // The platform's calendar counts its days from Sunday, as 1.
    private static int bit(int day) {
        return 1 << (day + 5) % 7;
    }

    private static String english(Enum<?> name, List<Integer> styles) {
        String small = name.name().toLowerCase(Locale.ROOT);
        return styles.equals(FULL) ? small : small.substring(0, 3);
    }

    /** What each name stands for, in the numbers of the platform's calendar. */
    private static Map<String, Set<Integer>> found(int field, List<Integer> styles, List<String> languages) {
        Calendar calendar = new GregorianCalendar(Locale.ROOT);
        Map<String, Set<Integer>> found = new HashMap<>();
        for (String language : languages) {
            for (int style : styles) {
                Map<String, Integer> names = calendar.getDisplayNames(field, style, Locale.forLanguageTag(language));
                // Null where the locale data have none.
                if (names != null) {
                    names.forEach((name, value) -> spellings(name)
                            .forEach(spelling -> found.computeIfAbsent(spelling, s -> new HashSet<>())
                                    .add(value)));
                }
            }
        }
        return found;
    }

    // Points are written or not, and old systems have no accents.
    private static Set<String> spellings(String name) {
        String small = name.toLowerCase(Locale.ROOT).replace(".", "").strip();
        if (small.isEmpty()
                || !small.chars()
                        .allMatch(c -> Character.isLetter(c) || Character.getType(c) == Character.NON_SPACING_MARK)) {
            return Set.of();
        }
        String bare = Normalizer.normalize(small, Normalizer.Form.NFD).replaceAll("\\p{M}", "");
        return small.equals(bare) ? Set.of(small) : Set.of(small, bare);
    }
}
