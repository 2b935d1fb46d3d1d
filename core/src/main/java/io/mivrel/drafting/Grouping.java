package io.mivrel.drafting;

import io.mivrel.cells.Hash64;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.Record;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Brings the records of one document together. A group goes on as soon as the next record has another key, so memory
 * holds one document and a 64-bit hash of each key seen. Lines of one document stand in one file; the same key in
 * another file is another document.
 *
 * <p>When a key comes back after its group has gone on, what was emitted is wrong: {@link #mustStartOver()} turns true
 * and nothing more is emitted. The caller then reads the input once more with a grouping made by {@link #nextPass()},
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
        void group(List<Record> records, Stand stand);
    }

    private final FieldTable table;
    private final Field key;
    private final Target target;
    private final LongIndex apart;
    private final LongIndex seen = new LongIndex();
    private final LongIndex returning = new LongIndex();
    private final LongIndex spilled = new LongIndex();
    private RecordSpill spill;
    private List<Record> group = new ArrayList<>();
    private boolean tooMany;
    private String currentKey;
    private String currentFile;
    private long fileOrdinal;

    /** A first pass over records of a table, grouped by one of its code fields. */
    public Grouping(FieldTable table, Field key, Target target) {
        this(table, key, target, new LongIndex());
    }

    private Grouping(FieldTable table, Field key, Target target, LongIndex apart) {
        this.table = table;
        this.key = key;
        this.target = target;
        this.apart = apart;
    }

    /** Adds the next record in the order of the input. One without a key is a group of its own. */
    public void accept(Record record) {
        if (!record.file().equals(currentFile)) {
            close(group);
            currentKey = null;
            currentFile = record.file();
            fileOrdinal++;
        }
        String recordKey = record.text(key);
        if (recordKey == null) {
            emit(List.of(record), Stand.TOGETHER);
            return;
        }
        if (!recordKey.equals(currentKey)) {
            close(group);
            tooMany = false;
            currentKey = recordKey;
            long hash = Hash64.add(fileOrdinal, recordKey);
            if (apart.size() == 0 || apart.of(hash) < 0) {
                int known = seen.size();
                if (seen.add(hash) != known) {
                    returning.add(hash);
                }
            }
        }
        if (group.size() == MOST_LINES) {
            tooMany = true;
            close(group);
        }
        group.add(record);
    }

    /** Ends the input: emits the last group, then those whose records stood apart, in the order of their first rows. */
    public void finish() {
        close(group);
        if (spill == null || mustStartOver()) {
            return;
        }
        try {
            for (int part = 0; part < spill.parts(); part++) {
                finishPart(part);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the temporary folder failed", e);
        }
    }

    private void finishPart(int part) throws IOException {
        Map<String, List<Record>> groups = new LinkedHashMap<>();
        Set<String> tooLarge = new HashSet<>();
        spill.read(part, record -> {
            String name = record.file() + '\0' + record.text(key);
            List<Record> records = groups.computeIfAbsent(name, k -> new ArrayList<>(4));
            if (records.size() == MOST_LINES) {
                emit(List.copyOf(records), Stand.TOO_MANY);
                tooLarge.add(name);
                records.clear();
            }
            records.add(record);
        });
        groups.forEach((name, records) -> emit(records, tooLarge.contains(name) ? Stand.TOO_MANY : Stand.APART));
    }

    private void close(List<Record> records) {
        if (records.isEmpty()) {
            return;
        }
        long hash = apart.size() == 0 ? 0 : Hash64.add(fileOrdinal, currentKey);
        if (apart.size() > 0 && apart.of(hash) >= 0) {
            keepOnDisk(hash, records);
        } else {
            emit(records, tooMany ? Stand.TOO_MANY : Stand.TOGETHER);
        }
        group = new ArrayList<>(4);
    }

    private void keepOnDisk(long hash, List<Record> records) {
        try {
            if (spill == null) {
                spill = new RecordSpill(table, Math.min(MOST_PARTS, 1 + apart.size() / GROUPS_PER_PART));
            }
            // Keys are numbered as they first come, so the parts hold them in the order of the file.
            int part = (int) ((long) spilled.add(hash) * spill.parts() / apart.size());
            for (Record record : records) {
                spill.write(part, record);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the temporary folder failed", e);
        }
    }

    private void emit(List<Record> records, Stand stand) {
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
        return new Grouping(table, key, nextTarget, known);
    }

    @Override
    public void close() throws IOException {
        if (spill != null) {
            spill.close();
        }
    }
}
