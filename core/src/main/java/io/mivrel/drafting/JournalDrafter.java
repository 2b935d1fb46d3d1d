package io.mivrel.drafting;

import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalBatch;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceRecord;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/** Journal lines with the same reference become one journal. Lines that are not sound are left out of its lines. */
public final class JournalDrafter implements Drafter {
    private final Headings headings = new Headings(JournalLines.TABLE);

    @Override
    public Document draft(RecordRange records, Consumer<Finding> findings) {
        return records.isValid() && headings.allAgree(records)
                ? Journal.asRead(records)
                : withFindings(records, findings);
    }

    /** Tells which journals of a batch are decided: their lines are sound and agree, so that there is nothing to find. */
    public boolean[] decided(JournalBatch journals) {
        RecordBlock lines = journals.records();
        boolean[] decided = new boolean[journals.size()];
        for (int i = 0; i < decided.length; i++) {
            boolean sound = true;
            for (int line = journals.from(i); line < journals.to(i); line++) {
                sound &= lines.isValid(line);
            }
            decided[i] = sound;
        }
        headings.allAgree(journals, decided);
        return decided;
    }

    private Journal withFindings(RecordRange records, Consumer<Finding> findings) {
        headings.compare(records, findings);
        List<JournalLine> lines = new ArrayList<>(records.size());
        for (SourceRecord record : records) {
            if (record.isValid()) {
                lines.add(JournalLine.asRead(record));
            }
        }
        SourceRecord first = records.get(0);
        return new Journal(first.text(JournalLines.REFERENCE), first.date(JournalLines.DATE), lines, records);
    }
}
