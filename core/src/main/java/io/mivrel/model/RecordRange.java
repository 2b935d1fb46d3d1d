package io.mivrel.model;

import java.util.AbstractList;
import java.util.List;
import java.util.Objects;
import java.util.RandomAccess;

/**
 * Records that stand one after the other in a block. What runs over millions of documents goes over the block's columns
 * from {@link #from} up to {@link #to}; for everything else it is a list, whose records are made as they are asked for.
 * Immutable.
 */
public final class RecordRange extends AbstractList<SourceRecord> implements RandomAccess {
    private final RecordBlock block;
    private final int from;
    private final int to;

    RecordRange(RecordBlock block, int from, int to) {
        this.block = block;
        this.from = from;
        this.to = to;
    }

    /** Records from anywhere, copied into a block of their own; at least one. */
    public static RecordRange of(List<SourceRecord> records) {
        if (records instanceof RecordRange range) {
            return range;
        }
        RecordBlock first = records.get(0).block();
        RecordBlock copy = new RecordBlock(first.table(), first.source(), records.size());
        for (SourceRecord record : records) {
            copy.add(record.block(), record.index());
        }
        return copy.range(0, records.size());
    }

    public RecordBlock block() {
        return block;
    }

    /** Place of the first record in the block. */
    public int from() {
        return from;
    }

    /** Place behind the last record in the block. */
    public int to() {
        return to;
    }

    @Override
    public SourceRecord get(int index) {
        return new SourceRecord(block, from + Objects.checkIndex(index, to - from));
    }

    @Override
    public int size() {
        return to - from;
    }

    /** True when every record is sound. */
    public boolean isValid() {
        for (int i = from; i < to; i++) {
            if (!block.isValid(i)) {
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
        long first = block.number(field, from);
        for (int i = from + 1; i < to; i++) {
            if (block.number(field, i) != first) {
                return false;
            }
        }
        return first != SourceRecord.ABSENT;
    }

    private boolean agreesOnText(Field field) {
        for (int i = from + 1; i < to; i++) {
            if (!block.sameText(field, from, block, i)) {
                return false;
            }
        }
        return block.textEnd(field, from) > block.textStart(field, from);
    }
}
