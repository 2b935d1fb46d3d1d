package io.mivrel.delivery;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.RecordBlock;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** A column of codes or of decimal numbers. */
final class CodeRenderer extends WordRenderer {
    private static final int RECENT = 256;
    private static final int MOST_BYTES = 1 << 16;
    private final LineValues.Text codes;
    private final char decimalMark;
    private final boolean inRecord;
    /** Bytes of the last strings, by their hash: the same few codes come again and again. */
    private final String[] recent = new String[RECENT];

    private final byte[][] recentBytes = new byte[RECENT][];
    private final long[] recentHash = new long[RECENT];
    /** The accounts of the bank lines, one behind the other, for cells to lie in; where each of the last strings does. */
    private final CellBuffer accounts = new CellBuffer();

    private final int[] recentStart = new int[RECENT];
    private final boolean isAccountOfBank;

    CodeRenderer(DeliveryColumn column, AmountFormat amounts) {
        super(column);
        Field field = column.field();
        this.codes = LineValues.text(field);
        this.decimalMark = amounts.decimalMark();
        boolean coded = field == BankLines.ACCOUNT || field == BankLines.TAX_CODE || field == BankLines.PARTY;
        this.isAccountOfBank = field == BankLines.ACCOUNT && !limited;
        this.inRecord = field.type() == FieldType.CODE && !field.derived() && !coded;
    }

    @Override
    boolean liesInRecord(Coding coding) {
        return inRecord;
    }

    @Override
    void appendWhole(Document document, Object line, int index, CellBuffer out) {
        Object value = codes.of(document, line, index);
        if (value instanceof BigDecimal number) {
            String plain = number.toPlainString();
            out.append(decimalMark == '.' ? plain : plain.replace('.', decimalMark));
        } else if (value != null) {
            byte[] bytes = bytes((String) value);
            out.append(bytes, 0, bytes.length);
        }
    }

    private byte[] bytes(String code) {
        return recentBytes[place(code)];
    }

    private int place(String code) {
        int place = code.hashCode() & RECENT - 1;
        if (code != recent[place] && !code.equals(recent[place])) {
            recent[place] = code;
            recentBytes[place] = code.getBytes(StandardCharsets.UTF_8);
            recentHash[place] = Hash64.of(recentBytes[place], 0, recentBytes[place].length);
            if (isAccountOfBank) {
                recentStart[place] = accounts.length();
                accounts.append(recentBytes[place], 0, recentBytes[place].length);
            }
        }
        return place;
    }

    @Override
    int reach(AsRead lines, int from, int to) {
        if (!isAccountOfBank) {
            return super.reach(lines, from, to);
        }
        int i = from;
        while (i < to && lines.coding(i).account() != null) {
            i++;
        }
        return i;
    }

    @Override
    void render(AsRead lines, int from, int to, CellColumn out) {
        if (!isAccountOfBank) {
            super.render(lines, from, to, out);
            return;
        }
        if (accounts.length() > MOST_BYTES) {
            accounts.clear();
            Arrays.fill(recent, null);
        }
        for (int i = from; i < to; i++) {
            int place = place(lines.coding(i).account());
            int start = recentStart[place];
            out.lies(accounts.bytes(), start, start + recentBytes[place].length, recentHash[place]);
        }
    }

    // The account of a coded bank line, without limits: as it stands in the coding table.
    @Override
    long writeAsRead(Document document, RecordBlock batch, int at, int index, CellBuffer scratch, RowWriter out)
            throws IOException {
        if (!isAccountOfBank
                || !(document instanceof BankTransaction line)
                || line.coding().account() == null) {
            return super.writeAsRead(document, batch, at, index, scratch, out);
        }
        int place = place(line.coding().account());
        out.cell(recentBytes[place], 0, recentBytes[place].length);
        return recentHash[place];
    }
}
