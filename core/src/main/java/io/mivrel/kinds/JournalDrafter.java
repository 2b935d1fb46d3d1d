package io.mivrel.kinds;

import io.mivrel.drafting.DocumentTree;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceRecord;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Journal lines with the same reference become one journal. Lines that are not valid are left out of its lines. */
final class JournalDrafter implements Drafter {
    JournalDrafter(DraftingContext context) {
        // A journal needs nothing but its lines.
    }

    @Override
    public Document draft(RecordRange records, @Nullable Coding coding, Consumer<Finding> findings) {
        Line heading = DocumentTree.of(JournalLines.KIND, records, SourceRecord::isValid, findings);
        return new Document(JournalLines.KIND, records, heading, heading.text(JournalLines.REFERENCE), null);
    }

    /** The heading of a journal that a document of another kind amounts to; its lines are added by the drafter of that. */
    static Line heading(Document of) {
        Line heading = Line.heading(JournalLines.KIND, of.records().get(0))
                .put(JournalLines.REFERENCE, of.reference())
                .put(JournalLines.DATE, of.day());
        handOn(of.kind().apart(), of.heading(), heading);
        return heading;
    }

    /** What both kinds have under one name goes from a line of another kind to one of the journal. */
    static void handOn(List<Field> fields, Line from, Line to) {
        for (Field field : fields) {
            JournalLines.TABLE.find(field.name()).ifPresent(own -> to.put(own, from.text(field)));
        }
    }

    /** Adds a line made of a record of another kind. */
    static Line line(
            Line heading, SourceRecord source, @Nullable String account, long amount, @Nullable String narrative) {
        return heading.add(source, heading.children().size())
                .put(JournalLines.ACCOUNT, account)
                .put(JournalLines.AMOUNT, amount)
                .put(JournalLines.NARRATIVE, narrative);
    }

    /** The journal, once all lines are added. */
    static Document journal(Document of, Line heading) {
        return new Document(JournalLines.KIND, of.records(), heading, of.reference(), null);
    }
}
