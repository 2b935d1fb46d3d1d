package io.mivrel.files.forms;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.RowForm;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.files.lines.SeparatedWriter;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/** Separated text (RFC 4180, with separators, encodings and line ends of the receiver's). */
final class SeparatedForm implements RowForm {
    @Override
    public String word() {
        return DeliveryFormat.SEPARATED;
    }

    @Override
    public RowWriter writer(OutputStream out, Sheet sheet) throws IOException {
        return new SeparatedWriter(out, sheet.format());
    }

    @Override
    public RowSource reader(InputStream in, Sheet sheet) throws IOException {
        return new SeparatedRows(in, sheet.format().separator(), sheet.format().encoding());
    }
}
