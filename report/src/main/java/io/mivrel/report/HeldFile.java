package io.mivrel.report;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import io.mivrel.intake.Layout;
import io.mivrel.model.Finding;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
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
import java.util.stream.IntStream;

/**
 * Copies the held rows of a source file, with what is wrong in added columns, so that they can be corrected in a
 * spreadsheet and fed back under the same layout. Of separated text the lines above the titles, the separator and the
 * encoding stay as they are; rows of other files become comma-separated UTF-8, which every layout takes back.
 */
final class HeldFile {
    private static final List<String> ADDED = List.of("Mivrel row", "Mivrel problem", "Mivrel suggestion");

    private HeldFile() {}

    /** True when the rows go back in the form of the source, rather than as comma-separated UTF-8. */
    static boolean keepsForm(Layout layout) {
        return layout.format().kind() == FileKind.SEPARATED && layout.shapes().isEmpty();
    }

    /** Writes the file; the target must not exist. */
    static void write(Input input, HeldRows held, Path target) throws IOException {
        FileFormat form = input.layout().format();
        boolean keeps = keepsForm(input.layout());
        try (RowSource rows = input.opener().open();
                Writer chars = writer(target, keeps ? form.encoding() : FileFormat.AUTO);
                CsvWriter csv = CsvWriter.builder()
                        .fieldSeparator(keeps ? form.separator() : ',')
                        .lineDelimiter(LineDelimiter.CRLF)
                        .build(chars)) {
            if (keeps) {
                heading(rows, form.titlesRow(), csv);
            }
            copy(rows, held, csv, keeps ? 0 : form.titlesRow(), !keeps);
        } catch (UnreadableFileException damagedFromHereOn) {
            // What could be read stands in the file; the finding says the rest.
        }
    }

    // The lines above the titles stay, so that the layout still fits.
    private static void heading(RowSource rows, int titlesRow, CsvWriter csv) throws IOException {
        for (long number = 0; number < titlesRow; ) {
            Row heading = rows.next();
            if (heading == null) {
                return;
            }
            number = heading.number();
            if (number < titlesRow) {
                csv.writeRecord(cells(heading));
            } else {
                titles(cells(heading), csv);
            }
        }
    }

    private static void titles(List<String> cells, CsvWriter csv) {
        List<String> titles = new ArrayList<>(cells);
        titles.addAll(ADDED);
        csv.writeRecord(titles);
    }

    private static void copy(RowSource rows, HeldRows held, CsvWriter csv, int titlesRow, boolean untitled)
            throws IOException {
        boolean needsTitles = untitled;
        int row = held.rows().nextSetBit(1);
        long last = 0;
        // A row that was fanned out comes several times, and goes back as often.
        while (row >= 0 || untitled) {
            if (!untitled) {
                rows.skipTo(row);
            }
            Row source = rows.next();
            if (source == null) {
                return;
            }
            if (needsTitles && source.aside() == null && source.number() == titlesRow && rows.titles() == null) {
                titles(cells(source), csv);
                needsTitles = false;
            } else if (source.ended() == null && source.aside() == null) {
                boolean repeats = last > 0 && source.number() == last;
                if (row < 0 && !repeats) {
                    return;
                }
                if (!repeats && source.number() < row) {
                    continue;
                }
                if (needsTitles) {
                    titles(rows.titles() == null ? places(source) : rows.titles(), csv);
                    needsTitles = false;
                }
                csv.writeRecord(withReasons(source, held.reasons(source.number())));
                last = source.number();
                row = held.rows().nextSetBit((int) last + 1);
            }
        }
    }

    private static List<String> places(Row row) {
        return IntStream.rangeClosed(1, row.size()).mapToObj(Integer::toString).toList();
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
    private static Writer writer(Path target, String encoding) throws IOException {
        Charset charset = encoding.equals(FileFormat.AUTO) ? StandardCharsets.UTF_8 : Charset.forName(encoding);
        OutputStream out = Files.newOutputStream(target, StandardOpenOption.CREATE_NEW);
        return new BufferedWriter(new OutputStreamWriter(out, charset));
    }
}
