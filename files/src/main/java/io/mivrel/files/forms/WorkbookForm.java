package io.mivrel.files.forms;

import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.RowForm;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.model.FieldType;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.RowsOver;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;

/** A workbook (XLSX) with one sheet. Amounts and decimal numbers stand as numbers where a
 * spreadsheet program keeps all their digits, all else as the text that it is. */
final class WorkbookForm implements RowForm {
    private static final int MOST_ROWS = 1_048_576;
    /** Spreadsheet programs keep so many digits of a number and lose the rest without a word. */
    private static final int MOST_DIGITS = 15;

    @Override
    public String word() {
        return RowForms.WORKBOOK;
    }

    @Override
    public List<String> gaps(Sheet sheet) {
        List<String> gaps = new ArrayList<>();
        if (!sheet.format().name().endsWith(".xlsx")) {
            gaps.add("the 'name' of a workbook ends in .xlsx, not as '"
                    + sheet.format().name() + "'");
        }
        try {
            Class.forName("org.dhatim.fastexcel.Workbook", false, WorkbookForm.class.getClassLoader());
        } catch (ClassNotFoundException absent) {
            gaps.add("workbooks are written by a library that this program does not have:"
                    + " add io.mivrel:mivrel-extras to its class path");
        }
        return gaps;
    }

    @Override
    public RowWriter writer(OutputStream out, Sheet sheet) {
        return new Writer(out, sheet);
    }

    // The list of what is in a workbook stands at its end, so it is read when it is whole.
    @Override
    public RowSource reader(InputStream in, Sheet sheet) throws IOException {
        Path copy = Files.createTempFile("mivrel", ".xlsx");
        try (in) {
            Files.copy(in, copy, StandardCopyOption.REPLACE_EXISTING);
            return new Rows(Workbooks.open(copy, ""), copy, sheet.columns().size());
        } catch (IOException e) {
            Files.deleteIfExists(copy);
            throw e;
        }
    }

    private static final class Writer implements RowWriter {
        private final Workbook workbook;
        private final Worksheet worksheet;
        private final OutputStream out;
        private final List<DeliveryColumn> columns;
        private final int titleRows;
        private int row;
        private int place;

        Writer(OutputStream out, Sheet sheet) {
            this.out = out;
            this.columns = sheet.columns();
            this.titleRows = sheet.frame().above().size()
                    + (sheet.format().titles() ? 1 : 0)
                    + sheet.frame().under().size();
            this.workbook = new Workbook(out, "Mivrel", "1.0");
            this.worksheet = workbook.newWorksheet(tab(sheet));
        }

        @Override
        public void cell(byte[] bytes, int from, int to) {
            String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
            int at = place++;
            if (isNumber(columns.get(at)) && isExact(text)) {
                worksheet.value(row, at, new BigDecimal(text));
                int point = text.indexOf('.');
                int decimals = point < 0 ? 0 : text.length() - point - 1;
                worksheet
                        .style(row, at)
                        .format(decimals == 0 ? "0" : "0." + "0".repeat(decimals))
                        .set();
            } else if (columns.get(at).dateCell() && !text.isEmpty()) {
                // Of a pattern of days a workbook's form differs in its letters alone.
                String shown = Objects.requireNonNull(columns.get(at).date())
                        .pattern()
                        .replace('u', 'y')
                        .toLowerCase(Locale.ROOT);
                worksheet.value(row, at, LocalDate.parse(text));
                worksheet.style(row, at).format(shown).set();
            } else if (!text.isEmpty()) {
                worksheet.inlineString(row, at, text);
            }
        }

        private static boolean isExact(String text) {
            return text.matches("-?[0-9]+(\\.[0-9]+)?")
                    && text.chars().filter(Character::isDigit).count() <= MOST_DIGITS;
        }

        private static boolean isNumber(DeliveryColumn column) {
            return column.field() != null
                    && column.zeros() == 0
                    && (column.field().type() == FieldType.AMOUNT
                            || column.field().type() == FieldType.DECIMAL);
        }

        // A sum or count under a column of amounts is a number too.
        @Override
        public void texts(List<String> cells) throws IOException {
            for (String text : cells) {
                if (row >= titleRows && place < columns.size() && isNumber(columns.get(place)) && isExact(text)) {
                    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
                    cell(bytes, 0, bytes.length);
                } else {
                    if (!text.isEmpty()) {
                        worksheet.inlineString(row, place, text);
                    }
                    place++;
                }
            }
            endRow();
        }

        private static String tab(Sheet sheet) {
            return !sheet.format().tab().isEmpty()
                    ? sheet.format().tab()
                    : sheet.name().isEmpty() ? "Rows" : sheet.name();
        }

        @Override
        public void endRow() throws IOException {
            if (++row > MOST_ROWS) {
                throw new IOException("a sheet of a workbook has " + MOST_ROWS
                        + " rows at most: deliver in parts with 'rows at most'; nothing was delivered");
            }
            if (row % 1000 == 0) {
                worksheet.flush();
            }
            place = 0;
        }

        @Override
        public void close() throws IOException {
            workbook.finish();
            out.close();
        }
    }

    /** Rows whose blank cells at the end are there too. */
    private static final class Rows extends RowsOver {
        private final Path copy;
        private final int columns;

        Rows(RowSource rows, Path copy, int columns) {
            super(rows);
            this.copy = copy;
            this.columns = columns;
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            while (row != null && row.size() < columns) {
                row.add(0, 0);
            }
            return row;
        }

        @Override
        public void close() throws IOException {
            try {
                super.close();
            } finally {
                Files.deleteIfExists(copy);
            }
        }
    }
}
