package io.mivrel.report;

import io.mivrel.corrections.CorrectedRows;
import io.mivrel.corrections.KeptTitles;
import io.mivrel.corrections.RowKey;
import io.mivrel.intake.Input;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.run.HeldRows;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Reads the held rows of a source file once more, with what is wrong in each, for the copies that people correct. Of separated
 * text the lines above the titles come first, as they stand.
 */
final class HeldFile {
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

    /** The same, and the titles of the source in their order: a copy comes back with its columns moved. */
    static List<String> added(List<String> own) {
        List<String> all = new ArrayList<>(ADDED);
        all.add(all.size() - 1, KeptTitles.of(own));
        return all;
    }

    private final String name;
    private final FileFormat form;
    private final List<Sink> sinks;
    private final RowKey keys = new RowKey();
    /** Columns of the source; a row with fewer is filled up, so that what is added stands under its titles. */
    private int width;

    /** Where the rows go. */
    interface Sink {
        /** A line above the titles. */
        void above(List<String> cells) throws IOException;

        /** The titles of the file itself. */
        void titles(List<String> titles) throws IOException;

        void row(HeldRow row) throws IOException;
    }

    /**
     * One held row.
     *
     * @param own its cells, as many as there are titles
     * @param all these, then what stands under the titles of {@link #added}, then cells that it has beyond its titles
     * @param reasons why it is held; empty when another row of its document is why
     */
    record HeldRow(List<String> own, List<String> all, List<Finding> reasons) {}

    private HeldFile(Input input, List<Sink> sinks) {
        this.name = input.name();
        this.form = input.layout().format();
        this.sinks = sinks;
        this.width = widthByPlaces(input.layout());
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

    /** Hands out the held rows in one reading; what could be read of a damaged file. */
    static void read(Input input, HeldRows held, List<Sink> sinks) throws IOException {
        boolean keeps = keepsForm(input.layout());
        try (CorrectedRows rows = CorrectedRows.of(input.opener().open())) {
            HeldFile file = new HeldFile(input, sinks);
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
                List<String> cells = RowKey.cells(heading);
                for (Sink sink : sinks) {
                    sink.above(cells);
                }
            } else {
                titles(RowKey.cells(heading));
            }
        }
    }

    private void titles(List<String> titles) throws IOException {
        width = titles.size();
        for (Sink sink : sinks) {
            sink.titles(titles);
        }
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
            boolean mayName = needsTitles && source.aside() == null && rows.titles() == null;
            if (mayName && isOfTitles(source)) {
                above = source.titlesBelow(above);
                if (source.number() == form.titlesRow()) {
                    titles(above);
                    needsTitles = false;
                }
                continue;
            }
            boolean repeats = last > 0 && source.number() == last;
            boolean isData = source.ended() == null && source.aside() == null;
            if (isData && row < 0 && !repeats) {
                return;
            }
            if (!isData || !repeats && source.number() < row) {
                continue;
            }
            if (needsTitles) {
                titles(ownTitles(rows, source));
                needsTitles = false;
            }
            HeldRow copied = row(source, rows, held.reasons(source.number()));
            for (Sink sink : sinks) {
                sink.row(copied);
            }
            last = source.number();
            row = held.rows().nextSetBit((int) last + 1);
        }
    }

    private boolean isOfTitles(Row row) {
        return row.number() <= form.titlesRow() && row.number() > form.titlesRow() - form.titleRows();
    }

    // Those of the format, else the places of the columns.
    private static List<String> ownTitles(RowSource rows, Row row) {
        List<String> own = rows.titles();
        return own != null
                ? own
                : IntStream.rangeClosed(1, row.size())
                        .mapToObj(Integer::toString)
                        .toList();
    }

    private HeldRow row(Row row, CorrectedRows rows, List<Finding> reasons) {
        List<String> all = RowKey.cells(row);
        String key = keys.of(all);
        if (rows.isCorrected() && !key.equals(rows.key())) {
            key = rows.key() + "/" + key;
        }
        List<String> own = new ArrayList<>(all.subList(0, width == 0 ? all.size() : Math.min(width, all.size())));
        while (own.size() < width) {
            // A workbook does not keep the blank cells at the end of a row; elsewhere their want is what is wrong.
            own.add(form.kind() == FileKind.SEPARATED ? Row.NO_CELL : "");
        }
        List<String> cells = new ArrayList<>(own);
        cells.addAll(
                List.of(Long.toString(row.number()), problem(reasons), suggestion(reasons), "", "", "", key, "", name));
        cells.addAll(all.subList(Math.min(own.size(), all.size()), all.size()));
        return new HeldRow(own, cells, reasons);
    }

    // Why a row is held, in words.
    private static String problem(List<Finding> reasons) {
        return reasons.isEmpty()
                ? "held with the other rows of its document"
                : reasons.stream().map(HeldFile::problem).distinct().collect(Collectors.joining("; "));
    }

    static String problem(Finding finding) {
        String field = finding.field().isEmpty() ? "" : finding.field() + ": ";
        return field + finding.reason();
    }

    // What could be done about it.
    private static String suggestion(List<Finding> reasons) {
        return reasons.stream()
                .map(Finding::suggestion)
                .filter(s -> !s.isEmpty())
                .distinct()
                .collect(Collectors.joining("; "));
    }
}
