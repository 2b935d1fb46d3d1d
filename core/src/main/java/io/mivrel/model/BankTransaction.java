package io.mivrel.model;

import java.time.LocalDate;
import java.util.function.Function;

/**
 * One bank line with its coding. Its reference and double entry are worked out when they are first asked for, since a
 * run that delivers bank lines only never needs them. For one thread at a time; otherwise immutable.
 */
public final class BankTransaction implements Document {
    private final String bankAccount;
    private final RecordRange records;
    private final Coding coding;
    private final Function<BankTransaction, Journal> entry;
    private Journal journal;

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

    /**
     * @param bankAccount account code of the bank or card account
     * @param line the one bank line as it was read
     * @param coding what was decided about it
     * @param entry makes its double entry; with no lines when it is not sound or not coded
     */
    public BankTransaction(
            String bankAccount, RecordRange line, Coding coding, Function<BankTransaction, Journal> entry) {
        this.bankAccount = bankAccount;
        this.records = line;
        this.coding = coding;
        this.entry = entry;
    }

    public String bankAccount() {
        return bankAccount;
    }

    /** Minor units; in positive, out negative; {@link SourceRecord#ABSENT} when it could not be read. */
    public long amount() {
        return records.batch().number(BankLines.AMOUNT, records.from());
    }

    public SourceRecord record() {
        return records.get(0);
    }

    public Coding coding() {
        return coding;
    }

    @Override
    public LocalDate date() {
        return record().date(BankLines.DATE);
    }

    @Override
    public long day() {
        return records.batch().number(BankLines.DATE, records.from());
    }

    @Override
    public String reference() {
        return journal().reference();
    }

    @Override
    public RecordRange records() {
        return records;
    }

    @Override
    public boolean isValid() {
        return records.isValid();
    }

    @Override
    public Journal journal() {
        if (journal == null) {
            journal = entry.apply(this);
        }
        return journal;
    }

    @Override
    public void addTo(Totals totals) {
        if (amount() != SourceRecord.ABSENT) {
            totals.add(amount());
        }
    }
}
