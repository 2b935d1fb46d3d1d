package io.mivrel.model;

import java.util.AbstractList;
import java.util.List;
import java.util.Objects;
import java.util.RandomAccess;

/**
 * Records that stand one after the other in a batch. What runs over millions of documents goes over the batch's columns
 * from {@link #from} up to {@link #to}; for everything else it is a list, whose records are made as they are asked for.
 * Immutable.
 */
public final class RecordRange extends AbstractList<SourceRecord> implements RandomAccess {
    private final RecordBlock batch;
    private final int from;
    private final int to;

    RecordRange(RecordBlock batch, int from, int to) {
        this.batch = batch;
        this.from = from;
        this.to = to;
    }

    /** Records from anywhere, copied into a batch of their own; at least one, all of one file and sheet. */
    public static RecordRange of(List<SourceRecord> records) {
        if (records instanceof RecordRange range) {
            return range;
        }
        RecordBlock first = records.get(0).batch();
        RecordBlock copy = new RecordBlock(first.table(), first.file(), first.sheet(), records.size());
        for (SourceRecord record : records) {
            copy.add(record.batch(), record.index());
        }
        return copy.range(0, records.size());
    }

    public RecordBlock batch() {
        return batch;
    }

    /** Place of the first record in the batch. */
    public int from() {
        return from;
    }

    /** Place behind the last record in the batch. */
    public int to() {
        return to;
    }

    @Override
    public SourceRecord get(int index) {
        return new SourceRecord(batch, from + Objects.checkIndex(index, to - from));
    }

    @Override
    public int size() {
        return to - from;
    }

    /** True when every record is sound. */
    public boolean isValid() {
        for (int i = from; i < to; i++) {
            if (!batch.isValid(i)) {
                return false;
            }
        }
        return true;
    }

    /** True when every record has a value in a field and all have the same. */
    public boolean agreesOn(Field field) {
        return switch (field.type()) {
            case DATE, AMOUNT -> agreesOnNumber(field);
            case TEXT, CODE -> agreesOnText(field);
            case DECIMAL -> false;
        };
    }

    private boolean agreesOnNumber(Field field) {
        long first = batch.number(field, from);
        for (int i = from + 1; i < to; i++) {
            if (batch.number(field, i) != first) {
                return false;
            }
        }
        return first != SourceRecord.ABSENT;
    }

    private boolean agreesOnText(Field field) {
        for (int i = from + 1; i < to; i++) {
            if (!batch.sameText(field, from, batch, i)) {
                return false;
            }
        }
        return batch.textEnd(field, from) > batch.textStart(field, from);
    }
}
