package io.mivrel.files.workbooks;

import io.mivrel.files.SafeXml;
import io.mivrel.intake.RowFault;
import io.mivrel.intake.RowSource;
import io.mivrel.intake.UnreadableFileException;
import io.mivrel.model.Rule;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;

/** Office Open XML workbooks (ECMA-376 part 1, SpreadsheetML), streamed row by row. */
final class XlsxWorkbook implements Workbooks.Workbook {
    private final Path file;

    XlsxWorkbook(Path file) {
        this.file = file;
    }

    @Override
    public List<String> sheets() throws IOException {
        try (ReadableWorkbook workbook = open()) {
            return workbook.getSheets().map(Sheet::getName).toList();
        }
    }

    @Override
    public RowSource rows(String wanted) throws IOException {
        ReadableWorkbook workbook = open();
        try {
            List<Sheet> sheets = workbook.getSheets().toList();
            int place = Workbooks.place(sheets.stream().map(Sheet::getName).toList(), wanted);
            return new Rows(workbook, sheets.get(place).openStream());
        } catch (IOException | RuntimeException e) {
            workbook.close();
            throw damaged(e);
        }
    }

    private ReadableWorkbook open() throws IOException {
        try {
            return new ReadableWorkbook(file.toFile(), new ReadingOptions(true, true));
        } catch (IOException | RuntimeException e) {
            throw damaged(e);
        }
    }

    // The reader tells a damaged workbook by exceptions of many kinds.
    private static UnreadableFileException damaged(Exception e) {
        if (e instanceof UnreadableFileException known) {
            return known;
        }
        Throwable cause = e.getCause() instanceof javax.xml.stream.XMLStreamException ? e.getCause() : e;
        return cause instanceof javax.xml.stream.XMLStreamException xml
                ? SafeXml.refused(xml, "the workbook")
                : new UnreadableFileException(
                        Rule.FILE_DAMAGED,
                        0,
                        "the workbook cannot be read: "
                                + (e.getMessage() == null
                                        ? e.getClass().getSimpleName()
                                        : e.getMessage().lines().findFirst().orElse("")),
                        Rule.FILE_DAMAGED.remedy());
    }

    private static final class Rows implements RowSource {
        private final ReadableWorkbook workbook;
        private final Stream<Row> stream;
        private final Iterator<Row> rows;
        private final boolean from1904;
        private final io.mivrel.intake.Row row = new io.mivrel.intake.Row();
        private final List<String> cells = new ArrayList<>();
        private final Map<String, Boolean> dateFormats = new HashMap<>();
        private RowFault fault;

        Rows(ReadableWorkbook workbook, Stream<Row> stream) {
            this.workbook = workbook;
            this.stream = stream;
            this.rows = stream.iterator();
            this.from1904 = workbook.isDate1904();
        }

        @Override
        public io.mivrel.intake.Row next() throws IOException {
            try {
                if (!rows.hasNext()) {
                    return null;
                }
                fill(rows.next());
                return row;
            } catch (RuntimeException e) {
                throw damaged(e);
            }
        }

        private void fill(Row found) {
            cells.clear();
            fault = null;
            int count = found.getCellCount();
            if (count > Workbooks.MOST_CELLS) {
                fault = RowFault.TOO_LONG;
                count = 0;
            }
            int last = -1;
            for (int i = 0; i < count; i++) {
                Cell cell = found.getCell(i);
                String text = cell == null ? "" : text(cell);
                cells.add(text);
                last = text.isEmpty() ? last : i;
            }
            // Cells that only have a format say nothing.
            cells.subList(last + 1, cells.size()).clear();
            row.fill(found.getRowNum(), cells);
            row.fault(fault);
        }

        private String text(Cell cell) {
            String raw = cell.getRawValue();
            if (raw == null) {
                if (cell.getType() == CellType.FORMULA || cell.getFormula() != null) {
                    fault = RowFault.FORMULA_UNVALUED;
                    return "=" + cell.getFormula();
                }
                return "";
            }
            boolean numeric = cell.getType() == CellType.NUMBER
                    || cell.getType() == CellType.FORMULA && !(cell.getValue() instanceof String);
            if (!numeric) {
                return cell.getType() == CellType.BOOLEAN
                        ? raw.equals("1") ? "TRUE" : raw.equals("0") ? "FALSE" : raw
                        : cell.getType() == CellType.ERROR ? raw : String.valueOf(cell.getText());
            }
            String format = cell.getDataFormatString();
            boolean date = format != null && dateFormats.computeIfAbsent(format, CellText::isDate);
            return date ? CellText.date(raw, from1904) : CellText.number(raw);
        }

        @Override
        public void close() throws IOException {
            stream.close();
            workbook.close();
        }
    }
}
