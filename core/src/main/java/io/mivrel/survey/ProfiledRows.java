package io.mivrel.survey;

import io.mivrel.model.Finding;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.Statement;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Hands on the rows of a file and looks at their cells on the way, so that one reading both profiles the columns and tries
 * the proposed layout. Rows at the end that have no date or another width are kept back: they stand below the data.
 */
final class ProfiledRows implements RowSource {
    /** Rows without a date that may stand below the data before they count as data. */
    private static final int TAIL = 50;

    private final RowSource inner;
    private final Sample sample;
    private final List<ColumnSurvey> columns;
    private final List<RowFilter> filters;
    private final List<RowSum> sums;
    private final Row copy = new Row();
    private final Deque<Sample.Kept> tail = new ArrayDeque<>();
    private final Deque<Sample.Kept> ready = new ArrayDeque<>();
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
            RowSource inner, Sample sample, List<ColumnSurvey> columns, List<RowFilter> filters, List<RowSum> sums) {
        this.sums = sums;
        this.inner = inner;
        this.sample = sample;
        this.columns = columns;
        this.filters = filters;
    }

    @Override
    public @Nullable Row next() throws IOException {
        while (true) {
            Sample.Kept kept = ready.poll();
            if (kept != null) {
                copy.fill(kept.number(), kept.cells());
                profile(copy);
                return copy;
            }
            Row row = inner.next();
            if (row == null) {
                return null;
            }
            Statement ended = row.ended();
            if (ended != null) {
                accounts.add(String.valueOf(ended.account()));
                return row;
            }
            rows++;
            if (!isSuspect(row)) {
                return row;
            }
        }
    }

    // True when the row was kept back, alone or with others that are ready now.
    private boolean isSuspect(Row row) {
        if (row.fault() != null) {
            faults++;
            notText |= row.fault() == RowFault.NOT_TEXT;
            firstFault = firstFault == null
                    ? "row " + row.number() + " " + row.fault().reason()
                    : firstFault;
            return false;
        }
        if (row.aside() != null || sample.isFilteredOut(row, inner, filters)) {
            aside++;
            return false;
        }
        if (row.number() < sample.firstRow) {
            boolean title = row.number() <= sample.titlesRow && row.number() > sample.titlesRow - sample.titleRows;
            above += title ? 0 : 1;
            return false;
        }
        if (row.isBlank()) {
            blankRows++;
            return false;
        }
        if (row.size() == sample.widest && isDated(row)) {
            if (tail.isEmpty()) {
                profile(row);
                return false;
            }
            ready.addAll(tail);
            tail.clear();
            ready.add(Sample.Kept.of(row));
            return true;
        }
        tail.add(Sample.Kept.of(row));
        if (tail.size() > TAIL) {
            ready.add(tail.remove());
        }
        return true;
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

    @Override
    public @Nullable List<String> titles() {
        return inner.titles();
    }

    @Override
    public List<Finding> remarks() {
        return inner.remarks();
    }

    @Override
    public void close() throws IOException {
        inner.close();
    }
}
