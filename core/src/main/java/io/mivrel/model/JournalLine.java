package io.mivrel.model;

/**
 * One line of a journal.
 *
 * @param account account code
 * @param amount minor units, debit positive
 * @param ownNarrative text of the line where it is not its source's; {@code null} to take that
 * @param taxCode {@code null} when none
 * @param party {@code null} when none
 * @param department {@code null} when none
 * @param source the record it was made of
 */
public record JournalLine(
        String account,
        long amount,
        String ownNarrative,
        String taxCode,
        String party,
        String department,
        SourceRecord source) {

    /** A line with account, amount and text only; a {@code null} text means the source's. */
    public static JournalLine of(String account, long amount, String narrative, SourceRecord source) {
        return new JournalLine(account, amount, narrative, null, null, null, source);
    }

    /** A line that is a journal line record as it was read. */
    public static JournalLine asRead(SourceRecord record) {
        return new JournalLine(
                record.text(JournalLines.ACCOUNT),
                record.number(JournalLines.AMOUNT),
                null,
                record.text(JournalLines.TAX_CODE),
                record.text(JournalLines.PARTY),
                record.text(JournalLines.DEPARTMENT),
                record);
    }

    /** The text of the line; {@code null} when blank. */
    public String narrative() {
        return ownNarrative != null ? ownNarrative : source.text(narrativeOf(source.table()));
    }

    /** The field that holds the narrative in records of a table. */
    public static Field narrativeOf(FieldTable table) {
        if (table == JournalLines.TABLE) {
            return JournalLines.NARRATIVE;
        }
        return table == BankLines.TABLE ? BankLines.NARRATIVE : InvoiceLines.NARRATIVE;
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
