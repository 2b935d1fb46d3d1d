package io.mivrel.report;

import io.mivrel.corrections.CorrectedRows;
import io.mivrel.corrections.RowKey;
import io.mivrel.intake.Layout;
import io.mivrel.model.Finding;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.run.HeldRows;
import io.mivrel.run.Input;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Reads the held rows of a source file once more, with what is wrong in each, for a copy that people correct. Of separated
 * text the lines above the titles come first, as they stand.
 */
final class HeldFile {
    private final FileFormat form;
    private final Sink sink;
    private final RowKey keys = new RowKey();
    /** Columns of the source; a row with fewer is filled up, so that what is added stands under its titles. */
    private int width;

    /** Where the rows go. */
    interface Sink {
        /** A line above the titles. */
        void above(List<String> cells) throws IOException;

        void titles(List<String> titles) throws IOException;

        void row(HeldRow row) throws IOException;
    }

    /**
     * One held row.
     *
     * @param number where it begins in its file
     * @param key by which it is known again
     * @param cells as many as there are titles
     * @param surplus cells behind these
     * @param reasons why it is held; empty when another row of its document is why
     */
    record HeldRow(long number, String key, List<String> cells, List<String> surplus, List<Finding> reasons) {
        /** What stands under the titles of {@link HeldCsv#ADDED}; nothing is decided yet. */
        List<String> added(String file) {
            return List.of(Long.toString(number), problem(this), suggestion(this), "", "", "", key, file);
        }
    }

    private HeldFile(FileFormat form, Sink sink, int width) {
        this.form = form;
        this.sink = sink;
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

    /** Hands out the held rows; what could be read of a damaged file. */
    static void read(Input input, HeldRows held, Sink sink) throws IOException {
        FileFormat form = input.layout().format();
        boolean keeps = keepsForm(input.layout());
        try (CorrectedRows rows = CorrectedRows.of(input.opener().open())) {
            HeldFile file = new HeldFile(form, sink, widthByPlaces(input.layout()));
            if (keeps) {
                file.heading(rows);
            }
            file.copy(rows, held, !keeps);
        } catch (UnreadableFileException damagedFromHereOn) {
            // What could be read was handed out; the finding says the rest.
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
                sink.above(RowKey.cells(heading));
            } else {
                titles(RowKey.cells(heading));
            }
        }
    }

    private void titles(List<String> titles) throws IOException {
        width = titles.size();
        sink.titles(titles);
    }

    private void copy(CorrectedRows rows, HeldRows held, boolean untitled) throws IOException {
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
                sink.row(row(source, rows.key(), held.reasons(source.number())));
                last = source.number();
                row = held.rows().nextSetBit((int) last + 1);
            }
        }
    }

    private static List<String> places(Row row) {
        return IntStream.rangeClosed(1, row.size()).mapToObj(Integer::toString).toList();
    }

    private HeldRow row(Row row, String original, List<Finding> reasons) {
        List<String> all = RowKey.cells(row);
        String shown = keys.of(all);
        List<String> cells = new ArrayList<>(all.subList(0, width == 0 ? all.size() : Math.min(width, all.size())));
        while (cells.size() < width) {
            // A workbook does not keep the blank cells at the end of a row; elsewhere their want is what is wrong.
            cells.add(form.kind() == FileKind.SEPARATED ? Row.NO_CELL : "");
        }
        return new HeldRow(
                row.number(),
                shown.equals(original) ? original : original + "/" + shown,
                cells,
                all.subList(Math.min(cells.size(), all.size()), all.size()),
                reasons);
    }

    /** Why a row is held, in words. */
    static String problem(HeldRow row) {
        return row.reasons().isEmpty()
                ? "held with the other rows of its document"
                : row.reasons().stream().map(HeldFile::problem).distinct().collect(Collectors.joining("; "));
    }

    static String problem(Finding finding) {
        String field = finding.field().isEmpty() ? "" : finding.field() + ": ";
        return field + finding.reason();
    }

    /** What could be done about it. */
    static String suggestion(HeldRow row) {
        return row.reasons().stream()
                .map(Finding::suggestion)
                .filter(s -> !s.isEmpty())
                .distinct()
                .collect(Collectors.joining("; "));
    }
}
