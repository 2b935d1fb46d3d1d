package io.mivrel.survey;

import io.mivrel.model.FieldType;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Hash64;
import io.mivrel.text.Spans;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
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

    private final int place;
    private final String title;
    private final long[] dateFits = new long[KnownFormats.DATES.size()];
    private final long[] lastDay = new long[KnownFormats.DATES.size()];
    private final long[] later = new long[KnownFormats.DATES.size()];
    private final long[] earlier = new long[KnownFormats.DATES.size()];
    private final long[] amountFits = new long[KnownFormats.AMOUNT_FORMS];
    private final long[] amountHashes = new long[KnownFormats.AMOUNT_FORMS];
    private final long[] sums = new long[KnownFormats.AMOUNT_FORMS];
    private boolean sumsTooLarge;
    private final Set<String> values = new LinkedHashSet<>();
    /** The first cells that are no date in any form, no amount in any form, and that show where the day stands. */
    private final List<Oddity> noDates = new ArrayList<>();

    private final List<Oddity> noAmounts = new ArrayList<>();
    private final Oddity[] firstMisfit = new Oddity[KnownFormats.DATES.size()];
    private int[] dateForms = IntStream.range(0, KnownFormats.DATES.size()).toArray();
    private int[] amountForms = IntStream.range(0, KnownFormats.MARKS).toArray();
    private final long[] days = new long[KnownFormats.DATES.size()];
    private final byte[] last = new byte[40];
    private int lastLength = -1;
    private final long[] leastDay = filled(KnownFormats.DATES.size(), Long.MAX_VALUE);
    private final long[] mostDay = filled(KnownFormats.DATES.size(), Long.MIN_VALUE);
    private final long[] leastAmount = filled(KnownFormats.AMOUNT_FORMS, Long.MAX_VALUE);
    private final long[] mostAmount = filled(KnownFormats.AMOUNT_FORMS, Long.MIN_VALUE);
    private long filled;
    private long blank;
    private long withDecimals;
    private long withBlanks;
    private int longest;
    private boolean brackets;
    private boolean trailingMinus;
    private boolean creditMarks;
    private boolean debitMarks;
    private final List<AmountFormat> amountFormats;

    ColumnSurvey(int place, String title, Currency currency) {
        this.amountFormats = KnownFormats.amounts(currency);
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
        dates(row, bytes, start, end);
        amounts(row, bytes, start, end);
    }

    private static String text(byte[] bytes, int start, int end) {
        return new String(bytes, start, end - start, StandardCharsets.UTF_8);
    }

    // A form that fits hardly anything is not tried for ever.
    private void narrow() {
        dateForms =
                IntStream.of(dateForms).filter(i -> dateFits[i] * 2 > filled).toArray();
        boolean[] active = new boolean[KnownFormats.MARKS];
        for (int i = 0; i < amountFits.length; i++) {
            active[i % KnownFormats.MARKS] |= amountFits[i] * 2 > filled;
        }
        amountForms =
                IntStream.range(0, KnownFormats.MARKS).filter(i -> active[i]).toArray();
    }

    private void misfit(long row, byte[] bytes, int start, int end) {
        if (noDates.size() < KEPT) {
            noDates.add(oddity(row, text(bytes, start, end)));
        }
        if (noAmounts.size() < KEPT) {
            noAmounts.add(oddity(row, text(bytes, start, end)));
        }
    }

    private void dates(long row, byte[] bytes, int start, int end) {
        boolean again = end - start == lastLength && Arrays.equals(bytes, start, end, last, 0, lastLength);
        boolean any = false;
        for (int i : dateForms) {
            // The same day tends to come in row after row.
            long day = again ? days[i] : KnownFormats.DATES.get(i).parse(bytes, start, end);
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
        if (!any && noDates.size() < KEPT) {
            noDates.add(oddity(row, text(bytes, start, end)));
        }
    }

    // Without a currency mark in the cell all currencies read the same.
    private void amounts(long row, byte[] bytes, int start, int to) {
        if (amountForms.length == 0) {
            return;
        }
        boolean any = false;
        int end = withoutSide(bytes, start, to);
        if (start == end) {
            return;
        }
        int currency = currency(bytes, start, end);
        for (int form : amountForms) {
            long amount =
                    amountFormats.get(currency * KnownFormats.MARKS + form).parse(bytes, start, end);
            if (AmountFormat.isAmount(amount)) {
                any = true;
                for (int c = currency; c < (currency == 0 ? KnownFormats.CURRENCIES.size() : currency + 1); c++) {
                    int i = c * KnownFormats.MARKS + form;
                    amountFits[i]++;
                    leastAmount[i] = Math.min(leastAmount[i], amount);
                    mostAmount[i] = Math.max(mostAmount[i], amount);
                    amountHashes[i] = Hash64.add(amountHashes[i], amount);
                    long sum = sums[i] + amount;
                    sumsTooLarge |= ((sums[i] ^ sum) & (amount ^ sum)) < 0;
                    sums[i] = sum;
                }
            }
        }
        if (!any && noAmounts.size() < KEPT) {
            noAmounts.add(oddity(row, text(bytes, start, to)));
        }
        creditMarks |= any && end < to && (bytes[to - 2] | 32) == 'c';
        debitMarks |= any && end < to && (bytes[to - 2] | 32) == 'd';
        brackets |= any && bytes[start] == '(';
        trailingMinus |= any && bytes[end - 1] == '-';
        withDecimals += any && hasDecimals(bytes, start, end) ? 1 : 0;
    }

    // CR and DR behind an amount say its side.
    private static int withoutSide(byte[] bytes, int start, int end) {
        boolean marked = end - start > 2
                && (bytes[end - 1] | 32) == 'r'
                && ((bytes[end - 2] | 32) == 'c' || (bytes[end - 2] | 32) == 'd');
        return marked ? Spans.trimEnd(bytes, start, end - 2) : end;
    }

    private static int currency(byte[] bytes, int start, int end) {
        for (int i = start; i < end; i++) {
            if (bytes[i] < 0 || bytes[i] == '$') {
                String cell = text(bytes, start, end);
                for (int c = 1; c < KnownFormats.CURRENCIES.size(); c++) {
                    if (cell.contains(KnownFormats.CURRENCIES.get(c))) {
                        return c;
                    }
                }
                return 0;
            }
        }
        return 0;
    }

    // A mark with exactly two digits behind it, as amounts of most currencies have.
    private static boolean hasDecimals(byte[] bytes, int start, int end) {
        int digits = 0;
        for (int i = end - 1; i >= start; i--) {
            if (bytes[i] == '.' || bytes[i] == ',') {
                return digits == 2;
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

    /** What most cells are: a date, an amount, a code without blanks, or text. */
    public FieldType type() {
        if (filled == 0) {
            return FieldType.TEXT;
        }
        if (mostly(max(dateFits))) {
            return FieldType.DATE;
        }
        if (mostly(max(amountFits)) && withDecimals * 10 >= filled) {
            return FieldType.AMOUNT;
        }
        return withBlanks == 0 && longest <= 20 ? FieldType.CODE : FieldType.TEXT;
    }

    /** True when the cells could be amounts, though none has decimals. */
    boolean couldBeAmounts() {
        return filled > 0 && mostly(max(amountFits));
    }

    private boolean mostly(long fits) {
        return fits * 20 >= filled * 19;
    }

    private static long[] filled(int length, long with) {
        long[] array = new long[length];
        Arrays.fill(array, with);
        return array;
    }

    /** First and last day by a pattern, as epoch days; {@code null} when it fits no cell. */
    public long @Nullable [] days(DatePattern pattern) {
        for (int i = 0; i < dateFits.length; i++) {
            if (dateFits[i] > 0 && KnownFormats.DATES.get(i).pattern().equals(pattern.pattern())) {
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

    /** Sum of all cells in minor units, read with such marks; {@code null} when some cell is no amount then. */
    @Nullable
    Long sum(AmountFormat numbers) {
        for (int i = 0; i < sums.length; i++) {
            AmountFormat form = amountFormats.get(i);
            if (form.decimalMark() == numbers.decimalMark()
                    && form.thousandsMark() == numbers.thousandsMark()
                    && form.currencyMark().equals(numbers.currencyMark())) {
                return amountFits[i] == filled && !sumsTooLarge ? sums[i] : null;
            }
        }
        return null;
    }

    private static long max(long[] counts) {
        return Arrays.stream(counts).max().orElse(0);
    }

    /** The date patterns that fit as many cells as any does, the likelier first; empty when it holds no dates. */
    public List<DatePattern> patterns() {
        List<DatePattern> best = new ArrayList<>();
        long most = max(dateFits);
        for (int i = 0; i < dateFits.length && mostly(most); i++) {
            if (dateFits[i] == most) {
                best.add(KnownFormats.DATES.get(i));
            }
        }
        return best;
    }

    /** True when the dates by this pattern never go back, or never forward, and so are in order. */
    boolean isInOrder(DatePattern pattern) {
        int i = KnownFormats.DATES.indexOf(pattern);
        return Math.min(later[i], earlier[i]) == 0 && Math.max(later[i], earlier[i]) >= LEAST_IN_ORDER;
    }

    /** The first cell that a pattern does not fit, or {@code null}. */
    public Oddity misfit(DatePattern pattern) {
        return firstMisfit[KnownFormats.DATES.indexOf(pattern)];
    }

    /** Which amount forms fit as many cells as any does. */
    boolean[] fittingAmounts() {
        boolean[] fits = new boolean[amountFits.length];
        long most = max(amountFits);
        for (int i = 0; i < fits.length; i++) {
            fits[i] = most > 0 && amountFits[i] == most;
        }
        return fits;
    }

    boolean hasBrackets() {
        return brackets;
    }

    boolean hasCreditMarks() {
        return creditMarks;
    }

    boolean hasDebitMarks() {
        return debitMarks;
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
