package io.mivrel.delivery;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.CellBuffer;
import io.mivrel.cells.DatePattern;
import io.mivrel.cells.Hash64;
import io.mivrel.model.Document;
import io.mivrel.model.FieldType;
import io.mivrel.model.Record;
import java.math.BigDecimal;

/** Writes one column's cells and reads them back. Compiled once from a {@link DeliveryColumn}; for one thread. */
final class ColumnRenderer {
    final DeliveryColumn column;
    private final LineValues.Text texts;
    private final LineValues.Number numbers;
    private final AmountFormat amounts;
    private final char decimalMark;
    // The same day tends to come many times in a row.
    private long lastDay = Long.MIN_VALUE;
    private final CellBuffer lastDate = new CellBuffer();

    ColumnRenderer(DeliveryColumn column, AmountFormat amounts) {
        this.column = column;
        this.amounts = amounts;
        this.decimalMark = amounts.decimalMark();
        boolean numeric = column.field() != null && isNumeric(column.field().type());
        this.numbers = numeric ? LineValues.number(column.field()) : null;
        this.texts = column.field() == null || numeric ? null : LineValues.text(column.field());
    }

    private static boolean isNumeric(FieldType type) {
        return type == FieldType.DATE || type == FieldType.AMOUNT;
    }

    boolean isText() {
        return texts != null;
    }

    boolean isAmount() {
        return column.field() != null && column.field().type() == FieldType.AMOUNT;
    }

    /** The text as the document has it, before it is cut; {@code null} when blank. */
    String text(Document document, Object line, int index) {
        Object value = texts.of(document, line, index);
        return value instanceof BigDecimal number ? decimal(number) : (String) value;
    }

    private String decimal(BigDecimal number) {
        String plain = number.toPlainString();
        return decimalMark == '.' ? plain : plain.replace('.', decimalMark);
    }

    /** Builds the cell; answers the value that must be found again when it is read back. */
    long render(Document document, Object line, int index, CellBuffer out) {
        out.clear();
        if (numbers != null) {
            long value = numbers.of(document, line);
            if (value == Record.ABSENT) {
                return Record.ABSENT;
            }
            return isAmount() ? amount(value, out) : date(value, out);
        }
        String text = texts == null ? column.constant() : text(document, line, index);
        if (text != null) {
            appendAllowed(text, out);
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

    private void appendAllowed(String text, CellBuffer out) {
        if (column.refuse().isEmpty()) {
            out.append(text);
        } else {
            for (int i = 0; i < text.length(); i++) {
                char c = text.charAt(i);
                if (column.refuse().indexOf(c) < 0) {
                    out.append(c);
                }
            }
        }
        if (column.atMost() > 0 && out.length() > column.atMost()) {
            // A pair of surrogates is one character and is not divided.
            int cut = column.atMost();
            out.cut(Character.isHighSurrogate(out.chars()[cut - 1]) ? cut - 1 : cut);
        }
    }

    /** The value of a cell that was read back, comparable with what {@link #render} answered. */
    long readBack(char[] chars, int from, int to) {
        if (numbers == null) {
            return Hash64.of(chars, from, to);
        }
        if (isAmount()) {
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
