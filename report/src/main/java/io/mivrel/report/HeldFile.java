package io.mivrel.report;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import io.mivrel.intake.Layout;
import io.mivrel.intake.Row;
import io.mivrel.intake.RowSource;
import io.mivrel.intake.TextForm;
import io.mivrel.model.Finding;
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
import java.util.stream.Collectors;

/**
 * Copies the held rows of a source file, with what is wrong in added columns, so that they can be corrected in a
 * spreadsheet and fed back under the same layout: the lines above the titles, the separator and the encoding stay as
 * they are.
 */
final class HeldFile {
    private static final List<String> ADDED = List.of("Mivrel row", "Mivrel problem", "Mivrel suggestion");

    private HeldFile() {}

    /** Writes the file; the target must not exist. */
    static void write(Input input, HeldRows held, Path target) throws IOException {
        Layout layout = input.layout();
        TextForm form = layout.form();
        try (RowSource rows = input.opener().open();
                Writer chars = writer(target, form);
                CsvWriter csv = CsvWriter.builder()
                        .fieldSeparator(form.separator())
                        .lineDelimiter(LineDelimiter.CRLF)
                        .build(chars)) {
            for (int row = 0; row < form.titlesRow(); row++) {
                Row heading = rows.next();
                if (heading == null) {
                    return;
                }
                List<String> cells = cells(heading);
                if (heading.number() == form.titlesRow()) {
                    cells.addAll(ADDED);
                }
                csv.writeRecord(cells);
                if (heading.number() >= form.titlesRow()) {
                    break;
                }
            }
            for (int row = held.rows().nextSetBit(1);
                    row >= 0;
                    row = held.rows().nextSetBit(row + 1)) {
                rows.skipTo(row);
                Row source = rows.next();
                if (source == null) {
                    return;
                }
                csv.writeRecord(withReasons(source, held.reasons(source.number())));
            }
        }
    }

    private static List<String> cells(Row row) {
        List<String> cells = new ArrayList<>(row.size() + ADDED.size());
        for (int i = 0; i < row.size(); i++) {
            cells.add(row.text(i));
        }
        return cells;
    }

    private static List<String> withReasons(Row row, List<Finding> reasons) {
        List<String> cells = cells(row);
        cells.add(Long.toString(row.number()));
        cells.add(
                reasons.isEmpty()
                        ? "held with the other rows of its document"
                        : reasons.stream().map(HeldFile::problem).distinct().collect(Collectors.joining("; ")));
        cells.add(reasons.stream()
                .map(Finding::suggestion)
                .filter(s -> !s.isEmpty())
                .distinct()
                .collect(Collectors.joining("; ")));
        return cells;
    }

    private static String problem(Finding finding) {
        String field = finding.field().isEmpty() ? "" : finding.field() + ": ";
        return field + finding.reason();
    }

    // A stream writer puts a question mark for what the encoding lacks: a reason may name a character that the source
    // could not hold. The cells themselves came from this encoding.
    private static Writer writer(Path target, TextForm form) throws IOException {
        Charset charset =
                form.encoding().equals(TextForm.AUTO) ? StandardCharsets.UTF_8 : Charset.forName(form.encoding());
        OutputStream out = Files.newOutputStream(target, StandardOpenOption.CREATE_NEW);
        return new BufferedWriter(new OutputStreamWriter(out, charset));
    }
}
