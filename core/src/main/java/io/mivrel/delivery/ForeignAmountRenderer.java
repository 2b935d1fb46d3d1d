package io.mivrel.delivery;

import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.util.Currency;
import java.util.HashMap;
import java.util.Map;

/** A column of amounts in the currency that another field of the line names, with the decimals of that. */
final class ForeignAmountRenderer extends ColumnRenderer {
    private final AmountFormat amounts;
    private final Map<String, AmountFormat> formats = new HashMap<>();

    ForeignAmountRenderer(DeliveryColumn column, AmountFormat amounts) {
        super(column, true);
        this.amounts = amounts;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        Field field = column.field();
        return write(line.number(field), line.text(field.currency()), scratch, out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        Field field = column.field();
        return write(block.records().number(field, at), block.records().text(field.currency(), at), scratch, out);
    }

    private long write(long value, String currency, CellBuffer scratch, RowWriter out) throws IOException {
        scratch.clear();
        if (value != SourceRecord.ABSENT && (value != 0 || !column.blankZero())) {
            format(currency).append(column.minus() ? -value : value, scratch);
        }
        out.cell(scratch.bytes(), 0, scratch.length());
        return Hash64.of(scratch.bytes(), 0, scratch.length());
    }

    private AmountFormat format(String currency) {
        return formats.computeIfAbsent(
                currency, code -> amounts.withDecimals(Money.decimals(Currency.getInstance(code))));
    }
}
