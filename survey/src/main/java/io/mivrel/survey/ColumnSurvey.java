package io.mivrel.survey;

import io.mivrel.model.FieldType;
import io.mivrel.money.Money;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Hash64;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** What the cells of one column are. Filled cell by cell, then asked; for one thread. */
public final class ColumnSurvey {
    /** A cell that does not fit the rest of its column. */
    public record Oddity(long row, String value) {}

    private static final int SAMPLES = 3;
    private static final int KEPT = 200;
    private static final int FEW = 12;
    private static final int CLIP = 100;
    /** Steps from day to day before an order means something. */
    private static final int LEAST_IN_ORDER = 8;
    /** Days of 1990 and 2060, between which a number may be that of a day, and the days that one file may span. */
    private static final int EARLIEST = 7_305;

    private static final int LATEST = 33_237;
    private static final int LONGEST_SPAN = 1_500;
    /** A reading that spans so many times the days of another is not meant; day and month changed over stay in a year. */
    private static final int MUCH_LONGER = 13;

    private final int place;
    private final String title;
    private final long[] dateFits = new long[KnownFormats.DATES.size()];
    private final long[] lastDay = new long[KnownFormats.DATES.size()];
    private final long[] later = new long[KnownFormats.DATES.size()];
    private final long[] earlier = new long[KnownFormats.DATES.size()];
    private final long[] amountFits = new long[KnownFormats.AMOUNT_FORMS];
    private final long[] amountHashes = new long[KnownFormats.AMOUNT_FORMS];
    private final Set<String> values = new LinkedHashSet<>();
    /** The first cells that are no date in any form, no amount in any form, and that show where the day stands. */
    private final List<Oddity> noDates = new ArrayList<>();

    private final List<Oddity> noAmounts = new ArrayList<>();
    private final Oddity[] firstMisfit = new Oddity[KnownFormats.DATES.size()];
    private int[] dateForms = IntStream.range(0, KnownFormats.DATES.size()).toArray();
    private int[] amountForms = IntStream.range(0, KnownFormats.AMOUNT_FORMS).toArray();
    /** Currency signs and codes beside the figures, marks of the side, and times of day behind dates, with their counts. */
    private final Map<String, Integer> currencyMarks = new TreeMap<>();

    private final Map<String, Integer> sideMarks = new TreeMap<>();
    private final Map<String, Integer> times = new HashMap<>();
    private final long[] days = new long[KnownFormats.DATES.size()];
    private final byte[] last = new byte[40];
    private int lastLength = -1;
    private final long[] leastDay = filled(KnownFormats.DATES.size(), Long.MAX_VALUE);
    private final long[] mostDay = filled(KnownFormats.DATES.size(), Long.MIN_VALUE);
    private final long[] leastAmount = filled(KnownFormats.AMOUNT_FORMS, Long.MAX_VALUE);
    private final long[] mostAmount = filled(KnownFormats.AMOUNT_FORMS, Long.MIN_VALUE);
    private long filled;
    private long blank;
    /** How many decimals the currency of the file has, and the cells with so many. */
    private final int decimals;

    private long asMoney;
    private long withDecimals;
    private long withBlanks;
    private int longest;
    private boolean brackets;
    private boolean trailingMinus;
    private long unmarked;
    private long withThree;
    private final List<AmountFormat> amountFormats;

    private final List<DatePattern> dates;

    /** {@code language} is that of the names of months; empty for the usual ones. */
    ColumnSurvey(int place, String title, Currency currency, String language) {
        this.dates = KnownFormats.dates(language);
        this.amountFormats = KnownFormats.amounts(currency);
        this.decimals = Money.decimals(currency);
        this.place = place;
        this.title = title;
    }

    /** Takes the next cell, without blanks around it. */
    void add(long row, byte[] bytes, int start, int end) {
        if (start == end) {
            blank++;
            return;
        }
        filled++;
        longest = Math.max(longest, end - start);
        boolean digit = false;
        boolean space = false;
        for (int i = start; i < end; i++) {
            digit |= bytes[i] >= '0' && bytes[i] <= '9';
            space |= bytes[i] == ' ';
        }
        withBlanks += space ? 1 : 0;
        if (values.size() <= FEW) {
            values.add(clipped(text(bytes, start, end)));
        }
        if (filled == KEPT) {
            narrow();
        }
        // Neither a date nor an amount is longer, and both have a digit.
        if (end - start > 40 || !digit) {
            misfit(row, bytes, start, end);
            return;
        }
        int time = dateForms.length == 0 ? end : TimeOfDay.start(bytes, start, end);
        if (time < end && end - start > 12) {
            times.merge(TimeOfDay.pattern(bytes, time, end), 1, Integer::sum);
        }
        dates(row, bytes, start, time);
        amounts(row, bytes, start, end);
    }

    private static String text(byte[] bytes, int start, int end) {
        return new String(bytes, start, end - start, StandardCharsets.UTF_8);
    }

    // A form that fits hardly anything is not tried for ever.
    private void narrow() {
        dateForms =
                IntStream.of(dateForms).filter(i -> dateFits[i] * 2 > filled).toArray();
        amountForms = IntStream.of(amountForms)
                .filter(i -> amountFits[i] * 2 > filled)
                .toArray();
    }

    private void misfit(long row, byte[] bytes, int start, int end) {
        for (List<Oddity> odd : List.of(noDates, noAmounts)) {
            keep(odd, row, bytes, start, end);
        }
    }

    private static void keep(List<Oddity> odd, long row, byte[] bytes, int start, int end) {
        if (odd.size() < KEPT) {
            odd.add(oddity(row, text(bytes, start, end)));
        }
    }

    private void dates(long row, byte[] bytes, int start, int end) {
        boolean again = end - start == lastLength && Arrays.equals(bytes, start, end, last, 0, lastLength);
        boolean any = false;
        for (int i : dateForms) {
            // The same day tends to come in row after row.
            long day = again ? days[i] : dates.get(i).parse(bytes, start, end);
            days[i] = day;
            if (DatePattern.isDate(day)) {
                later[i] += dateFits[i] > 0 && day > lastDay[i] ? 1 : 0;
                earlier[i] += dateFits[i] > 0 && day < lastDay[i] ? 1 : 0;
                lastDay[i] = day;
                dateFits[i]++;
                leastDay[i] = Math.min(leastDay[i], day);
                mostDay[i] = Math.max(mostDay[i], day);
                any = true;
            } else if (firstMisfit[i] == null) {
                firstMisfit[i] = oddity(row, text(bytes, start, end));
            }
        }
        lastLength = end - start;
        System.arraycopy(bytes, start, last, 0, lastLength);
        if (!any) {
            keep(noDates, row, bytes, start, end);
        }
    }

    private void amounts(long row, byte[] bytes, int start, int to) {
        if (amountForms.length == 0) {
            return;
        }
        byte[] cell = bytes;
        int from = start;
        int end = to;
        MarkedFigure marked = MarkedFigure.of(bytes, start, to);
        if (marked != null) {
            cell = marked.figure();
            from = 0;
            end = cell.length;
        }
        boolean any = false;
        for (int form : amountForms) {
            long amount = amountFormats.get(form).parse(cell, from, end);
            if (AmountFormat.isAmount(amount)) {
                any = true;
                amountFits[form]++;
                leastAmount[form] = Math.min(leastAmount[form], amount);
                mostAmount[form] = Math.max(mostAmount[form], amount);
                amountHashes[form] = Hash64.add(amountHashes[form], amount);
            }
        }
        if (!any) {
            keep(noAmounts, row, bytes, start, to);
            return;
        }
        if (marked != null) {
            (marked.isSide() ? sideMarks : currencyMarks).merge(marked.mark(), 1, Integer::sum);
        }
        unmarked += marked == null || !marked.isSide() ? 1 : 0;
        brackets |= cell[from] == '(';
        trailingMinus |= cell[end - 1] == '-' || cell[end - 1] == '+' || end - from > 3 && cell[end - 1] < 0;
        withDecimals += hasDecimals(cell, from, end, 2) ? 1 : 0;
        asMoney += hasDecimals(cell, from, end, decimals) ? 1 : 0;
        withThree += hasThree(cell, from, end) ? 1 : 0;
    }

    // One mark with exactly three digits behind it: a thousands mark, or that of decimals of some currencies.
    private static boolean hasThree(byte[] bytes, int start, int end) {
        int digits = 0;
        int marks = 0;
        int behind = 0;
        for (int i = start; i < end; i++) {
            if (bytes[i] == '.' || bytes[i] == ',') {
                marks++;
                behind = 0;
            } else if (bytes[i] >= '0' && bytes[i] <= '9') {
                digits++;
                behind++;
            } else if (bytes[i] == ' ' || bytes[i] == '\'') {
                return false;
            }
        }
        return marks == 1 && behind == 3 && digits <= 6;
    }

    // A mark with exactly so many digits behind it; amounts of most currencies have two.
    private static boolean hasDecimals(byte[] bytes, int start, int end, int decimals) {
        int digits = 0;
        for (int i = end - 1; i >= start; i--) {
            if (bytes[i] == '.' || bytes[i] == ',') {
                return digits == decimals;
            }
            digits += bytes[i] >= '0' && bytes[i] <= '9' ? 1 : 0;
        }
        return false;
    }

    private static Oddity oddity(long row, String cell) {
        return new Oddity(row, clipped(cell));
    }

    // A cell may be a megabyte long.
    private static String clipped(String cell) {
        return cell.length() <= CLIP ? cell : cell.substring(0, CLIP);
    }

    /** Place from 1. */
    public int place() {
        return place;
    }

    /** The title, or an empty text when the file has none. */
    public String title() {
        return title;
    }

    public long filled() {
        return filled;
    }

    public long blank() {
        return blank;
    }

    public int longest() {
        return longest;
    }

    /** The first few different values. */
    public List<String> samples() {
        return values.stream().limit(SAMPLES).toList();
    }

    /** All different values when they are few; else empty. */
    public List<String> fewValues() {
        return values.size() > FEW ? List.of() : List.copyOf(values);
    }

    /** True when some pattern other than a number of days fits. */
    boolean hasWrittenDates() {
        return filled > 0
                && mostly(IntStream.range(0, dateFits.length - 1)
                        .mapToLong(i -> dateFits[i])
                        .max()
                        .orElse(0));
    }

    // Numbers of days that a statement can have, and nothing that has decimals as money.
    private boolean hasSerials() {
        int serial = dateFits.length - 1;
        return mostly(dateFits[serial])
                && leastDay[serial] > EARLIEST
                && mostDay[serial] < LATEST
                && mostDay[serial] - leastDay[serial] < LONGEST_SPAN
                && (filled > 1 || !title.isEmpty());
    }

    /** What most cells are: a date, an amount, a code without blanks, or text. */
    public FieldType type() {
        if (filled == 0) {
            return FieldType.TEXT;
        }
        if (hasWrittenDates() || hasSerials()) {
            return FieldType.DATE;
        }
        if (mostly(max(amountFits)) && Math.max(withDecimals, asMoney) * 10 >= filled) {
            return FieldType.AMOUNT;
        }
        return withBlanks == 0 && longest <= 20 ? FieldType.CODE : FieldType.TEXT;
    }

    /** True when the cells could be amounts, though none has decimals. */
    public boolean couldBeAmounts() {
        return filled > 0 && max(amountFits) * 10 >= filled * 9;
    }

    private boolean mostly(long fits) {
        return fits * 10 >= filled * 9;
    }

    private static long[] filled(int length, long with) {
        long[] array = new long[length];
        Arrays.fill(array, with);
        return array;
    }

    /** First and last day by a pattern, as epoch days; {@code null} when it fits no cell. */
    public long @Nullable [] days(DatePattern pattern) {
        for (int i = 0; i < dateFits.length; i++) {
            if (dateFits[i] > 0 && dates.get(i).pattern().equals(pattern.pattern())) {
                return new long[] {leastDay[i], mostDay[i]};
            }
        }
        return null;
    }

    /** Smallest and largest amount in minor units, as the cells are signed; {@code null} when none is one. */
    public long @Nullable [] amounts() {
        long most = max(amountFits);
        for (int i = 0; i < amountFits.length; i++) {
            if (most > 0 && amountFits[i] == most) {
                return new long[] {leastAmount[i], mostAmount[i]};
            }
        }
        return null;
    }

    /** What stands behind a date, as a pattern, such as a time of day; empty when most cells have nothing there. */
    String time() {
        return times.entrySet().stream()
                .filter(e -> mostly(e.getValue()))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("");
    }

    private static long max(long[] counts) {
        return Arrays.stream(counts).max().orElse(0);
    }

    /**
     * The date patterns that fit nearly all cells, the likelier first; empty when it holds no dates. Of readings that differ
     * greatly in the days they span, the shorter is meant: a statement covers weeks, not decades.
     */
    public List<DatePattern> patterns() {
        List<Integer> fitting = new ArrayList<>();
        long shortest = Long.MAX_VALUE;
        for (int i = 0; i < dateFits.length; i++) {
            boolean isSerial = i == dateFits.length - 1;
            if (dateFits[i] > 0 && mostly(dateFits[i]) && (!isSerial || hasSerials() && !hasWrittenDates())) {
                fitting.add(i);
                shortest = Math.min(shortest, mostDay[i] - leastDay[i]);
            }
        }
        long most = Math.max(MUCH_LONGER * Math.max(shortest, 31), 0);
        List<DatePattern> best = new ArrayList<>();
        // Those that fit every cell before those that leave odd ones.
        fitting.stream()
                .filter(i -> mostDay[i] - leastDay[i] <= most)
                .sorted(Comparator.comparing((Integer i) -> -dateFits[i]))
                .forEach(i -> best.add(dates.get(i)));
        return best;
    }

    /** True when the dates by this pattern never go back, or never forward, and so are in order. */
    boolean isInOrder(DatePattern pattern) {
        int i = KnownFormats.indexOf(pattern);
        return Math.min(later[i], earlier[i]) == 0 && Math.max(later[i], earlier[i]) >= LEAST_IN_ORDER;
    }

    /** The first cell that a pattern does not fit, or {@code null}. */
    public @Nullable Oddity misfit(DatePattern pattern) {
        int known = KnownFormats.indexOf(pattern);
        return known < 0 ? null : firstMisfit[known];
    }

    /** True when the days of the likeliest pattern mostly go back from row to row. */
    boolean fallsBack() {
        List<DatePattern> fitting = patterns();
        int i = fitting.isEmpty() ? -1 : KnownFormats.indexOf(fitting.get(0));
        return i >= 0 && earlier[i] > 4 * later[i];
    }

    /** The latest day by a pattern that writes the whole year; {@link DatePattern#UNREADABLE} when there is none. */
    long latestInFull() {
        List<DatePattern> fitting = patterns();
        int i = fitting.isEmpty() || fitting.get(0).centuryFrom() > 0 ? -1 : KnownFormats.indexOf(fitting.get(0));
        return i < 0 ? DatePattern.UNREADABLE : mostDay[i];
    }

    /** How many cells a pattern fits. */
    long fits(DatePattern pattern) {
        int known = KnownFormats.indexOf(pattern);
        return known < 0 ? 0 : dateFits[known];
    }

    /** How many cells an amount form fits. */
    long amountFits(int form) {
        return amountFits[form];
    }

    /** How large the figures are by an amount form: the difference of the largest and the smallest. */
    long size(int form) {
        return amountFits[form] == 0 ? 0 : Math.max(Math.abs(mostAmount[form]), Math.abs(leastAmount[form]));
    }

    boolean hasTwoDecimals() {
        return withDecimals > 0;
    }

    /** Which amount forms fit as many cells as any does. */
    boolean[] fittingAmounts() {
        boolean[] fits = new boolean[amountFits.length];
        long most = max(amountFits);
        for (int i = 0; i < fits.length; i++) {
            fits[i] = most > 0 && amountFits[i] * 50 >= most * 49;
        }
        return fits;
    }

    boolean hasBrackets() {
        return brackets;
    }

    /** Signs and codes of currencies beside the figures, with how often each stands there. */
    Map<String, Integer> currencyMarks() {
        return currencyMarks;
    }

    /** Marks of a side beside the figures, such as CR, with how often each stands there. */
    Map<String, Integer> sideMarks() {
        return sideMarks;
    }

    /** True when some figures have no mark of a side. */
    boolean hasUnmarked() {
        return unmarked > 0;
    }

    /** True when each figure that has a mark has one only, with three digits behind it. */
    boolean hasThreeBehindEveryMark() {
        return withThree > 0 && withDecimals == 0;
    }

    boolean hasTrailingMinus() {
        return trailingMinus;
    }

    /** A hash of all values under one amount form, to tell whether two forms read the same. */
    long amountHash(int form) {
        return amountHashes[form];
    }

    /** The first cells that are not what most are; only of dates and amounts. */
    public List<Oddity> oddities() {
        return switch (type()) {
            case DATE -> List.copyOf(noDates);
            case AMOUNT -> List.copyOf(noAmounts);
            default -> List.of();
        };
    }
}
