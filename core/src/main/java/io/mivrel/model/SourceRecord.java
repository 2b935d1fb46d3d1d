package io.mivrel.model;

import java.math.BigDecimal;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * One typed row after reading: a view of a place in a {@link RecordBlock}. An absent value is {@code null}, or {@link
 * #ABSENT} where it is a {@code long}. Amounts are minor units of its currency. Immutable.
 */
public final class SourceRecord {
    /** Stands for an absent date or amount; no value a file can hold reads as it. */
    public static final long ABSENT = Long.MIN_VALUE;

    private final RecordBlock block;
    private final int index;

    SourceRecord(RecordBlock block, int index) {
        this.block = block;
        this.index = index;
    }

    /** The block that it is a view of. */
    public RecordBlock block() {
        return block;
    }

    /** Its place in {@link #block}. */
    public int index() {
        return index;
    }

    public FieldTable table() {
        return block.table();
    }

    public Origin origin() {
        return new Origin(file(), block.source(index).sheet(), row());
    }

    /** The file as the user named it. */
    public String file() {
        return block.source(index).name();
    }

    /** The first physical row in the file, from 1. */
    public long row() {
        return block.rows[index];
    }

    /** False when a blocker was found while it was read: its document is held. */
    public boolean isValid() {
        return block.sound[index];
    }

    /** The text of a text or code field, as a new string; {@code null} when blank. */
    public @Nullable String text(Field field) {
        return block.text(field, index);
    }

    /** The UTF-8 bytes that texts and codes lie in, from {@link #textStart} up to {@link #textEnd}. */
    public byte[] textBytes() {
        return block.texts;
    }

    public int textStart(Field field) {
        return block.textStart(field, index);
    }

    /** Equal to the start when the text is blank. */
    public int textEnd(Field field) {
        return block.textEnd(field, index);
    }

    /** The number of a decimal field; {@code null} when blank. */
    public BigDecimal decimal(Field field) {
        return block.decimal(field, index);
    }

    /** Minor units of an amount field, or the epoch day of a date field; {@link #ABSENT} when blank. */
    public long number(Field field) {
        return block.number(field, index);
    }

    /** The date of a date field; {@code null} when absent. */
    public @Nullable LocalDate date(Field field) {
        long day = number(field);
        return day == ABSENT ? null : LocalDate.ofEpochDay(day);
    }

    public boolean has(Field field) {
        if (field.type().isNumeric()) {
            return number(field) != ABSENT;
        }
        return field.type().isSpan() ? textEnd(field) > textStart(field) : block.decimal(field, index) != null;
    }

    /** Starts a single record, for tests and for sources that are no files. */
    public static Builder builder(FieldTable table, SourceFile source, long row) {
        return new Builder(table, source, row);
    }

    /** Collects the values of a single record; used once. */
    public static final class Builder {
        private final RecordBlock block;

        private Builder(FieldTable table, SourceFile source, long row) {
            block = new RecordBlock(table, source, 1);
            block.begin(row);
        }

        public Builder put(Field field, String text) {
            block.put(field, text);
            return this;
        }

        public Builder put(Field field, BigDecimal number) {
            block.put(field, number);
            return this;
        }

        /** Minor units or an epoch day. */
        public Builder put(Field field, long number) {
            block.put(field, number);
            return this;
        }

        /** Finishes it. {@code sound} is false when a blocker was found on the row. */
        public SourceRecord build(boolean sound) {
            block.end(sound);
            return block.get(0);
        }
    }
}
