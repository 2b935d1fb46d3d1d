package io.mivrel.run;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.SourceRecord;
import io.mivrel.model.Totals;
import java.time.LocalDate;

/** Counts of the documents that shared one fate: clear, held, or beyond the pilot. For one thread. */
public final class DocumentCount {
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

    /** Adds a document of a batch. */
    void add(DocumentBlock batch, int document) {
        int to = batch.to(document);
        documents++;
        for (int line = batch.from(document); line < to; line++) {
            rows++;
            totals.add(batch.records().number(batch.amount(), line));
        }
        seen(batch.day(document));
    }

    private void seen(long day) {
        if (day != SourceRecord.ABSENT) {
            first = Math.min(first, day);
            last = Math.max(last, day);
        }
    }

    void addAll(DocumentCount other) {
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
