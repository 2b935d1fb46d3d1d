package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Line;
import io.mivrel.model.RecordBlock;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/** A column of texts, codes or decimal numbers: what is written as characters and may be too long or refused. */
final class WordRenderer extends ColumnRenderer {
    private static final int RECENT = 256;

    private final Field field;
    private final char decimalMark;
    private final int most;
    private final boolean limited;
    /** Bytes of the last strings that do not lie in a record: the same few codes come again and again. */
    private final String[] recent = new String[RECENT];

    private final byte[][] recentBytes = new byte[RECENT][];

    WordRenderer(DeliveryColumn column, Field field, char decimalMark) {
        super(column, field.type() != FieldType.DECIMAL);
        this.field = field;
        this.decimalMark = decimalMark;
        this.most = column.most();
        this.limited = most > 0 || column.zeros() > 0 || !column.refuse().isEmpty();
    }

    /** The characters as the line has them, before anything is cut; empty when blank. */
    String whole(Line line) {
        String text;
        if (field.type() == FieldType.DECIMAL) {
            BigDecimal number = line.decimal(field);
            text = number == null ? null : number.toPlainString().replace('.', decimalMark);
        } else {
            text = line.text(field);
        }
        return text == null ? "" : text;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return writeAllowed(scratch.clear().append(whole(line)), out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        if (block.isMade(field, at)) {
            byte[] made = bytes(block.made(field, document, at));
            return write(made, 0, made.length, scratch, out);
        }
        RecordBlock records = block.records();
        if (field.type() == FieldType.DECIMAL) {
            BigDecimal number = records.decimal(field, at);
            String text = number == null ? "" : number.toPlainString().replace('.', decimalMark);
            return writeAllowed(scratch.clear().append(text), out);
        }
        return write(records.textBytes(), records.textStart(field, at), records.textEnd(field, at), scratch, out);
    }

    private long write(byte[] bytes, int start, int end, CellBuffer scratch, RowWriter out) throws IOException {
        // A text has at least as many bytes as characters.
        if (!limited || column.refuse().isEmpty() && column.zeros() == 0 && end - start <= most) {
            out.cell(bytes, start, end);
            return Hash64.of(bytes, start, end);
        }
        return writeAllowed(scratch.clear().append(bytes, start, end), out);
    }

    private byte[] bytes(@Nullable String made) {
        String text = made == null ? "" : made;
        int place = text.hashCode() & RECENT - 1;
        if (text != recent[place] && !text.equals(recent[place])) {
            recent[place] = text;
            recentBytes[place] = text.getBytes(StandardCharsets.UTF_8);
        }
        return recentBytes[place];
    }

    /** True when no check of a record's text can find anything; false when it must be looked at. */
    boolean isHarmless(DocumentBlock block, int document, int at) {
        if (!column.refuse().isEmpty() || field.type() == FieldType.DECIMAL) {
            return false;
        }
        if (block.isMade(field, at)) {
            byte[] made = bytes(block.made(field, document, at));
            return isHarmless(made, 0, made.length);
        }
        RecordBlock records = block.records();
        return isHarmless(records.textBytes(), records.textStart(field, at), records.textEnd(field, at));
    }

    private boolean isHarmless(byte[] bytes, int start, int end) {
        return (most == 0 || end - start <= most) && (start == end || !isFormula((char) bytes[start]));
    }

    /** True for a character that makes a spreadsheet run the text that it begins. */
    static boolean isFormula(char first) {
        return first == '=' || first == '+' || first == '-' || first == '@' || first == '\t' || first == '\r';
    }

    private long writeAllowed(CellBuffer scratch, RowWriter out) throws IOException {
        if (limited) {
            keepAllowed(scratch);
        }
        out.cell(scratch.bytes(), 0, scratch.length());
        return hashed
                ? Hash64.of(scratch.bytes(), 0, scratch.length())
                : readBack(scratch.bytes(), 0, scratch.length());
    }

    // Of a decimal number the value counts: a form may write 0.10 as the number 0.1.
    @Override
    long readBack(byte[] bytes, int from, int to) {
        int end = to;
        boolean hasMark = false;
        for (int i = from; i < to; i++) {
            hasMark |= bytes[i] == decimalMark;
        }
        while (hasMark && end > from && bytes[end - 1] == '0') {
            end--;
        }
        return Hash64.of(bytes, from, hasMark && end > from && bytes[end - 1] == decimalMark ? end - 1 : end);
    }

    private void keepAllowed(CellBuffer out) {
        if (column.refuse().isEmpty() && column.zeros() == 0 && out.length() <= most) {
            return;
        }
        String whole = out.toString();
        StringBuilder kept = new StringBuilder(whole.length());
        for (int i = 0; i < whole.length(); i++) {
            if (column.refuse().indexOf(whole.charAt(i)) < 0) {
                kept.append(whole.charAt(i));
            }
        }
        if (most > 0 && kept.length() > most) {
            // A pair of surrogates is one character and is not divided.
            kept.setLength(Character.isHighSurrogate(kept.charAt(most - 1)) ? most - 1 : most);
            // No blank stays at the cut.
            while (!kept.isEmpty() && kept.charAt(kept.length() - 1) == ' ') {
                kept.setLength(kept.length() - 1);
            }
        }
        if (!kept.isEmpty() && kept.length() < column.zeros() && kept.chars().allMatch(c -> c >= '0' && c <= '9')) {
            kept.insert(0, "0".repeat(column.zeros() - kept.length()));
        }
        out.clear().append(kept.toString());
    }
}
