package io.mivrel.model;

import java.time.LocalDate;
import java.util.List;

/**
 * One bank line with its coding.
 *
 * @param bankAccount account code of the bank or card account
 * @param amount minor units; in positive, out negative; {@link Record#ABSENT} when the record is not sound
 * @param record the coded record
 * @param codingEntry the entry of the coding table that decided; {@code null} when none did
 * @param entry its double entry; empty lines when it is not sound or not coded
 */
public record BankTransaction(
        String bankAccount, LocalDate date, long amount, Record record, String codingEntry, Journal entry)
        implements Document {

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
