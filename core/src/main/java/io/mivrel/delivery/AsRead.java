package io.mivrel.delivery;

import io.mivrel.model.BankBatch;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.RecordBlock;

/**
 * Lines to deliver that are records of a batch, one for one, as they were read.
 *
 * @param coded the same as coded bank lines; {@code null} for lines of journals
 */
record AsRead(RecordBlock records, BankBatch coded) {
    static AsRead of(DocumentBlock batch) {
        return new AsRead(batch.records(), batch instanceof BankBatch coded ? coded : null);
    }

    /** The coding of a bank line; {@code null} for a line of a journal. */
    Coding coding(int at) {
        return coded == null ? null : coded.coding(at);
    }
}
