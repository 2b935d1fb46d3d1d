package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.RecordBlock;
import io.mivrel.money.Totals;
import io.mivrel.rows.LeftOut;
import io.mivrel.text.SpanMap;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What was counted while one file was read: the first of the independent counters that a run compares. For the
 * reading thread until the file is finished; read-only after.
 */
public final class IntakeTally {
    /** More values of a code are hardly read by anybody. */
    private static final int MOST_VALUES = 1000;

    private final String file;
    /** Of each further code its values, each with how many there are. */
    private final Map<String, Map<String, long[]>> values = new TreeMap<>();

    /** The same, found without a string; made anew for each new value. */
    private final Map<Field, SpanMap<long[]>> counts = new HashMap<>();

    long rows;
    long again;
    long records;
    long unreadable;
    /** Records whose amount, as seen from the books, is a debit. */
    long comesIn;

    long firstDay = Long.MAX_VALUE;
    long lastDay = Long.MIN_VALUE;
    /** The same of all rows, those outside the wanted dates too: the days that the file covers. */
    long coveredFrom = Long.MAX_VALUE;

    long coveredTo = Long.MIN_VALUE;
    final Totals totals;
    final Map<LeftOut, Long> leftOut = new EnumMap<>(LeftOut.class);
    final List<StatementSpan> spans = new ArrayList<>();

    @Nullable
    BalanceProof proof;

    boolean failed;
    boolean handedBack;
    boolean withoutTotals;
    final List<String> agreed = new ArrayList<>();
    Unproved unproved = Unproved.NONE;

    /** Rows whose date does not belong where they stand. */
    private List<DateOrder.Odd> oddDates = List.of();

    /** Rows that are to blame for what shows in others. */
    final List<BalanceFault> culprits = new ArrayList<>();

    IntakeTally(String file, Currency currency) {
        this.file = file;
        this.totals = new Totals(currency);
    }

    /** Counts the value of a further code, such as a department, in the record that is being filled. */
    void count(Field dimension, RecordBlock record) {
        int start = record.textStart(dimension, record.size());
        int end = record.textEnd(dimension, record.size());
        if (start == end) {
            return;
        }
        SpanMap<long[]> known = counts.get(dimension);
        long[] count = known == null ? null : known.get(record.textBytes(), start, end);
        if (count == null) {
            Map<String, long[]> all = values.computeIfAbsent(dimension.name(), name -> new HashMap<>());
            if (all.size() == MOST_VALUES) {
                return;
            }
            count = new long[1];
            all.put(new String(record.textBytes(), start, end - start, StandardCharsets.UTF_8), count);
            counts.put(dimension, new SpanMap<>(all));
        }
        count[0]++;
    }

    /**
     * How often each value of a further code stands in the file, by the name of the field and the value: no list says yet
     * which there should be. Of a field with very many, the first {@value #MOST_VALUES}.
     */
    public Map<String, Map<String, Long>> values() {
        Map<String, Map<String, Long>> all = new TreeMap<>();
        values.forEach((field, counted) -> {
            Map<String, Long> counts = new TreeMap<>();
            counted.forEach((value, count) -> counts.put(value, count[0]));
            all.put(field, counts);
        });
        return all;
    }

    void leaveOut(LeftOut cause) {
        leftOut.merge(cause, 1L, Long::sum);
    }

    /** True for documents without totals of their own or double entry, which would show that the amounts are meant so. */
    public boolean isWithoutTotals() {
        return withoutTotals;
    }

    /** The labels of sums and counts that the file states beside its rows, and that agree with them. */
    public List<String> agreed() {
        return List.copyOf(agreed);
    }

    /** Sound rows of an account that no balance and no stated sum proves. */
    public Unproved unproved() {
        return unproved;
    }

    /** True for held rows that come back corrected: they are no whole statement. */
    public boolean isHandedBack() {
        return handedBack;
    }

    void oddDates(List<DateOrder.Odd> found) {
        oddDates = found;
    }

    List<DateOrder.Odd> oddDates() {
        return oddDates;
    }

    /** True when rows were found to be wrong only when others behind them had been read: another pass holds them. */
    public boolean foundLate() {
        return !oddDates.isEmpty() || !culprits.isEmpty();
    }

    /** The first row that is to blame for what shows in others; 0 when there is none. */
    public long firstCulprit() {
        return culprits.stream().mapToLong(BalanceFault::first).min().orElse(0);
    }

    public String file() {
        return file;
    }

    /** All rows of the file, titles and blanks included. */
    public long rows() {
        return rows;
    }

    /** Of all rows, those beyond the first that one physical row was fanned out into. */
    public long again() {
        return again;
    }

    /** Rows that became a record, sound or not. */
    public long records() {
        return records;
    }

    /** Rows held because the file as a whole could not be read; they became no record. */
    public long unreadable() {
        return unreadable;
    }

    /** True when a blocker was found for the file as a whole: nothing of it may be delivered. */
    public boolean failed() {
        return failed;
    }

    /** Rows left out, by cause. */
    public Map<LeftOut, Long> leftOut() {
        return leftOut;
    }

    /** Sums of the amounts as they were read. */
    public Totals totals() {
        return totals;
    }

    /** First day that the file covers, whatever dates are wanted. */
    public Optional<LocalDate> coveredFrom() {
        return coveredFrom == Long.MAX_VALUE ? Optional.empty() : Optional.of(LocalDate.ofEpochDay(coveredFrom));
    }

    /** Last day that the file covers. */
    public Optional<LocalDate> coveredTo() {
        return coveredTo == Long.MIN_VALUE ? Optional.empty() : Optional.of(LocalDate.ofEpochDay(coveredTo));
    }

    public Optional<LocalDate> firstDate() {
        return firstDay == Long.MAX_VALUE ? Optional.empty() : Optional.of(LocalDate.ofEpochDay(firstDay));
    }

    public Optional<LocalDate> lastDate() {
        return lastDay == Long.MIN_VALUE ? Optional.empty() : Optional.of(LocalDate.ofEpochDay(lastDay));
    }

    /** What the file covers, statement by statement; a file with a running balance counts as one. */
    public List<StatementSpan> spans() {
        return spans;
    }

    /** What the running balance proves; empty when the file has none. */
    public Optional<BalanceProof> proof() {
        return Optional.ofNullable(proof);
    }
}
