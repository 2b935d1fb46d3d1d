package io.mivrel.survey;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.DatePattern;
import io.mivrel.cells.Hash64;
import io.mivrel.model.FieldType;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

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
    private final long[] dateFits = new long[Forms.DATES.size()];
    private final long[] lastDay = new long[Forms.DATES.size()];
    private final long[] later = new long[Forms.DATES.size()];
    private final long[] earlier = new long[Forms.DATES.size()];
    private final long[] amountFits = new long[Forms.AMOUNTS.size()];
    private final long[] amountHashes = new long[Forms.AMOUNTS.size()];
    private final Set<String> values = new LinkedHashSet<>();
    /** The first cells that are no date in any form, no amount in any form, and that show where the day stands. */
    private final List<Oddity> noDates = new ArrayList<>();

    private final List<Oddity> noAmounts = new ArrayList<>();
    private final Oddity[] firstMisfit = new Oddity[Forms.DATES.size()];
    private long filled;
    private long blank;
    private long withDecimals;
    private long withBlanks;
    private int longest;
    private boolean brackets;
    private boolean trailingMinus;

    ColumnSurvey(int place, String title) {
        this.place = place;
        this.title = title;
    }

    void add(long row, String cell) {
        if (cell.isEmpty()) {
            blank++;
            return;
        }
        filled++;
        longest = Math.max(longest, cell.length());
        withBlanks += cell.indexOf(' ') >= 0 ? 1 : 0;
        if (values.size() <= FEW) {
            values.add(clipped(cell));
        }
        // Neither a date nor an amount is longer, and both have a digit.
        boolean figures = cell.length() <= 40 && cell.chars().anyMatch(c -> c >= '0' && c <= '9');
        if (!figures) {
            misfit(row, cell);
            return;
        }
        byte[] bytes = cell.getBytes(StandardCharsets.UTF_8);
        dates(row, cell, bytes);
        amounts(row, cell, bytes);
    }

    private void misfit(long row, String cell) {
        if (noDates.size() < KEPT) {
            noDates.add(oddity(row, cell));
        }
        if (noAmounts.size() < KEPT) {
            noAmounts.add(oddity(row, cell));
        }
    }

    private void dates(long row, String cell, byte[] bytes) {
        boolean any = false;
        for (int i = 0; i < dateFits.length; i++) {
            // A form that fits hardly anything is not tried for ever.
            if (filled < KEPT || dateFits[i] * 2 > filled) {
                long day = Forms.DATES.get(i).parse(bytes, 0, bytes.length);
                if (DatePattern.isDate(day)) {
                    later[i] += dateFits[i] > 0 && day > lastDay[i] ? 1 : 0;
                    earlier[i] += dateFits[i] > 0 && day < lastDay[i] ? 1 : 0;
                    lastDay[i] = day;
                    dateFits[i]++;
                    any = true;
                } else if (firstMisfit[i] == null) {
                    firstMisfit[i] = new Oddity(row, cell);
                }
            }
        }
        if (!any && noDates.size() < KEPT) {
            noDates.add(oddity(row, cell));
        }
    }

    // Without a currency mark in the cell all currencies read the same.
    private void amounts(long row, String cell, byte[] bytes) {
        boolean any = false;
        int currency = currency(cell);
        for (int form = 0; form < Forms.MARKS; form++) {
            if (filled < KEPT || amountFits[currency * Forms.MARKS + form] * 2 > filled) {
                long amount = Forms.AMOUNTS.get(currency * Forms.MARKS + form).parse(bytes, 0, bytes.length);
                if (AmountFormat.isAmount(amount)) {
                    any = true;
                    for (int c = currency; c < (currency == 0 ? Forms.CURRENCIES.size() : currency + 1); c++) {
                        int i = c * Forms.MARKS + form;
                        amountFits[i]++;
                        amountHashes[i] = Hash64.add(amountHashes[i], amount);
                    }
                }
            }
        }
        if (!any && noAmounts.size() < KEPT) {
            noAmounts.add(oddity(row, cell));
        }
        brackets |= any && cell.startsWith("(");
        trailingMinus |= any && cell.endsWith("-");
        withDecimals += any && hasDecimals(cell) ? 1 : 0;
    }

    private static int currency(String cell) {
        for (int i = 1; i < Forms.CURRENCIES.size(); i++) {
            if (cell.contains(Forms.CURRENCIES.get(i))) {
                return i;
            }
        }
        return 0;
    }

    // A mark with exactly two digits behind it, as amounts of most currencies have.
    private static boolean hasDecimals(String cell) {
        int mark = Math.max(cell.lastIndexOf('.'), cell.lastIndexOf(','));
        int digits = 0;
        for (int i = mark + 1; i < cell.length(); i++) {
            digits += Character.isDigit(cell.charAt(i)) ? 1 : 0;
        }
        return mark >= 0 && digits == 2;
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

    private static long max(long[] counts) {
        return Arrays.stream(counts).max().orElse(0);
    }

    /** The date patterns that fit as many cells as any does, the likelier first; empty when it holds no dates. */
    public List<DatePattern> patterns() {
        List<DatePattern> best = new ArrayList<>();
        long most = max(dateFits);
        for (int i = 0; i < dateFits.length && mostly(most); i++) {
            if (dateFits[i] == most) {
                best.add(Forms.DATES.get(i));
            }
        }
        return best;
    }

    /** True when the dates by this pattern never go back, or never forward, and so are in order. */
    boolean isInOrder(DatePattern pattern) {
        int i = Forms.DATES.indexOf(pattern);
        return Math.min(later[i], earlier[i]) == 0 && Math.max(later[i], earlier[i]) >= LEAST_IN_ORDER;
    }

    /** The first cell that a pattern does not fit, or {@code null}. */
    public Oddity misfit(DatePattern pattern) {
        return firstMisfit[Forms.DATES.indexOf(pattern)];
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
