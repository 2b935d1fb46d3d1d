package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.text.AmountFormat;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Adds up what stands in the columns of amounts, as it is written, and compares it with the totals that are printed among
 * the rows. For one thread.
 */
final class TotalsWithin {
    private final Currency currency;
    private final AmountFormat numbers;
    /** Of each field: what its column adds up to since the total before, and since the first row. */
    private final Map<Field, long[]> sums = new LinkedHashMap<>();

    private final Map<Field, Integer> places = new LinkedHashMap<>();
    private boolean known = true;
    private boolean agreed;
    private boolean everKnown = true;
    /** True when the last row with totals had one that agrees for each field, and no row came behind it. */
    private boolean allAgree;

    private boolean eachAgreed = true;

    TotalsWithin(Currency currency, AmountFormat numbers) {
        this.currency = currency;
        this.numbers = numbers.withBrackets().withTrailingMinus();
    }

    /** Follows a field that is taken from the cell at this place. */
    void follow(Field field, int place) {
        sums.put(field, new long[2]);
        places.put(field, place);
    }

    /** Adds a row, as it was read and before any sign is turned. */
    void add(RecordBlock record) {
        if (sums.isEmpty()) {
            return;
        }
        allAgree = false;
        sums.forEach((field, sum) -> {
            long amount = record.number(field);
            if (amount != SourceRecord.ABSENT) {
                sum[0] = Math.addExact(sum[0], amount);
                sum[1] = Math.addExact(sum[1], amount);
            }
        });
    }

    /** A row could not be read, so the next total cannot be judged. */
    void unread() {
        known = false;
        everKnown = false;
        allAgree = false;
    }

    /** True when a row stated totals that agree with the rows above it. */
    boolean agreed() {
        return agreed;
    }

    /** Of rows that no balance proves, those that no total proves either. */
    Unproved withoutTotals(Unproved left) {
        return allAgree && eachAgreed ? Unproved.NONE : left;
    }

    /** Why the totals of a row are not those of the rows above it; {@code null} when they are, or cannot be judged. */
    @Nullable
    String compare(Row row) {
        String differs = null;
        boolean all = !sums.isEmpty();
        boolean any = false;
        boolean toTheFirst = true;
        for (Map.Entry<Field, long[]> entry : sums.entrySet()) {
            int place = Objects.requireNonNull(places.get(entry.getKey()));
            long total = place < row.size()
                    ? numbers.parse(row.bytes(), row.start(place), row.end(place))
                    : AmountFormat.BLANK;
            long[] sum = entry.getValue();
            boolean agrees =
                    known && Math.abs(total) == Math.abs(sum[0]) || everKnown && Math.abs(total) == Math.abs(sum[1]);
            if (AmountFormat.isAmount(total) && known && !agrees && differs == null) {
                differs = "the column of '" + entry.getKey().name() + "' adds up to "
                        + Money.show(sum[0], currency) + " since the total before, and to "
                        + Money.show(sum[1], currency) + " in all, but the total is " + Money.show(total, currency);
            }
            all &= AmountFormat.isAmount(total) && agrees;
            any |= AmountFormat.isAmount(total) && agrees;
            toTheFirst &= everKnown && Math.abs(total) == Math.abs(sum[1]);
            sum[0] = 0;
        }
        allAgree = all;
        agreed |= any && differs == null;
        eachAgreed = all && (eachAgreed || toTheFirst);
        known = true;
        return differs;
    }
}
