package io.mivrel.model;

import io.mivrel.text.Spans;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Currency;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Records of one file in their order, kept in columns: numbers in arrays of {@code long}, texts and codes as stretches of
 * one array of UTF-8 bytes. A {@link SourceRecord} is a view of one place in it, a {@link RecordRange} of several. Filled by one
 * thread, row by row; read-only once it is handed on.
 *
 * <p>What runs over millions of rows asks the block itself for a field of a record; what wants comfort asks the record.
 */
public final class RecordBlock {
    /** The column of a field that no record has; never written. */
    private static final int[] NOWHERE = new int[1024];

    private final FieldTable table;
    private final SourceFile source;
    /** The file of each record, when a document was brought together from several; else {@code null}. */
    private SourceFile @Nullable [] sources;

    final long[] rows;
    final boolean[] sound;
    final long[][] numbers;
    final BigDecimal[][] objects;
    final int[][] textStarts;
    final int[][] textEnds;
    private final boolean[] filled;
    byte[] texts;
    private int textLength;
    private int size;
    private int begun = -1;

    /** An empty block for at most {@code capacity} records. */
    public RecordBlock(FieldTable table, SourceFile source, int capacity) {
        this.table = Objects.requireNonNull(table);
        this.source = Objects.requireNonNull(source);
        this.rows = new long[capacity];
        this.sound = new boolean[capacity];
        this.numbers = new long[table.numberSlots()][capacity];
        this.objects = new BigDecimal[table.objectSlots()][];
        this.textStarts = new int[table.objectSlots()][];
        this.textEnds = new int[table.objectSlots()][];
        this.filled = new boolean[table.objectSlots()];
        this.texts = new byte[capacity * 48];
        for (long[] column : numbers) {
            Arrays.fill(column, SourceRecord.ABSENT);
        }
        for (Field field : table.fields()) {
            if (field.type().isSpan() && !field.derived()) {
                textStarts[field.slot()] = capacity <= NOWHERE.length ? NOWHERE : new int[capacity];
                textEnds[field.slot()] = textStarts[field.slot()];
            } else if (field.type() == FieldType.DECIMAL) {
                objects[field.slot()] = new BigDecimal[capacity];
            }
        }
    }

    public FieldTable table() {
        return table;
    }

    /** What its records have in common: their file, or that of the first one, when they come from several. */
    public SourceFile source() {
        return source;
    }

    /** The file of a record. */
    SourceFile source(int index) {
        return sources == null ? source : sources[index];
    }

    /** The currency of every amount that names none of its own. */
    public Currency currency() {
        return source.currency();
    }

    /** Records that are finished. */
    public int size() {
        return size;
    }

    public boolean isFull() {
        return size == rows.length;
    }

    /** A view of a finished record. */
    public SourceRecord get(int index) {
        return new SourceRecord(this, Objects.checkIndex(index, size));
    }

    /** The finished records from {@code from} up to {@code to}, at least one. */
    public RecordRange range(int from, int to) {
        return new RecordRange(this, from, Objects.checkFromToIndex(from, to, size) == from ? to : from);
    }

    /** The first physical row of a record in its file, from 1. */
    public long row(int index) {
        return rows[index];
    }

    /** False when a blocker was found while the record was read. */
    public boolean isValid(int index) {
        return sound[index];
    }

    /** Minor units of an amount field, or the epoch day of a date field; {@link SourceRecord#ABSENT} when blank. */
    public long number(Field field, int index) {
        return numbers[slot(field)][index];
    }

    /** The UTF-8 bytes that texts and codes lie in. */
    public byte[] textBytes() {
        return texts;
    }

    /** Where a text or code of a record begins in {@link #textBytes}. */
    public int textStart(Field field, int index) {
        return textStarts[slot(field)][index];
    }

    /** Where it ends, exclusive; equal to the start when it is blank. */
    public int textEnd(Field field, int index) {
        return textEnds[slot(field)][index];
    }

    /** A text or code as a new string; {@code null} when blank. */
    public @Nullable String text(Field field, int index) {
        int slot = slot(field);
        int start = textStarts[slot][index];
        int length = textEnds[slot][index] - start;
        return length == 0 ? null : new String(texts, start, length, StandardCharsets.UTF_8);
    }

    /** True when two records, of this block and of another, have the same text or code in a field, or none. */
    public boolean sameText(Field field, int index, RecordBlock other, int otherIndex) {
        int start = textStart(field, index);
        int length = textEnd(field, index) - start;
        int otherStart = other.textStart(field, otherIndex);
        return other.textEnd(field, otherIndex) - otherStart == length
                && Spans.same(texts, start, other.texts, otherStart, length);
    }

    /** True when no record has a value in a field of text or code. */
    public boolean lacks(Field field) {
        return !filled[slot(field)];
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
            column[size] = SourceRecord.ABSENT;
        }
        for (BigDecimal[] column : objects) {
            if (column != null) {
                column[size] = null;
            }
        }
        for (int slot = 0; slot < textStarts.length; slot++) {
            if (filled[slot]) {
                textStarts[slot][size] = 0;
                textEnds[slot][size] = 0;
            }
        }
    }

    /** Ends the record; {@code isValid} is false when a blocker was found on the row. */
    public void end(boolean isValid) {
        sound[size++] = isValid;
    }

    /** Minor units or an epoch day. */
    public void put(Field field, long number) {
        numbers[slot(field)][size] = number;
    }

    /** A decimal number; a {@code null} leaves it absent. */
    public void put(Field field, @Nullable BigDecimal value) {
        objects[slot(field)][size] = value;
    }

    /** A text or code, copied. */
    public void put(Field field, byte[] bytes, int from, int to) {
        if (from < to) {
            put(slot(field), size, bytes, from, to - from);
        }
    }

    private void put(int slot, int index, byte[] bytes, int from, int length) {
        if (textLength + length > texts.length) {
            texts = Arrays.copyOf(texts, Math.max(texts.length * 2, textLength + length));
        }
        Spans.copy(bytes, from, texts, textLength, length);
        if (!filled[slot]) {
            fill(slot);
        }
        textStarts[slot][index] = textLength;
        textLength += length;
        textEnds[slot][index] = textLength;
    }

    // A field of another table would answer with whatever stands at the same place.
    private int slot(Field field) {
        if (field.table() != table || field.slot() < 0) {
            throw wrong(field);
        }
        return field.slot();
    }

    private IllegalArgumentException wrong(Field field) {
        return new IllegalArgumentException(
                field.table() != table
                        ? "'" + field.name() + "' is a field of "
                                + field.table().name() + ", and these are " + table.name()
                        : "'" + field.name() + "' of " + table.name() + " is worked out, so no record has it");
    }

    /** The decimal number of a record, or {@code null}. */
    public BigDecimal decimal(Field field, int index) {
        return objects[slot(field)][index];
    }

    private void fill(int slot) {
        filled[slot] = true;
        textStarts[slot] = new int[rows.length];
        textEnds[slot] = new int[rows.length];
    }

    /** A text or code; a {@code null} leaves it absent. */
    public void put(Field field, @Nullable String text) {
        if (text != null) {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            put(field, bytes, 0, bytes.length);
        }
    }

    // Adds a copy of a record of another block of the same table.
    void add(RecordBlock from, int index) {
        begin(from.rows[index]);
        for (int slot = 0; slot < numbers.length; slot++) {
            numbers[slot][size] = from.numbers[slot][index];
        }
        for (Field field : table.fields()) {
            if (field.type().isSpan() && !field.derived()) {
                put(field, from.texts, from.textStart(field, index), from.textEnd(field, index));
            } else if (field.type() == FieldType.DECIMAL) {
                put(field, from.objects[field.slot()][index]);
            }
        }
        SourceFile file = from.source(index);
        if (sources == null && file != source) {
            sources = new SourceFile[rows.length];
            Arrays.fill(sources, source);
        }
        if (sources != null) {
            sources[size] = file;
        }
        end(from.sound[index]);
    }

    /** The number of the record that is being filled; {@link SourceRecord#ABSENT} when none was put. */
    public long number(Field field) {
        return numbers[slot(field)][size];
    }

    /** The decimal number of the record that is being filled, or {@code null}. */
    public BigDecimal decimal(Field field) {
        return objects[slot(field)][size];
    }

    /** The text or code of the record that is being filled, as a new string, or {@code null}. */
    public @Nullable String text(Field field) {
        return text(field, size);
    }
}
