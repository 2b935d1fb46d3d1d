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
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A column of amounts in the currency that another field of the line names, with the decimals of that. */
final class ForeignAmountRenderer extends ColumnRenderer {
    private final Field field;
    private final Field currency;
    private final AmountFormat amounts;
    private final Map<String, AmountFormat> formats = new HashMap<>();

    ForeignAmountRenderer(DeliveryColumn column, Field field, Field currency, AmountFormat amounts) {
        super(column, true);
        this.field = field;
        this.currency = currency;
        this.amounts = amounts;
    }

    @Override
    long write(Line line, CellBuffer scratch, RowWriter out) throws IOException {
        return write(line.number(field), line.text(currency), scratch, out);
    }

    @Override
    long write(DocumentBlock block, int document, int at, CellBuffer scratch, RowWriter out) throws IOException {
        return write(block.records().number(field, at), block.records().text(currency, at), scratch, out);
    }

    private long write(long value, @Nullable String code, CellBuffer scratch, RowWriter out) throws IOException {
        scratch.clear();
        if (value != SourceRecord.ABSENT && (value != 0 || !column.blankZero())) {
            long signed = column.sign().of(value);
            AmountRenderer.append(signed, format(Objects.requireNonNull(code)), column.zeros(), scratch);
        }
        out.cell(scratch.bytes(), 0, scratch.length());
        return Hash64.of(scratch.bytes(), 0, scratch.length());
    }

    private AmountFormat format(String named) {
        return formats.computeIfAbsent(named, code -> amounts.withDecimals(Money.decimals(Currency.getInstance(code))));
    }
}
