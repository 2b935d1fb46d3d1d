package io.mivrel.delivery;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.CellBuffer;
import io.mivrel.cells.DatePattern;
import io.mivrel.cells.Hash64;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Record;
import java.io.IOException;
import java.math.BigDecimal;

/** Writes one column's cells and reads them back. Compiled once from a {@link DeliveryColumn}; for one thread. */
final class ColumnRenderer {
    final DeliveryColumn column;
    private final FieldType type;
    private final LineValues.Text codes;
    private final LineValues.Span spans;
    private final LineValues.Number numbers;
    private final AmountFormat amounts;
    private final boolean limited;
    // The same day tends to come many times in a row.
    private long lastDay = Long.MIN_VALUE;
    private final CellBuffer lastDate = new CellBuffer();

    ColumnRenderer(DeliveryColumn column, AmountFormat amounts) {
        this.column = column;
        this.amounts = amounts;
        this.type = column.field() == null ? null : column.field().type();
        boolean numeric = type == FieldType.DATE || type == FieldType.AMOUNT;
        this.numbers = numeric ? LineValues.number(column.field()) : null;
        this.spans = type == FieldType.TEXT ? LineValues.span(column.field()) : null;
        this.codes = type == FieldType.CODE || type == FieldType.DECIMAL ? LineValues.text(column.field()) : null;
        this.limited = column.atMost() > 0 || !column.refuse().isEmpty();
    }

    /** True for texts, codes and numbers that are written as characters, and not for amounts, dates and constants. */
    boolean isText() {
        return spans != null || codes != null;
    }

    /** Appends the characters as the document has them, before anything is cut. */
    void appendWhole(Document document, Object line, int index, CellBuffer out) {
        if (spans != null) {
            String own = spans.own(document, line);
            if (own != null) {
                out.append(own);
            } else {
                Record record = spans.record(line);
                Field field = spans.field(record);
                out.append(record.textChars(), record.textStart(field), record.textEnd(field));
            }
            return;
        }
        Object value = codes.of(document, line, index);
        if (value instanceof BigDecimal number) {
            String plain = number.toPlainString();
            out.append(amounts.decimalMark() == '.' ? plain : plain.replace('.', amounts.decimalMark()));
        } else if (value != null) {
            out.append((String) value);
        }
    }

    /**
     * Writes the cell; answers the value that must be found again when it is read back. {@code scratch} is for building.
     */
    long write(Document document, Object line, int index, CellBuffer scratch, RowWriter out) throws IOException {
        if (spans != null && column.refuse().isEmpty() && spans.own(document, line) == null) {
            Record record = spans.record(line);
            Field field = spans.field(record);
            int start = record.textStart(field);
            int end = record.textEnd(field);
            if (column.atMost() == 0 || end - start <= column.atMost()) {
                out.cell(record.textChars(), start, end);
                return Hash64.of(record.textChars(), start, end);
            }
        }
        long value = render(document, line, index, scratch);
        out.cell(scratch.chars(), 0, scratch.length());
        return value;
    }

    /** True when the text is certainly not empty, too long, refused or a formula; false when it must be looked at. */
    boolean isHarmless(Document document, Object line) {
        if (spans == null || !column.refuse().isEmpty() || spans.own(document, line) != null) {
            return false;
        }
        Record record = spans.record(line);
        Field field = spans.field(record);
        int start = record.textStart(field);
        int length = record.textEnd(field) - start;
        return length > 0
                && (column.atMost() == 0 || length <= column.atMost())
                && !isFormula(record.textChars()[start]);
    }

    /** True for a character that makes a spreadsheet run the text that it begins. */
    static boolean isFormula(char first) {
        return first == '=' || first == '+' || first == '-' || first == '@' || first == '\t' || first == '\r';
    }

    /** Builds the cell; answers the value that must be found again when it is read back. */
    private long render(Document document, Object line, int index, CellBuffer out) {
        out.clear();
        if (numbers != null) {
            long value = numbers.of(document, line);
            if (value == Record.ABSENT) {
                return Record.ABSENT;
            }
            return type == FieldType.AMOUNT ? amount(value, out) : date(value, out);
        }
        if (column.constant() != null) {
            out.append(column.constant());
        } else {
            appendWhole(document, line, index, out);
            if (limited) {
                keepAllowed(out);
            }
        }
        return Hash64.of(out.chars(), 0, out.length());
    }

    private long amount(long value, CellBuffer out) {
        if (value == 0 && column.blankZero()) {
            return Record.ABSENT;
        }
        long signed = column.minus() ? -value : value;
        amounts.append(signed, out);
        return signed;
    }

    private long date(long day, CellBuffer out) {
        if (day != lastDay) {
            lastDate.clear();
            column.date().append(day, lastDate);
            lastDay = day;
        }
        out.append(lastDate.chars(), 0, lastDate.length());
        return day;
    }

    private void keepAllowed(CellBuffer out) {
        char[] chars = out.chars();
        int kept = out.length();
        if (!column.refuse().isEmpty()) {
            kept = 0;
            for (int i = 0; i < out.length(); i++) {
                if (column.refuse().indexOf(chars[i]) < 0) {
                    chars[kept++] = chars[i];
                }
            }
        }
        int most = column.atMost();
        if (most > 0 && kept > most) {
            // A pair of surrogates is one character and is not divided.
            kept = Character.isHighSurrogate(chars[most - 1]) ? most - 1 : most;
        }
        out.cut(kept);
    }

    /** The value of a cell that was read back, comparable with what {@link #write} answered. */
    long readBack(char[] chars, int from, int to) {
        if (numbers == null) {
            return Hash64.of(chars, from, to);
        }
        if (type == FieldType.AMOUNT) {
            return amounts.parse(chars, from, to);
        }
        long day = column.date().parse(chars, from, to);
        return day == DatePattern.BLANK ? Record.ABSENT : day;
    }

    /** The part of an amount for the control totals: nil for a blank, with the books' sign. */
    long signed(long value) {
        return value == Record.ABSENT ? 0 : column.minus() ? -value : value;
    }
}
