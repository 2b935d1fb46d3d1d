package io.mivrel.run;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.CurrencyTotals;
import io.mivrel.money.Totals;
import java.time.LocalDate;
import java.util.Currency;
import org.jspecify.annotations.Nullable;

/** Counts of the documents that shared one disposition: clear, held, or beyond the pilot. For one thread. */
public final class DocumentCount {
    private long documents;
    private long rows;
    private long withoutTotal;
    private final CurrencyTotals totals;
    private final CurrencyTotals recordTotals;
    private long first = Long.MAX_VALUE;
    private long last = Long.MIN_VALUE;

    /** Of a kind whose lines stand above its records, a line that several records share counts once in {@link #totals}. */
    DocumentCount(Kind kind, Currency currency) {
        totals = new CurrencyTotals(currency);
        boolean oneForOne = kind.amount().level() == kind.table().deepest();
        recordTotals = oneForOne ? totals : new CurrencyTotals(currency);
    }

    void add(Document document) {
        documents++;
        rows += document.records().size();
        Field total = document.kind().statedTotal();
        if (total != null && document.records().stream().noneMatch(record -> record.has(total))) {
            withoutTotal++;
        }
        document.addTo(recordTotals);
        if (recordTotals != totals) {
            for (Line line : document.lines()) {
                long amount = document.kind()
                        .signedAmount(line.source().block(), line.source().index());
                if (amount != SourceRecord.ABSENT) {
                    totals.add(amount, line.currency());
                }
            }
        }
        seen(document.records()
                .block()
                .number(document.kind().date(), document.records().from()));
    }

    /** Adds a document of a block. */
    void add(DocumentBlock block, int document) {
        int to = block.to(document);
        documents++;
        for (int line = block.from(document); line < to; line++) {
            rows++;
            totals.add(
                    block.records().number(block.kind().amount(), line),
                    block.records().currency());
        }
        seen(block.day(document));
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
        withoutTotal += other.withoutTotal;
        totals.add(other.totals);
        if (recordTotals != totals) {
            recordTotals.add(other.recordTotals);
        }
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

    /** Documents of a kind that may state its total, and that do not; nothing proves their figures. */
    public long withoutTotal() {
        return withoutTotal;
    }

    /** Sums of the lines' amounts in the main currency of the run. */
    public Totals totals() {
        return totals.main();
    }

    /** The same in every currency, the main one first. */
    public CurrencyTotals allTotals() {
        return totals;
    }

    /** Sums of the amounts of all records, where several may share a line; to compare with what was read. */
    CurrencyTotals recordTotals() {
        return recordTotals;
    }

    /** {@code null} when there is no document with a date. */
    public @Nullable LocalDate firstDate() {
        return first > last ? null : LocalDate.ofEpochDay(first);
    }

    /** {@code null} when there is no document with a date. */
    public @Nullable LocalDate lastDate() {
        return first > last ? null : LocalDate.ofEpochDay(last);
    }
}
