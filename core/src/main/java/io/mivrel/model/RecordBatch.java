package io.mivrel.model;

import java.util.Arrays;
import java.util.Objects;

/**
 * Records of one file in their order, kept by column: numbers in arrays of {@code long}, texts as stretches of one array
 * of characters, codes as shared strings. A {@link Record} is a view of one place in it. Filled by one thread, row by
 * row; read-only once it is handed on.
 */
public final class RecordBatch {
    private final FieldTable table;
    private final String file;
    private final String sheet;
    final long[] rows;
    final boolean[] sound;
    final long[][] numbers;
    final Object[][] objects;
    final int[][] textStarts;
    final int[][] textEnds;
    char[] texts;
    private int textLength;
    private int size;
    private int begun = -1;

    /** An empty batch for at most {@code capacity} records. */
    public RecordBatch(FieldTable table, String file, String sheet, int capacity) {
        this.table = Objects.requireNonNull(table);
        this.file = Objects.requireNonNull(file);
        this.sheet = Objects.requireNonNull(sheet);
        this.rows = new long[capacity];
        this.sound = new boolean[capacity];
        this.numbers = new long[table.numberSlots()][capacity];
        this.objects = new Object[table.objectSlots()][];
        this.textStarts = new int[table.objectSlots()][];
        this.textEnds = new int[table.objectSlots()][];
        this.texts = new char[capacity * 48];
        for (long[] column : numbers) {
            Arrays.fill(column, Record.ABSENT);
        }
        // Texts have columns of spans, everything else that is no number a column of objects.
        for (Field field : table.fields()) {
            if (!field.derived() && !field.type().isNumeric()) {
                if (field.type() == FieldType.TEXT) {
                    textStarts[field.slot()] = new int[capacity];
                    textEnds[field.slot()] = new int[capacity];
                } else {
                    objects[field.slot()] = new Object[capacity];
                }
            }
        }
    }

    public FieldTable table() {
        return table;
    }

    public String file() {
        return file;
    }

    public String sheet() {
        return sheet;
    }

    /** Records that are finished. */
    public int size() {
        return size;
    }

    public boolean isFull() {
        return size == rows.length;
    }

    /** A view of a finished record. */
    public Record get(int index) {
        return new Record(this, Objects.checkIndex(index, size));
    }

    /** Begins the next record with every field absent; one that was begun and not ended is given up. */
    public void begin(long row) {
        rows[size] = row;
        if (begun != size) {
            // The columns are still as they were made.
            begun = size;
            return;
        }
        for (long[] column : numbers) {
            column[size] = Record.ABSENT;
        }
        for (Object[] column : objects) {
            if (column != null) {
                column[size] = null;
            }
        }
        for (int slot = 0; slot < textStarts.length; slot++) {
            if (textStarts[slot] != null) {
                textStarts[slot][size] = 0;
                textEnds[slot][size] = 0;
            }
        }
    }

    /** Ends the record; {@code isSound} is false when a blocker was found on the row. */
    public void end(boolean isSound) {
        sound[size++] = isSound;
    }

    /** Minor units or an epoch day. */
    public void put(Field field, long number) {
        numbers[field.slot()][size] = number;
    }

    /** A code or decimal number; a {@code null} leaves it absent. */
    public void putObject(Field field, Object value) {
        objects[field.slot()][size] = value;
    }

    /** A text, copied. */
    public void putText(Field field, char[] chars, int from, int to) {
        int length = to - from;
        if (textLength + length > texts.length) {
            texts = Arrays.copyOf(texts, Math.max(texts.length * 2, textLength + length));
        }
        System.arraycopy(chars, from, texts, textLength, length);
        textStarts[field.slot()][size] = textLength;
        textLength += length;
        textEnds[field.slot()][size] = textLength;
    }

    /** A text or code; a {@code null} leaves it absent. */
    public void put(Field field, String text) {
        if (field.type() != FieldType.TEXT) {
            putObject(field, text);
        } else if (text != null) {
            putText(field, text.toCharArray(), 0, text.length());
        }
    }

    /** The number of the record that is being filled; {@link Record#ABSENT} when none was put. */
    public long number(Field field) {
        return numbers[field.slot()][size];
    }

    /** The code or decimal number of the record that is being filled, or {@code null}. */
    public Object object(Field field) {
        return objects[field.slot()][size];
    }
}
