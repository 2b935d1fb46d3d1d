package io.mivrel.delivery;

import io.mivrel.model.BankTransaction;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.RecordBlock;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;

/** A column of texts or codes: what is written as characters and may be too long or refused. */
abstract class WordRenderer extends ColumnRenderer {
    final boolean limited;

    WordRenderer(DeliveryColumn column) {
        super(column, true);
        this.limited = column.atMost() > 0 || !column.refuse().isEmpty();
    }

    /** Appends the characters as the document has them, before anything is cut. */
    abstract void appendWhole(Document document, Object line, int index, CellBuffer out);

    /**
     * True when the value of a line lies in the column's own field of the record.
     *
     * @param coding of a bank line; else {@code null}
     */
    abstract boolean liesInRecord(Coding coding);

    private static Coding coding(Document document) {
        return document instanceof BankTransaction line ? line.coding() : null;
    }

    /** True when no check of such a line by its text can find anything; false when it must be looked at. */
    boolean isHarmless(Document document, RecordBlock batch, int at) {
        return isHarmless(coding(document), batch, at);
    }

    /** The same of a line with its coding, or without one. */
    boolean isHarmless(Coding coding, RecordBlock batch, int at) {
        if (!column.refuse().isEmpty() || !liesInRecord(coding)) {
            return false;
        }
        int start = batch.textStart(column.field(), at);
        int length = batch.textEnd(column.field(), at) - start;
        return (column.atMost() == 0 || length <= column.atMost())
                && (length == 0 || !isFormula((char) batch.textBytes()[start]));
    }

    /** True for a character that makes a spreadsheet run the text that it begins. */
    static boolean isFormula(char first) {
        return first == '=' || first == '+' || first == '-' || first == '@' || first == '\t' || first == '\r';
    }

    @Override
    long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out) throws IOException {
        appendWhole(document, line, index, scratch.clear());
        return writeAllowed(scratch, out);
    }

    @Override
    long writeAsRead(Document document, RecordBlock batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException {
        if (!liesInRecord(coding(document))) {
            return write(document, LineValues.line(document, index), index, scratch, out);
        }
        byte[] bytes = batch.textBytes();
        int start = batch.textStart(column.field(), at);
        int end = batch.textEnd(column.field(), at);
        if (!limited || column.refuse().isEmpty() && end - start <= column.atMost()) {
            out.cell(bytes, start, end);
            return Hash64.of(bytes, start, end);
        }
        return writeAllowed(scratch.clear().append(bytes, start, end), out);
    }

    @Override
    int reach(AsRead lines, int from, int to) {
        if (!column.refuse().isEmpty()) {
            return from;
        }
        RecordBlock records = lines.records();
        int most = limited ? column.atMost() : Integer.MAX_VALUE;
        for (int i = from; i < to; i++) {
            if (!liesInRecord(lines.coding(i))) {
                return i;
            }
            // A text has at least as many bytes as characters.
            if (records.textEnd(column.field(), i) - records.textStart(column.field(), i) > most) {
                return i;
            }
        }
        return to;
    }

    @Override
    void render(AsRead lines, int from, int to, CellColumn out) {
        RecordBlock records = lines.records();
        byte[] bytes = records.textBytes();
        for (int i = from; i < to; i++) {
            out.lies(bytes, records.textStart(column.field(), i), records.textEnd(column.field(), i));
        }
    }

    private long writeAllowed(CellBuffer scratch, RowWriter out) throws IOException {
        if (limited) {
            keepAllowed(scratch);
        }
        out.cell(scratch.bytes(), 0, scratch.length());
        return Hash64.of(scratch.bytes(), 0, scratch.length());
    }

    private void keepAllowed(CellBuffer out) {
        // A text has at least as many bytes as characters.
        if (column.refuse().isEmpty() && out.length() <= column.atMost()) {
            return;
        }
        String whole = out.toString();
        StringBuilder kept = new StringBuilder(whole.length());
        for (int i = 0; i < whole.length(); i++) {
            if (column.refuse().indexOf(whole.charAt(i)) < 0) {
                kept.append(whole.charAt(i));
            }
        }
        int most = column.atMost();
        if (most > 0 && kept.length() > most) {
            // A pair of surrogates is one character and is not divided.
            kept.setLength(Character.isHighSurrogate(kept.charAt(most - 1)) ? most - 1 : most);
        }
        out.clear().append(kept.toString());
    }
}
