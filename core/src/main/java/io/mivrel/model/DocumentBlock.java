package io.mivrel.model;

/**
 * Documents whose lines are the records of one batch, one after the other: for what runs over millions of them without
 * making a document of each. Documents count from 0. Immutable once it is handed on.
 */
public sealed interface DocumentBlock permits BankBatch, JournalBatch {

    /** The records that the lines are. */
    RecordBlock records();

    /** Documents in the batch. */
    int size();

    /** The place of a document's first line among the records; of {@link #size}, the place behind the last line of all. */
    int from(int document);

    /** The place behind a document's last line. */
    default int to(int document) {
        return from(document + 1);
    }

    /** The field of a line that holds its amount. */
    Field amount();

    /** The date of a document, as an epoch day. */
    long day(int document);

    /** A document as an object; only of one that is decided. */
    Document get(int document);
}
