package io.mivrel;

import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Rows of records that a program has in memory. */
final class RecordRows implements RowSource {
    private final List<Map<String, String>> records;
    private final List<String> titles;
    private final int firstRow;
    private final Row row = new Row();
    private int next;

    RecordRows(List<Map<String, String>> records, int firstRow) {
        this.records = records;
        this.firstRow = firstRow;
        Set<String> found = new LinkedHashSet<>();
        records.forEach(record -> found.addAll(record.keySet()));
        titles = List.copyOf(found);
    }

    @Override
    public @Nullable Row next() {
        if (next == records.size()) {
            return null;
        }
        Map<String, String> record = records.get(next);
        row.fill(
                firstRow + next++,
                titles.stream().map(title -> record.getOrDefault(title, "")).toList());
        return row;
    }

    @Override
    public List<String> titles() {
        return titles;
    }

    @Override
    public void close() {
        // Nothing is open.
    }
}
