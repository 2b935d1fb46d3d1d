package io.mivrel.kinds;

import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Hash64;

/**
 * A bank line is called by nothing but what it says: its account, date, amount and running balance, and the bank's own
 * identifier; without a balance and an identifier, its texts.
 */
final class BankIdentity implements DocumentIdentity {
    private static final int NUMBER = 1;

    @Override
    public int number() {
        return NUMBER;
    }

    @Override
    public long identity(RecordRange records) {
        return identityOn(records, records.block().number(BankLines.DATE, records.from()));
    }

    @Override
    public long identityOn(RecordRange records, long day) {
        RecordBlock lines = records.block();
        int index = records.from();
        String account = lines.source().account();
        // The hash that a string keeps, the same everywhere, is enough for an account.
        long h = Hash64.add(NUMBER, account == null ? 0 : account.hashCode());
        long balance = lines.number(BankLines.BALANCE, index);
        h = Hash64.add(h, day);
        h = Hash64.add(h, lines.number(BankLines.AMOUNT, index));
        h = Hash64.add(h, balance);
        if (hasBankReference(lines, index)) {
            return DocumentIdentity.add(h, lines, BankLines.BANK_REFERENCE, index);
        }
        if (balance == SourceRecord.ABSENT) {
            // With a balance the text is not needed, and a layout that joins it otherwise changes nothing.
            h = DocumentIdentity.add(h, lines, BankLines.REFERENCE, index);
            h = DocumentIdentity.add(h, lines, BankLines.NARRATIVE, index);
        }
        return h;
    }

    @Override
    public long acrossFiles(RecordRange record) {
        RecordBlock lines = record.block();
        int index = record.from();
        long key = Hash64.add(NUMBER, lines.source().account());
        key = Hash64.add(key, lines.number(BankLines.DATE, index));
        key = Hash64.add(key, lines.number(BankLines.AMOUNT, index));
        if (hasBankReference(lines, index)) {
            return DocumentIdentity.add(Hash64.add(key, 2), lines, BankLines.BANK_REFERENCE, index);
        }
        if (form(record) == Form.BALANCE) {
            return Hash64.add(Hash64.add(key, 3), lines.number(BankLines.BALANCE, index));
        }
        key = DocumentIdentity.add(Hash64.add(key, 4), lines, BankLines.NARRATIVE, index);
        return DocumentIdentity.add(Hash64.add(key, 5), lines, BankLines.REFERENCE, index);
    }

    @Override
    public Form form(RecordRange record) {
        RecordBlock lines = record.block();
        if (hasBankReference(lines, record.from())) {
            return Form.BANK_IDENTIFIER;
        }
        return lines.number(BankLines.BALANCE, record.from()) == SourceRecord.ABSENT ? Form.TEXTS : Form.BALANCE;
    }

    private static boolean hasBankReference(RecordBlock lines, int index) {
        return lines.textStart(BankLines.BANK_REFERENCE, index) < lines.textEnd(BankLines.BANK_REFERENCE, index);
    }

    @Override
    public long content(RecordRange records, long identity, long figures) {
        return identity;
    }
}
