package io.mivrel.files.forms;

import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.RowForm;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.bytes.TextLines;
import io.mivrel.files.lines.FixedRows;
import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** Text in columns of fixed width, which blanks fill. Places count characters. */
final class FixedForm implements RowForm {
    @Override
    public String word() {
        return RowForms.FIXED;
    }

    @Override
    public List<String> gaps(Sheet sheet) {
        List<String> gaps = new ArrayList<>();
        for (DeliveryColumn column : sheet.columns()) {
            if (column.width() == 0) {
                gaps.add("the column '" + column.title() + "' needs 'width', its places in fixed-width text");
            } else if (sheet.format().titles()
                    && column.title().codePointCount(0, column.title().length()) > column.width()) {
                gaps.add("the title '" + column.title() + "' is longer than its 'width' of " + column.width());
            }
        }
        int all = sheet.columns().stream().mapToInt(DeliveryColumn::width).sum();
        Stream.of(sheet.frame().above(), sheet.frame().under(), sheet.frame().last())
                .flatMap(List::stream)
                .filter(row -> row.size() > 1 && row.size() != sheet.columns().size())
                .forEach(row -> gaps.add("the row " + row + " is to be one text, or to have "
                        + sheet.columns().size() + " like the columns, whose places it has; they are " + all
                        + " wide"));
        return gaps;
    }

    @Override
    public RowWriter writer(OutputStream out, Sheet sheet) throws IOException {
        return new Writer(out, sheet);
    }

    @Override
    public RowSource reader(InputStream in, Sheet sheet) throws IOException {
        List<Slice> slices = new ArrayList<>();
        int from = 1;
        for (DeliveryColumn column : sheet.columns()) {
            slices.add(new Slice(column.title(), from, from + column.width() - 1));
            from += column.width();
        }
        return FixedRows.columnsOnly(TextLines.of(in, sheet.format().encoding()), slices);
    }

    private static final class Writer implements RowWriter {
        private final OutputStream out;
        private final Sheet sheet;
        private final CharsetEncoder encoder;
        private final StringBuilder line = new StringBuilder();
        private int place;

        Writer(OutputStream out, Sheet sheet) {
            this.out = out;
            this.sheet = sheet;
            this.encoder = Charset.forName(sheet.format().encoding())
                    .newEncoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT);
            line.append(sheet.format().byteOrderMark() ? "\uFEFF" : "");
        }

        @Override
        public void cell(byte[] bytes, int from, int to) throws IOException {
            String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
            DeliveryColumn column = sheet.columns().get(place++);
            int length = text.codePointCount(0, text.length());
            if (length > column.width()) {
                throw new IOException("the column '" + column.title() + "' is " + column.width() + " wide, and '" + text
                        + "' has " + length + " characters; nothing was delivered");
            }
            if (text.chars().anyMatch(c -> c < ' ')) {
                throw new IOException("the column '" + column.title()
                        + "' holds a line break or tab, which fixed-width text cannot have: '"
                        + text.replaceAll("\\p{Cntrl}", " ") + "'; nothing was delivered");
            }
            String filler = " ".repeat(column.width() - length);
            line.append(column.right() ? filler : "").append(text).append(column.right() ? "" : filler);
        }

        @Override
        public void line(String text) throws IOException {
            line.append(text);
            endRow();
        }

        @Override
        public void endRow() throws IOException {
            line.append(sheet.format().lineEnd());
            try {
                var encoded = encoder.encode(CharBuffer.wrap(line));
                out.write(encoded.array(), encoded.arrayOffset(), encoded.remaining());
            } catch (CharacterCodingException e) {
                throw new IOException(
                        sheet.format().encoding() + " cannot write the row '"
                                + line.toString().strip() + "'",
                        e);
            }
            line.setLength(0);
            place = 0;
        }

        @Override
        public void close() throws IOException {
            out.close();
        }
    }
}
