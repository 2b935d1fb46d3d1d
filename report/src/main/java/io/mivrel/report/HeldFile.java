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

    private final CsvWriter csv;
    private final FileFormat form;
    /** Columns of the source; a row with fewer is filled up, so that what is added stands under its titles. */
    private int width;

    private HeldFile(CsvWriter csv, FileFormat form, int width) {
        this.csv = csv;
        this.form = form;
        this.width = width;
    }

    // Of a file without titles: as many columns as the layout takes by number.
    private static int widthByPlaces(Layout layout) {
        return layout.fields().values().stream()
                .flatMap(source -> source.columns().stream())
                .filter(column -> column.startsWith("#"))
                .mapToInt(column -> Integer.parseInt(column.substring(1)))
                .max()
                .orElse(0);
    }

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
            HeldFile file = new HeldFile(csv, form, widthByPlaces(input.layout()));
            if (keeps) {
                file.heading(rows);
            }
            file.copy(rows, held, !keeps);
        } catch (UnreadableFileException damagedFromHereOn) {
            // What could be read stands in the file; the finding says the rest.
        }
    }

    // The lines above the titles stay, so that the layout still fits.
    private void heading(RowSource rows) throws IOException {
        for (long number = 0; number < form.titlesRow(); ) {
            Row heading = rows.next();
            if (heading == null) {
                return;
            }
            number = heading.number();
            if (number < form.titlesRow()) {
                csv.writeRecord(cells(heading));
            } else {
                titles(cells(heading));
            }
        }
    }

    private void titles(List<String> cells) {
        width = cells.size();
        List<String> titles = new ArrayList<>(cells);
        titles.addAll(ADDED);
        csv.writeRecord(titles);
    }

    private void copy(RowSource rows, HeldRows held, boolean untitled) throws IOException {
        boolean needsTitles = untitled;
        List<String> above = List.of();
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
            boolean named = needsTitles && source.aside() == null && rows.titles() == null;
            if (named && source.number() == form.titlesRow()) {
                titles(source.titlesBelow(above));
                needsTitles = false;
            } else if (named
                    && source.number() < form.titlesRow()
                    && source.number() > form.titlesRow() - form.titleRows()) {
                above = source.titlesBelow(above);
            } else if (source.ended() == null && source.aside() == null) {
                boolean repeats = last > 0 && source.number() == last;
                if (row < 0 && !repeats) {
                    return;
                }
                if (!repeats && source.number() < row) {
                    continue;
                }
                if (needsTitles) {
                    List<String> own = rows.titles();
                    titles(own == null ? places(source) : own);
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

    private List<String> withReasons(Row row, List<Finding> reasons) {
        List<String> all = cells(row);
        List<String> cells = new ArrayList<>(all.subList(0, width == 0 ? all.size() : Math.min(width, all.size())));
        while (cells.size() < width) {
            // A workbook does not keep the blank cells at the end of a row; elsewhere their want is what is wrong.
            cells.add(form.kind() == FileKind.SEPARATED ? Row.NO_CELL : "");
        }
        int surplus = cells.size();
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
        cells.addAll(all.subList(Math.min(surplus, all.size()), all.size()));
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
