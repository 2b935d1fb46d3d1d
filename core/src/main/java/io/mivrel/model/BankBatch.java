package io.mivrel.model;

import io.mivrel.model.BankTransaction.Coding;
import java.util.function.Function;

/**
 * The bank lines of one batch, coded: for what runs over millions of them without a document for each. Immutable once it
 * is handed on.
 */
public final class BankBatch implements DocumentBlock {
    private final String bankAccount;
    private final RecordBlock records;
    private final Coding[] codings;
    private final Function<BankTransaction, Journal> entry;

    /**
     * @param bankAccount account code of the bank or card account
     * @param records the lines
     * @param codings what was decided about each; {@code null} for a line that is not sound or that nothing decides
     * @param entry makes the double entry of a line
     */
    public BankBatch(
            String bankAccount, RecordBlock records, Coding[] codings, Function<BankTransaction, Journal> entry) {
        this.bankAccount = bankAccount;
        this.records = records;
        this.codings = codings;
        this.entry = entry;
    }

    public String bankAccount() {
        return bankAccount;
    }

    @Override
    public RecordBlock records() {
        return records;
    }

    @Override
    public int size() {
        return records.size();
    }

    @Override
    public int from(int line) {
        return line;
    }

    @Override
    public Field amount() {
        return BankLines.AMOUNT;
    }

    @Override
    public long day(int line) {
        return records.number(BankLines.DATE, line);
    }

    /** What was decided about a line; {@code null} when nothing was. */
    public Coding coding(int index) {
        return codings[index];
    }

    @Override
    public BankTransaction get(int index) {
        return new BankTransaction(bankAccount, records.range(index, index + 1), codings[index], entry);
    }
}
