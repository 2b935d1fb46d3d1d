package io.mivrel.drafting;

import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Hash64;
import io.mivrel.text.LongSet;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Brings the records of one document together. A group goes on as soon as the next record has another key, so memory
 * holds one document and a 64-bit hash of each key seen. The same key in another file is another document, unless lines
 * of one document may stand in several files.
 *
 * <p>When a key comes back after its group has gone on, what was emitted is wrong: {@link #mustStartOver()} turns true
 * and nothing more is emitted. The caller then reads the input once more with a grouping made by {@link #nextPass},
 * which knows the keys that stand apart and keeps their records on disk until the end. For one thread.
 */
public final class Grouping implements Closeable {
    /** Most records of one group, so that memory stays bounded when a reference is the same in every row. */
    public static final int MOST_LINES = 50_000;

    private static final int GROUPS_PER_PART = 8192;
    private static final int MOST_PARTS = 512;

    /** How the records of a group stood in the file. */
    public enum Stand {
        TOGETHER,
        APART,
        /** There are more than {@link #MOST_LINES} of them; this is a part of the group, and none of it may be used. */
        TOO_MANY
    }

    /** Takes the groups. */
    public interface Target {
        void group(RecordRange records, Stand stand);

        /**
         * Takes groups that stand together one after the other in a block, many at a time where that is less work.
         *
         * @param bounds where each group begins, and behind them where the last one ends; for the target to keep
         * @param count how many groups there are
         */
        default void groups(RecordBlock block, int[] bounds, int count) {
            for (int i = 0; i < count; i++) {
                group(block.range(bounds[i], bounds[i + 1]), Stand.TOGETHER);
            }
        }
    }

    private final FieldTable table;
    private final Field key;
    private final List<Field> within;
    private final boolean acrossFiles;
    private final Target target;
    private final LongIndex apart;
    private final LongSet seen = new LongSet();
    private final LongIndex returning = new LongIndex();
    private final LongIndex spilled = new LongIndex();
    private @Nullable RecordSpill spill;
    /** Lines of the open group that stand in earlier blocks than the rest of it. */
    private final List<SourceRecord> earlier = new ArrayList<>();

    private @Nullable RecordBlock openBlock;
    private int openFrom;
    private int openTo;
    private long openHash;
    private boolean tooMany;
    private @Nullable String currentFile;
    private long fileOrdinal;

    /** A first pass over records of a table, grouped by one of its code fields. */
    public Grouping(FieldTable table, Field key, Target target) {
        this(table, key, List.of(), false, target, new LongIndex());
    }

    /** The same, where a key with another value of one of these fields is another document; before the first record. */
    public Grouping within(List<Field> fields) {
        return new Grouping(table, key, fields, acrossFiles, target, apart);
    }

    /** The same, where a key in another file is the same document; before the first record. */
    public Grouping acrossFiles() {
        return new Grouping(table, key, within, true, target, apart);
    }

    private Grouping(
            FieldTable table, Field key, List<Field> within, boolean acrossFiles, Target target, LongIndex apart) {
        this.table = table;
        this.key = key;
        this.within = within;
        this.acrossFiles = acrossFiles;
        this.target = target;
        this.apart = apart;
    }

    /** Adds the next records in the order of the input. One without a key is a group of its own. */
    public void accept(RecordBlock block) {
        if (!block.source().name().equals(currentFile)) {
            closeGroup();
            currentFile = block.source().name();
            fileOrdinal += acrossFiles ? 0 : 1;
        }
        int begin = 0;
        if (openBlock != null && block.size() > 0) {
            if (hasKey(block, 0) && same(block, 0, openBlock, openFrom)) {
                begin = goOn(block);
            } else {
                closeGroup();
            }
        }
        if (begin < block.size()) {
            closeGroup();
            acceptWhole(block, begin);
        }
    }

    // The last group stays open: it may go on in the next block. Those before it are whole.
    private void acceptWhole(RecordBlock block, int begin) {
        int[] bounds = new int[block.size() - begin + 1];
        int count = 0;
        for (int from = begin; from < block.size(); from = endOfGroup(block, from)) {
            bounds[count++] = from;
        }
        int whole = count - 1;
        int emitted = 0;
        for (int i = 0; i < whole; i++) {
            int from = bounds[i];
            boolean tooLarge = bounds[i + 1] - from > MOST_LINES;
            long hash = hasKey(block, from) ? hash(block, from) : 0;
            boolean isApart = hasKey(block, from) && meet(hash);
            if (isApart || tooLarge) {
                emit(block, bounds, emitted, i);
                emitted = i + 1;
            }
            if (isApart) {
                keepOnDisk(hash, block.range(from, bounds[i + 1]));
            } else if (tooLarge) {
                emit(block.range(from, bounds[i + 1]), Stand.TOO_MANY);
            }
        }
        emit(block, bounds, emitted, whole);
        open(block, bounds[whole]);
    }

    private void open(RecordBlock block, int from) {
        openBlock = block;
        openFrom = from;
        openTo = endOfGroup(block, from);
        tooMany = false;
        if (hasKey(block, from)) {
            openHash = hash(block, from);
            meet(openHash);
        }
    }

    private boolean hasKey(RecordBlock block, int index) {
        return block.textEnd(key, index) > block.textStart(key, index);
    }

    private long hash(RecordBlock block, int index) {
        long hash = Hash64.add(fileOrdinal, block.textBytes(), block.textStart(key, index), block.textEnd(key, index));
        for (Field field : within) {
            int start = block.textStart(field, index);
            int end = block.textEnd(field, index);
            hash = end == start ? hash : Hash64.add(Hash64.add(hash, field.name()), block.textBytes(), start, end);
        }
        return hash;
    }

    private boolean same(RecordBlock block, int index, RecordBlock other, int otherIndex) {
        boolean same = block.sameText(key, index, other, otherIndex);
        for (int i = 0; same && i < within.size(); i++) {
            same = block.sameText(within.get(i), index, other, otherIndex);
        }
        return same;
    }

    // True when the key is known to stand apart; else it is seen now, and not to be seen again.
    private boolean meet(long hash) {
        if (isApart(hash)) {
            return true;
        }
        if (!seen.add(hash)) {
            returning.add(hash);
        }
        return false;
    }

    private boolean isApart(long hash) {
        return apart.size() > 0 && apart.of(hash) >= 0;
    }

    // The open group goes on in the next block.
    private int goOn(RecordBlock block) {
        int end = endOfKey(block, 0);
        if (earlier.size() + openTo - openFrom + end > MOST_LINES) {
            tooMany = true;
            closeGroup();
        } else {
            earlier.addAll(Objects.requireNonNull(openBlock).range(openFrom, openTo));
        }
        openBlock = block;
        openFrom = 0;
        openTo = end;
        return end;
    }

    private int endOfGroup(RecordBlock block, int from) {
        return hasKey(block, from) ? endOfKey(block, from) : from + 1;
    }

    private int endOfKey(RecordBlock block, int from) {
        int end = from + 1;
        while (end < block.size() && same(block, from, block, end)) {
            end++;
        }
        return end;
    }

    /** Ends the input: emits the last group, then those whose records stood apart, in the order of their first rows. */
    public void finish() {
        closeGroup();
        if (spill == null || mustStartOver()) {
            return;
        }
        try {
            for (int part = 0; part < spill.parts(); part++) {
                finishPart(spill, part);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the temporary folder failed", e);
        }
    }

    private void finishPart(RecordSpill spill, int part) throws IOException {
        Map<String, List<SourceRecord>> groups = new LinkedHashMap<>();
        Set<String> tooLarge = new HashSet<>();
        spill.read(part, record -> {
            String name = (acrossFiles ? "" : record.file())
                    + '\0'
                    + record.text(key)
                    + '\0'
                    + within.stream().map(record::text).toList();
            List<SourceRecord> records = groups.computeIfAbsent(name, k -> new ArrayList<>(4));
            if (records.size() == MOST_LINES) {
                emit(RecordRange.of(records), Stand.TOO_MANY);
                tooLarge.add(name);
                records.clear();
            }
            records.add(record);
        });
        groups.forEach((name, records) ->
                emit(RecordRange.of(records), tooLarge.contains(name) ? Stand.TOO_MANY : Stand.APART));
    }

    // Lets the open group, or the part of it that is kept, go on.
    private void closeGroup() {
        if (openBlock == null) {
            return;
        }
        RecordRange records = openBlock.range(openFrom, openTo);
        if (!earlier.isEmpty()) {
            earlier.addAll(records);
            records = RecordRange.of(earlier);
            earlier.clear();
        }
        boolean tooLarge = tooMany || records.size() > MOST_LINES;
        if (hasKey(openBlock, openFrom) && isApart(openHash)) {
            keepOnDisk(openHash, records);
        } else {
            emit(records, tooLarge ? Stand.TOO_MANY : Stand.TOGETHER);
        }
        openBlock = null;
    }

    private void keepOnDisk(long hash, RecordRange records) {
        try {
            if (spill == null) {
                spill = new RecordSpill(table, Math.min(MOST_PARTS, 1 + apart.size() / GROUPS_PER_PART));
            }
            // Keys are numbered as they first come, so the parts hold them in the order of the file.
            int part = (int) ((long) spilled.add(hash) * spill.parts() / apart.size());
            for (SourceRecord record : records) {
                spill.write(part, record);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the temporary folder failed", e);
        }
    }

    private void emit(RecordBlock block, int[] bounds, int from, int to) {
        if (from < to && !mustStartOver()) {
            target.groups(block, from == 0 ? bounds : Arrays.copyOfRange(bounds, from, to + 1), to - from);
        }
    }

    private void emit(RecordRange records, Stand stand) {
        if (!mustStartOver()) {
            target.group(records, stand);
        }
    }

    /** True when a key came back that this pass did not know to stand apart. */
    public boolean mustStartOver() {
        return returning.size() > 0;
    }

    /** A grouping for another pass that knows all that this one knew and found; once this one has read to the end. */
    public Grouping nextPass(Target nextTarget) {
        LongIndex known = new LongIndex();
        known.addAll(apart);
        known.addAll(returning);
        return new Grouping(table, key, within, acrossFiles, nextTarget, known);
    }

    @Override
    public void close() throws IOException {
        if (spill != null) {
            spill.close();
        }
    }
}
