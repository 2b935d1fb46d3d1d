package io.mivrel.survey;

import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Reads all rows of a file once, counts them, and shows the cells of the data to the columns. Rows at the end that have no
 * date or another width are kept back: they stand below the data.
 */
final class ProfiledRows {
    /** Rows without a date that may stand below the data before they count as data. */
    private static final int TAIL = 50;

    private final RowSource source;
    private final Sample sample;
    private final List<ColumnSurvey> columns;
    private final List<RowFilter> filters;
    private final List<RowSum> sums;
    private final Row copy = new Row();
    private final Deque<Sample.Kept> tail = new ArrayDeque<>();
    long rows;
    long above;
    long dataRows;
    long blankRows;
    long faults;
    long aside;

    @Nullable
    String firstFault;

    boolean notText;
    /** The accounts that its statements name. */
    final Set<String> accounts = new HashSet<>();

    ProfiledRows(
            RowSource source,
            Sample sample,
            List<ColumnSurvey> columns,
            List<RowFilter> filters,
            List<RowSum> sums,
            Progress progress)
            throws IOException {
        this.source = source;
        this.sample = sample;
        this.columns = columns;
        this.filters = filters;
        this.sums = sums;
        for (Row row = source.next(); row != null; row = source.next()) {
            if (row.ended() != null) {
                accounts.add(String.valueOf(row.ended().account()));
                continue;
            }
            rows++;
            take(row);
            if (rows % 1024 == 0) {
                progress.at("surveyed", rows);
            }
        }
    }

    private void take(Row row) {
        RowFault fault = row.fault();
        if (fault != null) {
            faults++;
            notText |= fault == RowFault.NOT_TEXT;
            firstFault = firstFault == null ? "row " + row.number() + " " + fault.reason() : firstFault;
        } else if (row.aside() != null || sample.isFilteredOut(row, source, filters)) {
            aside++;
        } else if (row.number() < sample.firstRow) {
            boolean title = row.number() <= sample.titlesRow && row.number() > sample.titlesRow - sample.titleRows;
            above += title ? 0 : 1;
        } else if (row.isBlank()) {
            blankRows++;
        } else if (row.size() == sample.widest && isDated(row)) {
            tail.forEach(this::kept);
            tail.clear();
            profile(row);
        } else {
            tail.add(Sample.Kept.of(row));
            if (tail.size() > TAIL) {
                kept(tail.remove());
            }
        }
    }

    private void kept(Sample.Kept row) {
        copy.fill(row.number(), row.cells());
        profile(copy);
    }

    private static boolean hasFigure(Row row) {
        byte[] bytes = row.bytes();
        for (int cell = 0; cell < row.size(); cell++) {
            for (int i = row.start(cell); i < row.end(cell); i++) {
                if (bytes[i] >= '0' && bytes[i] <= '9') {
                    return true;
                }
            }
        }
        return false;
    }

    // Something with figures in the place of a date is data, though perhaps wrong.
    private boolean isDated(Row row) {
        if (sample.dateColumn < 0 || sample.fixedTitles) {
            return true;
        }
        return sample.dateColumn < row.size() && sample.isDated(row.trimmed(sample.dateColumn));
    }

    private void profile(Row row) {
        boolean narrow = row.size() < sample.widest && !isDated(row);
        if (!sample.fixedTitles && (narrow || !hasFigure(row))) {
            // Titles again, a heading, or a total of rows above.
            aside++;
            return;
        }
        dataRows++;
        byte[] bytes = row.bytes();
        for (int i = 0; i < columns.size() && i < row.size(); i++) {
            int start = Spans.trimStart(bytes, row.start(i), row.end(i));
            columns.get(i).add(row.number(), bytes, start, Spans.trimEnd(bytes, start, row.end(i)));
        }
        for (RowSum sum : sums) {
            sum.take(row);
        }
    }

    /** Rows that stand below the data. */
    Deque<Sample.Kept> tail() {
        return tail;
    }
}
