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
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** A column of texts, codes or decimal numbers: what is written as characters and may be too long or refused. */
final class WordRenderer extends ColumnRenderer {
    private static final int RECENT = 256;

    private final Field field;
    private final char decimalMark;
    private final int most;
    private final boolean limited;
    private final TextForm form;
    /** Whether texts are written as their field has them, but for what is refused or cut. */
    private final boolean asItIs;
    /** Bytes of the last strings that do not lie in a record: the same few codes come again and again. */
    private final String[] recent = new String[RECENT];

    private final byte[][] recentBytes = new byte[RECENT][];

    WordRenderer(DeliveryColumn column, Field field, char decimalMark) {
        super(column, field.type() != FieldType.DECIMAL);
        this.field = field;
        this.decimalMark = decimalMark;
        this.most = column.most();
        this.form = column.text();
        this.asItIs = form.isWhole();
        this.limited = most > 0 || column.zeros() > 0 || !form.refuse().isEmpty();
    }

    /** The characters as the receiver wants them, before anything is left out or cut; empty when blank. */
    String whole(Line line) {
        return asItIs ? raw(line) : form.of(raw(line));
    }

    /** The characters as the line has them; empty when blank. */
    String raw(Line line) {
        if (field.type() == FieldType.DECIMAL) {
            BigDecimal number = line.decimal(field);
            return number == null ? "" : number.toPlainString().replace('.', decimalMark);
        }
        return joined(line::text);
    }

    private String joined(Function<Field, @Nullable String> texts) {
        String first = texts.apply(field);
        if (form.more().isEmpty()) {
            return first == null ? "" : first;
        }
        return Stream.concat(Stream.of(field), form.more().stream())
                .map(texts)
                .filter(text -> text != null && !text.isEmpty())
                .collect(Collectors.joining(form.between()));
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return writeAllowed(scratch.clear().append(whole(line)), out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        RecordBlock records = block.records();
        if (!asItIs) {
            String text = joined(f -> block.isMade(f, at) ? block.made(f, document, at) : records.text(f, at));
            return writeAllowed(scratch.clear().append(form.of(text)), out);
        }
        if (block.isMade(field, at)) {
            byte[] made = bytes(block.made(field, document, at));
            return write(made, 0, made.length, scratch, out);
        }
        if (field.type() == FieldType.DECIMAL) {
            BigDecimal number = records.decimal(field, at);
            String text = number == null ? "" : number.toPlainString().replace('.', decimalMark);
            return writeAllowed(scratch.clear().append(text), out);
        }
        return write(records.textBytes(), records.textStart(field, at), records.textEnd(field, at), scratch, out);
    }

    private long write(byte[] bytes, int start, int end, CellBuffer scratch, RowWriter out) throws IOException {
        // A text has at least as many bytes as characters.
        if (!limited || form.refuse().isEmpty() && column.zeros() == 0 && end - start <= most) {
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
        if (!asItIs || column.must() || !form.refuse().isEmpty() || field.type() == FieldType.DECIMAL) {
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
        if (form.refuse().isEmpty() && column.zeros() == 0 && out.length() <= most) {
            return;
        }
        String whole = out.toString();
        StringBuilder kept = new StringBuilder(whole.length());
        for (int i = 0; i < whole.length(); i++) {
            if (form.refuse().indexOf(whole.charAt(i)) < 0) {
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
