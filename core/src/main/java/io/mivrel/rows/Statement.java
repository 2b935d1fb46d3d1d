package io.mivrel.rows;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * What a file in a statement format says about one statement in it, beside its entries. Amounts are plain decimal texts
 * with a point, negative for an overdrawn account; everything the file does not say is {@code null}. Immutable.
 *
 * @param name the statement's own number or identifier
 * @param account number of the bank account, as the file writes it
 * @param currency ISO 4217 code
 * @param opening balance before the first entry
 * @param closing balance after the last entry
 * @param openingDate day of the opening balance
 * @param closingDate day of the closing balance
 * @param stated control totals
 * @param leeway by how many days an entry may lie outside the two dates: where a format dates entries by value
 */
public record Statement(
        @Nullable String name,
        @Nullable String account,
        @Nullable String currency,
        @Nullable String opening,
        @Nullable String closing,
        @Nullable LocalDate openingDate,
        @Nullable LocalDate closingDate,
        Totals stated,
        int leeway) {

    /** Nothing stated. */
    public static final Totals NOTHING_STATED = new Totals(-1, -1, -1, null, null);

    /**
     * Control totals that the statement carries; -1 or {@code null} where it does not.
     *
     * @param entries number of booked entries
     * @param creditEntries number of those in
     * @param debitEntries number of those out
     * @param credits sum in, positive
     * @param debits sum out, positive
     */
    public record Totals(
            long entries,
            long creditEntries,
            long debitEntries,
            @Nullable String credits,
            @Nullable String debits) {}
}
