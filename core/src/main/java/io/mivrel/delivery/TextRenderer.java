package io.mivrel.delivery;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.CellBuffer;

/** A column of free text. */
final class TextRenderer extends WordRenderer {
    private final LineValues.Span spans;
    private final boolean ofBank;

    TextRenderer(DeliveryColumn column) {
        super(column);
        this.spans = LineValues.span(column.field());
        this.ofBank = column.field() == BankLines.NARRATIVE;
    }

    @Override
    boolean liesInRecord(Coding coding) {
        // The coding table may give a bank line another text.
        return !ofBank || coding.narrative() == null;
    }

    @Override
    void appendWhole(Document document, Object line, int index, CellBuffer out) {
        String own = spans.own(document, line);
        if (own != null) {
            out.append(own);
            return;
        }
        SourceRecord record = spans.record(line);
        Field field = spans.field(record);
        out.append(record.textBytes(), record.textStart(field), record.textEnd(field));
    }
}
