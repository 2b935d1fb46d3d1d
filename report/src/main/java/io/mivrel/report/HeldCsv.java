package io.mivrel.report;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import io.mivrel.intake.Input;
import io.mivrel.rows.FileFormat;
import java.io.BufferedWriter;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;

/**
 * The held rows of a file as text, with what is wrong in added columns. Separator and encoding of separated text stay as
 * they are; rows of other files become comma-separated UTF-8, which every layout takes back.
 */
final class HeldCsv implements HeldFile.Sink, Closeable {
    private final CsvWriter csv;

    private HeldCsv(CsvWriter csv) {
        this.csv = csv;
    }

    /** Begins the file; the target must not exist. */
    static HeldCsv open(Input input, Path target) throws IOException {
        FileFormat form = input.layout().format();
        boolean keeps = HeldFile.keepsForm(input.layout());
        return new HeldCsv(CsvWriter.builder()
                .fieldSeparator(keeps ? form.separator() : ',')
                .lineDelimiter(LineDelimiter.CRLF)
                .build(writer(target, keeps ? form.encoding() : FileFormat.AUTO)));
    }

    @Override
    public void above(List<String> cells) {
        csv.writeRecord(cells);
    }

    @Override
    public void titles(List<String> titles) {
        List<String> all = new ArrayList<>(titles);
        all.addAll(HeldFile.added(titles));
        csv.writeRecord(all);
    }

    @Override
    public void row(HeldFile.HeldRow row) {
        csv.writeRecord(row.all());
    }

    @Override
    public void close() throws IOException {
        csv.close();
    }

    // A stream writer puts a question mark for what the encoding lacks: a reason may name a character that the source
    // could not hold. The cells themselves came from this encoding.
    private static Writer writer(Path target, String encoding) throws IOException {
        Charset charset = encoding.equals(FileFormat.AUTO) ? StandardCharsets.UTF_8 : Charset.forName(encoding);
        OutputStream out = Files.newOutputStream(target, StandardOpenOption.CREATE_NEW);
        return new BufferedWriter(new OutputStreamWriter(out, charset));
    }
}
