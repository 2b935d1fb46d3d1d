package io.mivrel.model;

import java.time.LocalDate;
import java.util.List;

/**
 * One bank line with its coding.
 *
 * @param bankAccount account code of the bank or card account
 * @param date the day it was booked
 * @param amount minor units; in positive, out negative; {@link Record#ABSENT} when the record is not sound
 * @param record the bank line as it was read
 * @param coding what was decided about it
 * @param entry its double entry; empty lines when it is not sound or not coded
 */
public record BankTransaction(
        String bankAccount, LocalDate date, long amount, Record record, Coding coding, Journal entry)
        implements Document {

    /**
     * The coding of a bank line; every part may be {@code null}.
     *
     * @param entry the entry of the coding table that decided
     * @param account the other side
     * @param taxCode tax contained in the amount
     * @param party customer or supplier code
     * @param narrative text to use instead of the bank's
     */
    public record Coding(String entry, String account, String taxCode, String party, String narrative) {}

    @Override
    public String reference() {
        return entry.reference();
    }

    @Override
    public List<Record> records() {
        return List.of(record);
    }

    @Override
    public boolean isSound() {
        return record.isSound();
    }

    @Override
    public Journal journal() {
        return entry;
    }

    @Override
    public void addTo(Totals totals) {
        if (amount != Record.ABSENT) {
            totals.add(amount);
        }
    }
}
