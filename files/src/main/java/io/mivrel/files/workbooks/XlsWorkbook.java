package io.mivrel.files.workbooks;

import io.mivrel.model.Rule;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.apache.poi.hssf.record.BOFRecord;
import org.apache.poi.hssf.record.BoolErrRecord;
import org.apache.poi.hssf.record.BoundSheetRecord;
import org.apache.poi.hssf.record.CellValueRecordInterface;
import org.apache.poi.hssf.record.DateWindow1904Record;
import org.apache.poi.hssf.record.EOFRecord;
import org.apache.poi.hssf.record.ExtendedFormatRecord;
import org.apache.poi.hssf.record.FormatRecord;
import org.apache.poi.hssf.record.FormulaRecord;
import org.apache.poi.hssf.record.LabelRecord;
import org.apache.poi.hssf.record.LabelSSTRecord;
import org.apache.poi.hssf.record.NumberRecord;
import org.apache.poi.hssf.record.RKRecord;
import org.apache.poi.hssf.record.Record;
import org.apache.poi.hssf.record.RecordFactoryInputStream;
import org.apache.poi.hssf.record.SSTRecord;
import org.apache.poi.hssf.record.StringRecord;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.BuiltinFormats;
import org.apache.poi.ss.usermodel.FormulaError;
import org.jspecify.annotations.Nullable;

/** Workbooks of the older binary format (BIFF8), read record by record. */
final class XlsWorkbook implements Workbooks.Workbook {
    private static final int MOST_COLUMNS = 256;

    private final Path file;

    XlsWorkbook(Path file) {
        this.file = file;
    }

    @Override
    public List<String> sheets() throws IOException {
        try (Rows rows = new Rows(file)) {
            return rows.names();
        }
    }

    @Override
    public Set<String> hidden() throws IOException {
        try (Rows rows = new Rows(file)) {
            return rows.hidden;
        }
    }

    @Override
    public RowSource rows(String wanted) throws IOException {
        Rows rows = new Rows(file);
        try {
            rows.goTo(Workbooks.place(rows.names(), wanted));
            return rows;
        } catch (IOException e) {
            rows.close();
            throw e;
        }
    }

    private static UnreadableFileException damaged(Throwable e) {
        return e instanceof UnreadableFileException known
                ? known
                : new UnreadableFileException(
                        Rule.FILE_DAMAGED,
                        0,
                        "the workbook cannot be read: "
                                + (e.getMessage() == null
                                        ? e.getClass().getSimpleName()
                                        : e.getMessage().lines().findFirst().orElse("")),
                        "open it in a spreadsheet program and save it as XLSX");
    }

    private static final class Rows implements RowSource {
        private final POIFSFileSystem container;
        private final InputStream stream;
        private final RecordFactoryInputStream records;
        private final List<String> names = new ArrayList<>();
        private final Set<String> hidden = new HashSet<>();
        private final Map<Integer, String> formats = new HashMap<>();
        private final List<Integer> formatOfStyle = new ArrayList<>();
        private final List<BoundSheetRecord> bound = new ArrayList<>();
        private @Nullable SSTRecord texts;
        private boolean from1904;
        private @Nullable Record ahead;
        private final Row row = new Row();
        private final Cells cells = new Cells();
        private int last = -1;

        Rows(Path file) throws IOException {
            POIFSFileSystem opened = null;
            try {
                opened = new POIFSFileSystem(file.toFile(), true);
                String entry = opened.getRoot().hasEntry("Workbook") ? "Workbook" : "Book";
                if (!opened.getRoot().hasEntry(entry)) {
                    throw new UnreadableFileException(
                            Rule.FILE_KIND_DIFFERS,
                            0,
                            "the file is not a workbook, or is locked by a password",
                            "save it again without a password");
                }
                container = opened;
                stream = opened.createDocumentInputStream(entry);
                records = new RecordFactoryInputStream(stream, false);
                readGlobals();
            } catch (IOException | RuntimeException e) {
                if (opened != null) {
                    opened.close();
                }
                throw damaged(e);
            }
        }

        private Record read() throws IOException {
            try {
                return records.nextRecord();
            } catch (RuntimeException e) {
                throw damaged(e);
            }
        }

        private void readGlobals() throws IOException {
            for (Record record = read(); record != null; record = read()) {
                if (record instanceof BoundSheetRecord sheet) {
                    bound.add(sheet);
                } else if (record instanceof SSTRecord shared) {
                    texts = shared;
                } else if (record instanceof FormatRecord format) {
                    formats.put(format.getIndexCode(), format.getFormatString());
                } else if (record instanceof ExtendedFormatRecord style) {
                    formatOfStyle.add((int) style.getFormatIndex());
                } else if (record instanceof DateWindow1904Record window) {
                    from1904 = window.getWindowing() == 1;
                } else if (record instanceof EOFRecord) {
                    break;
                }
            }
            // Sheets follow in the order of their places in the stream.
            for (BoundSheetRecord sheet : BoundSheetRecord.orderByBofPosition(bound)) {
                names.add(sheet.getSheetname());
                if (sheet.isHidden() || sheet.isVeryHidden()) {
                    hidden.add(sheet.getSheetname());
                }
            }
        }

        List<String> names() {
            return names;
        }

        void goTo(int place) throws IOException {
            int found = -1;
            int depth = 0;
            for (Record record = read(); record != null; record = read()) {
                if (record instanceof BOFRecord begin) {
                    // A chart within a sheet begins and ends like a sheet.
                    if (depth++ == 0 && ++found == place) {
                        if (begin.getType() != BOFRecord.TYPE_WORKSHEET) {
                            throw new UnreadableFileException(
                                    Rule.SHEET_MISSING, 0, "the sheet '" + names.get(place) + "' holds no cells", "");
                        }
                        ahead = read();
                        return;
                    }
                } else if (record instanceof EOFRecord) {
                    depth--;
                }
            }
            throw damaged(new IOException("the sheet '" + names.get(place) + "' is cut off"));
        }

        @Override
        public @Nullable Row next() throws IOException {
            cells.clear();
            int current = -1;
            int depth = 0;
            while (ahead != null) {
                if (ahead instanceof BOFRecord) {
                    depth++;
                } else if (ahead instanceof EOFRecord && depth-- == 0) {
                    ahead = null;
                    break;
                } else if (depth == 0 && ahead instanceof CellValueRecordInterface cell) {
                    if (current >= 0 && cell.getRow() != current) {
                        break;
                    }
                    if (cell.getRow() < 0 || cell.getColumn() < 0 || cell.getColumn() >= MOST_COLUMNS) {
                        throw damaged(new IOException("a cell stands beyond the last row or column"));
                    }
                    current = cell.getRow();
                    String text = text(cell);
                    boolean number = cell instanceof NumberRecord
                            || cell instanceof RKRecord
                            || cell instanceof FormulaRecord formula && !formula.hasCachedResultString();
                    if (number) {
                        cells.putPlain(cell.getColumn(), text);
                    } else {
                        cells.put(cell.getColumn(), text);
                    }
                }
                ahead = read();
                if (ahead == null) {
                    throw damaged(new IOException("the sheet is cut off after row " + (Math.max(current, last) + 1)));
                }
            }
            if (current < 0) {
                return null;
            }
            if (current <= last) {
                throw damaged(new IOException("row " + (current + 1) + " stands below row " + (last + 1)));
            }
            last = current;
            cells.fill(row, current + 1L);
            return row;
        }

        private String text(CellValueRecordInterface cell) throws IOException {
            try {
                if (cell instanceof LabelSSTRecord label) {
                    return texts == null
                            ? ""
                            : texts.getString(label.getSSTIndex()).getString();
                }
                if (cell instanceof NumberRecord number) {
                    return number(number.getValue(), cell.getXFIndex());
                }
                if (cell instanceof RKRecord number) {
                    return number(number.getRKNumber(), cell.getXFIndex());
                }
                if (cell instanceof FormulaRecord formula) {
                    return formula(formula);
                }
                if (cell instanceof BoolErrRecord flag) {
                    return flag.isBoolean()
                            ? flag.getBooleanValue() ? "TRUE" : "FALSE"
                            : FormulaError.isValidCode(flag.getErrorValue())
                                    ? FormulaError.forInt(flag.getErrorValue()).getString()
                                    : "#ERROR";
                }
                if (cell instanceof LabelRecord label) {
                    return label.getValue();
                }
                return "";
            } catch (RuntimeException e) {
                throw damaged(e);
            }
        }

        private String formula(FormulaRecord formula) throws IOException {
            if (formula.hasCachedResultString()) {
                // The text stands in a record of its own that follows, perhaps after what formulas share.
                for (int i = 0; i < 3; i++) {
                    Record next = read();
                    if (next instanceof StringRecord text) {
                        return text.getString();
                    }
                    if (next == null || next instanceof CellValueRecordInterface || next instanceof EOFRecord) {
                        throw damaged(new IOException("a formula lacks its text"));
                    }
                }
                throw damaged(new IOException("a formula lacks its text"));
            }
            return switch (formula.getCachedResultTypeEnum()) {
                case NUMERIC -> number(formula.getValue(), formula.getXFIndex());
                case BOOLEAN -> formula.getCachedBooleanValue() ? "TRUE" : "FALSE";
                case ERROR -> FormulaError.forInt(formula.getCachedErrorValue()).getString();
                default -> "";
            };
        }

        // The file keeps binary fractions; their shortest decimal text is where exactness begins.
        private String number(double value, int style) {
            if (Double.isNaN(value) || Double.isInfinite(value)) {
                return "#NUM!";
            }
            String raw = BigDecimal.valueOf(value).toString();
            int format = style >= 0 && style < formatOfStyle.size() ? formatOfStyle.get(style) : 0;
            String words = formats.getOrDefault(
                    format,
                    format < BuiltinFormats.getAll().length ? BuiltinFormats.getBuiltinFormat(format) : "General");
            return CellText.isDate(words) ? CellText.date(raw, from1904) : CellText.number(raw);
        }

        @Override
        public void close() throws IOException {
            stream.close();
            container.close();
        }
    }
}
