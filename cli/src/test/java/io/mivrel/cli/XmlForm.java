package io.mivrel.cli;

import io.mivrel.delivery.RowForm;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/** A form that the main code has never heard of: an element for each row and each cell. */
public final class XmlForm implements RowForm {
    @Override
    public String word() {
        return "xml of our own";
    }

    @Override
    public RowWriter writer(OutputStream out, Sheet sheet) throws IOException {
        out.write("<rows>\n".getBytes(StandardCharsets.UTF_8));
        return new RowWriter() {
            private final StringBuilder row = new StringBuilder();

            @Override
            public void cell(byte[] bytes, int from, int to) {
                String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
                row.append("<c>")
                        .append(text.replace("&", "&amp;").replace("<", "&lt;"))
                        .append("</c>");
            }

            @Override
            public void endRow() throws IOException {
                out.write(("<r>" + row + "</r>\n").getBytes(StandardCharsets.UTF_8));
                row.setLength(0);
            }

            @Override
            public void close() throws IOException {
                out.write("</rows>\n".getBytes(StandardCharsets.UTF_8));
                out.close();
            }
        };
    }

    @Override
    public RowSource reader(InputStream in, Sheet sheet) {
        BufferedReader lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8));
        Row row = new Row();
        return new RowSource() {
            private int number;

            @Override
            public Row next() throws IOException {
                String line = lines.readLine();
                while (line != null && !line.startsWith("<r>")) {
                    line = lines.readLine();
                }
                if (line == null) {
                    return null;
                }
                row.begin(++number);
                StringBuilder all = new StringBuilder();
                for (String cell : line.substring(6, line.length() - 8).split("</c><c>", -1)) {
                    all.append(cell.replace("&lt;", "<").replace("&amp;", "&")).append('\n');
                }
                byte[] bytes = all.toString().getBytes(StandardCharsets.UTF_8);
                row.over(bytes);
                int from = 0;
                for (int i = 0; i < bytes.length; i++) {
                    if (bytes[i] == '\n') {
                        row.add(from, i);
                        from = i + 1;
                    }
                }
                return row;
            }

            @Override
            public void close() throws IOException {
                lines.close();
            }
        };
    }
}
