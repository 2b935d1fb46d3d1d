package io.mivrel.model;

import java.math.BigDecimal;
import java.time.LocalDate;

/**
 * One typed row after reading. Values sit in the slots of their {@link Field}s; an absent value is {@code null}, or
 * {@link #ABSENT} where it is a {@code long}. Amounts are minor units of the books' currency. Immutable once built.
 */
public final class Record {
    /** Stands for an absent date or amount; no value a file can hold reads as it. */
    public static final long ABSENT = Long.MIN_VALUE;

    private final FieldTable table;
    private final String file;
    private final String sheet;
    private final long row;
    private final long[] numbers;
    private final Object[] objects;
    private final boolean sound;

    private Record(Builder builder, boolean sound) {
        this.table = builder.table;
        this.file = builder.file;
        this.sheet = builder.sheet;
        this.row = builder.row;
        this.numbers = builder.numbers;
        this.objects = builder.objects;
        this.sound = sound;
    }

    public FieldTable table() {
        return table;
    }

    public Origin origin() {
        return new Origin(file, sheet, row);
    }

    /** The file as the user named it. */
    public String file() {
        return file;
    }

    /** The first physical row in the file, from 1. */
    public long row() {
        return row;
    }

    /** False when a blocker was found while it was read: its document is held. */
    public boolean isSound() {
        return sound;
    }

    /** The text of a text or code field; {@code null} when blank. */
    public String text(Field field) {
        return (String) objects[field.slot()];
    }

    /** The number of a decimal field; {@code null} when blank. */
    public BigDecimal decimal(Field field) {
        return (BigDecimal) objects[field.slot()];
    }

    /** Minor units of an amount field, or the epoch day of a date field; {@link #ABSENT} when blank. */
    public long number(Field field) {
        return numbers[field.slot()];
    }

    /** The date of a date field; {@code null} when absent. */
    public LocalDate date(Field field) {
        long day = numbers[field.slot()];
        return day == ABSENT ? null : LocalDate.ofEpochDay(day);
    }

    public boolean has(Field field) {
        return field.type().isNumeric() ? numbers[field.slot()] != ABSENT : objects[field.slot()] != null;
    }

    /** A copy to change, for stages that add to a record. */
    public Builder toBuilder() {
        Builder copy = new Builder(table, file, sheet, row);
        System.arraycopy(numbers, 0, copy.numbers, 0, numbers.length);
        System.arraycopy(objects, 0, copy.objects, 0, objects.length);
        return copy;
    }

    /** Starts a record for a row of a file. */
    public static Builder builder(FieldTable table, String file, String sheet, long row) {
        return new Builder(table, file, sheet, row);
    }

    /** Collects the values of one record; used once. */
    public static final class Builder {
        private final FieldTable table;
        private final String file;
        private final String sheet;
        private final long row;
        private final long[] numbers;
        private final Object[] objects;

        private Builder(FieldTable table, String file, String sheet, long row) {
            this.table = table;
            this.file = file;
            this.sheet = sheet;
            this.row = row;
            this.numbers = new long[table.numberSlots()];
            for (int i = 0; i < numbers.length; i++) {
                numbers[i] = ABSENT;
            }
            this.objects = new Object[table.objectSlots()];
        }

        public Builder put(Field field, String text) {
            objects[field.slot()] = text;
            return this;
        }

        public Builder put(Field field, BigDecimal number) {
            objects[field.slot()] = number;
            return this;
        }

        /** Minor units or an epoch day. */
        public Builder put(Field field, long number) {
            numbers[field.slot()] = number;
            return this;
        }

        public Builder put(Field field, LocalDate date) {
            return put(field, date.toEpochDay());
        }

        public long number(Field field) {
            return numbers[field.slot()];
        }

        public Object object(Field field) {
            return objects[field.slot()];
        }

        /** Finishes it. {@code sound} is false when a blocker was found on the row. */
        public Record build(boolean sound) {
            return new Record(this, sound);
        }
    }
}
