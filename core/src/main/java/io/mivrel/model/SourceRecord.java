package io.mivrel.model;

import java.math.BigDecimal;
import java.time.LocalDate;

/**
 * One typed row after reading: a view of a place in a {@link RecordBlock}. An absent value is {@code null}, or {@link
 * #ABSENT} where it is a {@code long}. Amounts are minor units of the books' currency. Immutable.
 */
public final class SourceRecord {
    /** Stands for an absent date or amount; no value a file can hold reads as it. */
    public static final long ABSENT = Long.MIN_VALUE;

    private final RecordBlock batch;
    private final int index;

    SourceRecord(RecordBlock batch, int index) {
        this.batch = batch;
        this.index = index;
    }

    /** The batch that it is a view of. */
    public RecordBlock batch() {
        return batch;
    }

    /** Its place in {@link #batch}. */
    public int index() {
        return index;
    }

    public FieldTable table() {
        return batch.table();
    }

    public Origin origin() {
        return new Origin(batch.file(), batch.sheet(), row());
    }

    /** The file as the user named it. */
    public String file() {
        return batch.file();
    }

    /** The first physical row in the file, from 1. */
    public long row() {
        return batch.rows[index];
    }

    /** False when a blocker was found while it was read: its document is held. */
    public boolean isValid() {
        return batch.sound[index];
    }

    /** The text of a text or code field, as a new string; {@code null} when blank. */
    public String text(Field field) {
        return batch.text(field, index);
    }

    /** The UTF-8 bytes that texts and codes lie in, from {@link #textStart} up to {@link #textEnd}. */
    public byte[] textBytes() {
        return batch.texts;
    }

    public int textStart(Field field) {
        return batch.textStart(field, index);
    }

    /** Equal to the start when the text is blank. */
    public int textEnd(Field field) {
        return batch.textEnd(field, index);
    }

    /** The number of a decimal field; {@code null} when blank. */
    public BigDecimal decimal(Field field) {
        return batch.objects[field.slot()][index];
    }

    /** Minor units of an amount field, or the epoch day of a date field; {@link #ABSENT} when blank. */
    public long number(Field field) {
        return batch.numbers[field.slot()][index];
    }

    /** The date of a date field; {@code null} when absent. */
    public LocalDate date(Field field) {
        long day = number(field);
        return day == ABSENT ? null : LocalDate.ofEpochDay(day);
    }

    public boolean has(Field field) {
        if (field.type().isNumeric()) {
            return number(field) != ABSENT;
        }
        return field.type().isSpan() ? textEnd(field) > textStart(field) : batch.objects[field.slot()][index] != null;
    }

    /** Starts a single record, for tests and for sources that are no files. */
    public static Builder builder(FieldTable table, String file, String sheet, long row) {
        return new Builder(table, file, sheet, row);
    }

    /** Collects the values of a single record; used once. */
    public static final class Builder {
        private final RecordBlock batch;

        private Builder(FieldTable table, String file, String sheet, long row) {
            batch = new RecordBlock(table, file, sheet, 1);
            batch.begin(row);
        }

        public Builder put(Field field, String text) {
            batch.put(field, text);
            return this;
        }

        public Builder put(Field field, BigDecimal number) {
            batch.put(field, number);
            return this;
        }

        /** Minor units or an epoch day. */
        public Builder put(Field field, long number) {
            batch.put(field, number);
            return this;
        }

        /** Finishes it. {@code sound} is false when a blocker was found on the row. */
        public SourceRecord build(boolean sound) {
            batch.end(sound);
            return batch.get(0);
        }
    }
}
