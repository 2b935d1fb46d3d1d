package io.mivrel.run;

import io.mivrel.drafting.Drafter;
import io.mivrel.drafting.Grouping;
import io.mivrel.drafting.InvoiceDrafter;
import io.mivrel.drafting.JournalDrafter;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.JournalBatch;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.util.ArrayList;
import java.util.List;

/** Takes the lines that belong together: each group becomes a document, which is then settled. Journals by the batch. */
final class GroupLane implements Grouping.Target {
    private final DocumentSorter settler;
    private final Field key;
    /** For journals; {@code null} for invoices. */
    private final JournalDrafter journalDrafter;

    private final Drafter drafter;

    GroupLane(RunPlan plan, DocumentSorter settler) {
        this.settler = settler;
        boolean journals = plan.records() == JournalLines.TABLE;
        this.key = journals ? JournalLines.REFERENCE : InvoiceLines.NUMBER;
        this.journalDrafter = journals ? new JournalDrafter() : null;
        this.drafter = journals ? journalDrafter : new InvoiceDrafter(plan.books());
    }

    /** The field that lines of one document have in common. */
    Field key() {
        return key;
    }

    @Override
    public void groups(RecordBlock batch, int[] bounds, int count) {
        if (journalDrafter == null) {
            Grouping.Target.super.groups(batch, bounds, count);
            return;
        }
        JournalBatch journals = new JournalBatch(batch, bounds, count);
        boolean[] decided = journalDrafter.decided(journals);
        settler.settle(journals, decided, i -> group(journals.lines(i), Grouping.Stand.TOGETHER));
    }

    @Override
    public void group(RecordRange records, Grouping.Stand stand) {
        List<Finding> noted = new ArrayList<>();
        Document document = drafter.draft(records, noted::add);
        if (stand != Grouping.Stand.TOGETHER) {
            noted.add(stand == Grouping.Stand.APART ? standApart(records) : tooMany(records.get(0)));
        }
        settler.settle(document, noted);
    }

    private Finding tooMany(SourceRecord first) {
        return new Finding(
                Rule.DOCUMENT_TOO_LARGE,
                first.origin(),
                "reference",
                first.text(key),
                "more than " + Grouping.MOST_LINES + " lines have this reference",
                "is the reference taken from the right column?");
    }

    private Finding standApart(RecordRange records) {
        SourceRecord first = records.get(0);
        SourceRecord last = records.get(records.size() - 1);
        return new Finding(
                Rule.REFERENCE_RETURNS,
                first.origin(),
                "reference",
                first.text(key),
                "its " + records.size() + " lines stand apart, from row " + first.row() + " to row " + last.row(),
                "");
    }
}
