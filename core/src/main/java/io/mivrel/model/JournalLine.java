package io.mivrel.model;

/**
 * One line of a journal.
 *
 * @param account account code
 * @param amount minor units, debit positive
 * @param narrative text; {@code null} when blank
 * @param taxCode {@code null} when none
 * @param party {@code null} when none
 * @param department {@code null} when none
 * @param source the record it was made of
 */
public record JournalLine(
        String account, long amount, String narrative, String taxCode, String party, String department, Record source) {

    /** A line with account, amount and text only. */
    public static JournalLine of(String account, long amount, String narrative, Record source) {
        return new JournalLine(account, amount, narrative, null, null, null, source);
    }

    /** Minor units on the debit side, or nil. */
    public long debit() {
        return Math.max(amount, 0);
    }

    /** Minor units on the credit side, or nil. */
    public long credit() {
        return Math.max(-amount, 0);
    }
}
