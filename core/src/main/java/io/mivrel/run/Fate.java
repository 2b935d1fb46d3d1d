package io.mivrel.run;

import io.mivrel.model.Document;
import io.mivrel.model.Record;
import io.mivrel.model.Totals;
import java.time.LocalDate;

/** Counts of the documents that shared one fate: clear, held, or beyond the pilot. For one thread. */
public final class Fate {
    private long documents;
    private long rows;
    private final Totals totals = new Totals();
    private long first = Long.MAX_VALUE;
    private long last = Long.MIN_VALUE;

    void add(Document document) {
        documents++;
        rows += document.records().size();
        document.addTo(totals);
        seen(document.day());
    }

    /** Adds a bank line. */
    void add(long day, long amount) {
        documents++;
        rows++;
        totals.add(amount);
        seen(day);
    }

    private void seen(long day) {
        if (day != Record.ABSENT) {
            first = Math.min(first, day);
            last = Math.max(last, day);
        }
    }

    void addAll(Fate other) {
        documents += other.documents;
        rows += other.rows;
        totals.add(other.totals);
    }

    void addUnreadRows(long count) {
        rows += count;
    }

    public long documents() {
        return documents;
    }

    /** Source rows of these documents. */
    public long rows() {
        return rows;
    }

    public Totals totals() {
        return totals;
    }

    /** {@code null} when there is no document with a date. */
    public LocalDate firstDate() {
        return first > last ? null : LocalDate.ofEpochDay(first);
    }

    /** {@code null} when there is no document with a date. */
    public LocalDate lastDate() {
        return first > last ? null : LocalDate.ofEpochDay(last);
    }
}
