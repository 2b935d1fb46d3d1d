package io.mivrel.model;

import java.time.LocalDate;
import java.util.List;

/**
 * The smallest thing that is delivered or held. Every kind of document says which journal it amounts to, so that
 * balance, totals and proof work for all of them. Immutable.
 */
public sealed interface Document permits Journal, Invoice, BankTransaction {

    /** The reference or number; for a bank line its origin when it has none. */
    String reference();

    /** The date; {@code null} only when the document is not sound. */
    LocalDate date();

    /** The date as an epoch day; {@link SourceRecord#ABSENT} when there is none. */
    default long day() {
        LocalDate date = date();
        return date == null ? SourceRecord.ABSENT : date.toEpochDay();
    }

    /** The source records, in the order of the file. */
    List<SourceRecord> records();

    /** The double entry of this document; only to be asked of a sound one. */
    Journal journal();

    /** The primary amounts of the records, signed, for control totals. */
    void addTo(Totals totals);

    /** False when one of its records is not sound: it is held, and checks that need its values skip it. */
    default boolean isValid() {
        for (SourceRecord record : records()) {
            if (!record.isValid()) {
                return false;
            }
        }
        return true;
    }

    /** The place of its first record. */
    default Origin origin() {
        return records().get(0).origin();
    }
}
