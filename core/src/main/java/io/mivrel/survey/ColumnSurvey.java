package io.mivrel.survey;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.DatePattern;
import io.mivrel.cells.Hash64;
import io.mivrel.model.FieldType;
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
            values.add(cell);
        }
        dates(row, cell);
        amounts(row, cell);
    }

    private void dates(long row, String cell) {
        boolean any = false;
        for (int i = 0; i < dateFits.length; i++) {
            // A form that fits hardly anything is not tried for ever.
            if (filled < KEPT || dateFits[i] * 2 > filled) {
                long day = Forms.DATES.get(i).parse(cell);
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
            noDates.add(new Oddity(row, cell));
        }
    }

    private void amounts(long row, String cell) {
        boolean any = false;
        for (int i = 0; i < amountFits.length; i++) {
            if (filled < KEPT || amountFits[i] * 2 > filled) {
                long amount = Forms.AMOUNTS.get(i).parse(cell);
                if (AmountFormat.isAmount(amount)) {
                    amountFits[i]++;
                    amountHashes[i] = Hash64.add(amountHashes[i], amount);
                    any = true;
                }
            }
        }
        if (!any && noAmounts.size() < KEPT) {
            noAmounts.add(new Oddity(row, cell));
        }
        brackets |= any && cell.startsWith("(");
        trailingMinus |= any && cell.endsWith("-");
        withDecimals += any && cell.matches(".*[.,][0-9]{2}\\D*") ? 1 : 0;
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
