package io.mivrel.run;

import io.mivrel.model.Document;
import io.mivrel.model.Totals;
import java.time.LocalDate;

/** Counts of the documents that shared one fate: clear, held, or beyond the pilot. For one thread. */
public final class Fate {
    private long documents;
    private long rows;
    private final Totals totals = new Totals();
    private LocalDate first;
    private LocalDate last;

    void add(Document document) {
        documents++;
        rows += document.records().size();
        document.addTo(totals);
        LocalDate date = document.date();
        if (date != null) {
            first = first == null || date.isBefore(first) ? date : first;
            last = last == null || date.isAfter(last) ? date : last;
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
        return first;
    }

    /** {@code null} when there is no document with a date. */
    public LocalDate lastDate() {
        return last;
    }
}
