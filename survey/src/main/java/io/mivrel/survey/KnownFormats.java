package io.mivrel.survey;

import io.mivrel.money.Money;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DateNames;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;

/** The forms of dates and amounts that a survey tries, the likelier first. */
public final class KnownFormats {
    /** Two-digit years lie in the hundred years from this one on. */
    static final int CENTURY_FROM = 1970;

    /** Days as spreadsheets count them; the last that is tried. */
    static final DatePattern SERIAL = DatePattern.of("serial");

    static final List<DatePattern> DATES = dates();
    private static final Map<Integer, List<AmountFormat>> AMOUNTS = new ConcurrentHashMap<>();

    /** Years before and behind those of the file that a two-digit year may mean. */
    private static final int YEARS_BEFORE = 80;

    /** How many forms of amounts there are. */
    static final int AMOUNT_FORMS = 6;

    private KnownFormats() {}

    /** The place of a pattern among {@link #DATES}, whatever its century; -1 for none. */
    static int indexOf(DatePattern pattern) {
        return IntStream.range(0, DATES.size())
                .filter(i -> DATES.get(i).pattern().equals(pattern.pattern()))
                .findFirst()
                .orElse(-1);
    }

    /** The same pattern, its two-digit years around a year. */
    static DatePattern around(int year, DatePattern pattern) {
        return pattern.centuryFrom() == 0 ? pattern : pattern.from(year - YEARS_BEFORE);
    }

    /** The same with names in one language; empty for the usual ones. */
    static List<DatePattern> dates(String language) {
        return language.isEmpty()
                ? DATES
                : DATES.stream().map(p -> p.in(language)).toList();
    }

    private static List<DatePattern> dates() {
        List<DatePattern> patterns = new ArrayList<>();
        for (String weekday : List.of("", "EEE ", "EEEE ")) {
            for (String mark : List.of("/", ".", "-", " ")) {
                for (String order : List.of(
                        "dd MM uuuu",
                        "MM dd uuuu",
                        "d M uuuu",
                        "M d uuuu",
                        "uuuu MM dd",
                        "dd MM uu",
                        "MM dd uu",
                        "d M uu",
                        "M d uu",
                        "uu MM dd",
                        "dd MMM uuuu",
                        "d MMM uuuu",
                        "dd MMM uu",
                        "d MMM uu",
                        "dd MMMM uuuu",
                        "d MMMM uuuu")) {
                    patterns.add(DatePattern.of(weekday + order.replace(" ", mark), CENTURY_FROM));
                }
            }
        }
        patterns.add(DatePattern.of("d. MMM uuuu"));
        patterns.add(DatePattern.of("d. MMMM uuuu"));
        // As in Hungarian, where a point stands behind each part.
        patterns.add(DatePattern.of("uuuu.MM.dd."));
        patterns.add(DatePattern.of("uuuu. MM. dd."));
        patterns.add(DatePattern.of("d.M.uuuu."));
        patterns.add(DatePattern.of("MMM d uuuu"));
        patterns.add(DatePattern.of("MMM d, uuuu"));
        patterns.add(DatePattern.of("MMMM d, uuuu"));
        patterns.add(DatePattern.of("uuuuMMdd"));
        patterns.add(DatePattern.of("ddMMuuuu"));
        patterns.add(SERIAL);
        return List.copyOf(patterns);
    }

    /**
     * The patterns by which all of some cells are days, the likelier first: one for each order of day, month and year. Names of
     * months are read in the languages that have them. Empty when some cell is no day, or there are none.
     */
    public static List<DatePattern> daysOf(List<String> cells) {
        Map<String, DatePattern> found = new LinkedHashMap<>();
        if (cells.isEmpty()) {
            return List.of();
        }
        Set<String> names = new LinkedHashSet<>();
        cells.forEach(cell -> Arrays.stream(cell.split("[^\\p{L}]+"))
                .filter(word -> word.length() > 2)
                .forEach(names::add));
        Set<String> languages = DateNames.covering(names);
        for (DatePattern pattern :
                dates(languages.size() == 1 ? languages.iterator().next() : "")) {
            boolean fits = pattern != SERIAL
                    && cells.stream().allMatch(cell -> pattern.parse(cell) > DatePattern.WRONG_WEEKDAY);
            if (fits) {
                found.putIfAbsent(pattern.order(), pattern);
            }
        }
        return List.copyOf(found.values());
    }

    /** The forms of amounts in a currency. */
    static List<AmountFormat> amounts(Currency currency) {
        return AMOUNTS.computeIfAbsent(Money.decimals(currency), KnownFormats::amounts);
    }

    private static List<AmountFormat> amounts(int decimals) {
        List<AmountFormat> formats = new ArrayList<>();
        for (String marks : List.of(".,", ",.", ". ", ", ", ".'", ",'")) {
            formats.add(new AmountFormat(decimals, marks.charAt(0), marks.charAt(1), true, true, ""));
        }
        return List.copyOf(formats);
    }
}
