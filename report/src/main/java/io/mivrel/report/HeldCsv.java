package io.mivrel.report;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import io.mivrel.rows.FileFormat;
import io.mivrel.run.HeldRows;
import io.mivrel.run.Input;
import java.io.BufferedWriter;
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
final class HeldCsv implements HeldFile.Sink {
    /** Titles of what is added: what is wrong, what a person decides, and what the row is known by. */
    static final List<String> ADDED = List.of(
            "Mivrel row",
            "Mivrel problem",
            "Mivrel suggestion",
            "Mivrel decision",
            "Mivrel who",
            "Mivrel why",
            "Mivrel key",
            "Mivrel file");

    private final CsvWriter csv;
    private final String file;

    private HeldCsv(CsvWriter csv, String file) {
        this.csv = csv;
        this.file = file;
    }

    /** Writes the file; the target must not exist. */
    static void write(Input input, HeldRows held, Path target) throws IOException {
        FileFormat form = input.layout().format();
        boolean keeps = HeldFile.keepsForm(input.layout());
        try (Writer chars = writer(target, keeps ? form.encoding() : FileFormat.AUTO);
                CsvWriter csv = CsvWriter.builder()
                        .fieldSeparator(keeps ? form.separator() : ',')
                        .lineDelimiter(LineDelimiter.CRLF)
                        .build(chars)) {
            HeldFile.read(input, held, new HeldCsv(csv, input.name()));
        }
    }

    @Override
    public void above(List<String> cells) {
        csv.writeRecord(cells);
    }

    @Override
    public void titles(List<String> titles) {
        List<String> all = new ArrayList<>(titles);
        all.addAll(ADDED);
        csv.writeRecord(all);
    }

    @Override
    public void row(HeldFile.HeldRow row) {
        List<String> cells = new ArrayList<>(row.cells());
        cells.addAll(row.added(file));
        cells.addAll(row.surplus());
        csv.writeRecord(cells);
    }

    // A stream writer puts a question mark for what the encoding lacks: a reason may name a character that the source
    // could not hold. The cells themselves came from this encoding.
    private static Writer writer(Path target, String encoding) throws IOException {
        Charset charset = encoding.equals(FileFormat.AUTO) ? StandardCharsets.UTF_8 : Charset.forName(encoding);
        OutputStream out = Files.newOutputStream(target, StandardOpenOption.CREATE_NEW);
        return new BufferedWriter(new OutputStreamWriter(out, charset));
    }
}
