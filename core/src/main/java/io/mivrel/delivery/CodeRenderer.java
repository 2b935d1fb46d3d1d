package io.mivrel.delivery;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.CellBuffer;
import io.mivrel.model.BankLines;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import java.math.BigDecimal;

/** A column of codes or of decimal numbers. */
final class CodeRenderer extends WordRenderer {
    private final LineValues.Text codes;
    private final char decimalMark;
    private final boolean inRecord;

    CodeRenderer(DeliveryColumn column, AmountFormat amounts) {
        super(column);
        Field field = column.field();
        this.codes = LineValues.text(field);
        this.decimalMark = amounts.decimalMark();
        boolean coded = field == BankLines.ACCOUNT || field == BankLines.TAX_CODE || field == BankLines.PARTY;
        this.inRecord = field.type() == FieldType.CODE && !field.derived() && !coded;
    }

    @Override
    boolean liesInRecord(Document document) {
        return inRecord;
    }

    @Override
    void appendWhole(Document document, Object line, int index, CellBuffer out) {
        Object value = codes.of(document, line, index);
        if (value instanceof BigDecimal number) {
            String plain = number.toPlainString();
            out.append(decimalMark == '.' ? plain : plain.replace('.', decimalMark));
        } else if (value != null) {
            out.append((String) value);
        }
    }
}
