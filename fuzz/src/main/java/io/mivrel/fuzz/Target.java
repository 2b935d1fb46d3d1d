package io.mivrel.fuzz;

import io.mivrel.FileSurvey;
import io.mivrel.files.SourceFiles;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.layout.StatementColumns;
import io.mivrel.model.Finding;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Currency;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * One reader with a layout. Whatever the bytes are, reading ends, every row is accounted for, and nothing but an
 * {@link IOException} with words for people may come of it.
 */
public enum Target {
    SEPARATED(FileFormat.csv()),
    FIXED(FileFormat.fixedWidth(
            FileFormat.AUTO,
            new FileFormat.Slice("ref", 1, 4),
            new FileFormat.Slice("day", 6, 15),
            new FileFormat.Slice("account", 17, 20),
            new FileFormat.Slice("amount", 22, 30))),
    XLSX(FileFormat.workbook("", 1)),
    XLS(FileFormat.workbook("", 1)),
    ODS(FileFormat.workbook("", 1)),
    OFX(FileFormat.statement(FileKind.OFX)),
    CAMT(FileFormat.statement(FileKind.CAMT_053)),
    MT940(FileFormat.statement(FileKind.MT940)),
    QIF(FileFormat.statement(FileKind.QIF)),
    SURVEY(FileFormat.csv());

    private final Layout layout;

    Target(FileFormat form) {
        layout = form.kind().isStatement() ? statement(form) : journal(form);
    }

    private static Layout statement(FileFormat form) {
        Layout.Builder layout =
                Layout.named("fuzz", BankLines.KIND).account("1200").format(form);
        layout.numbers(
                form.kind() == FileKind.QIF ? new AmountFormat(2, '.', ',', true, true, "£") : AmountFormat.plain(2));
        StatementColumns.fields(form.kind()).forEach(layout::field);
        return layout.field(BankLines.DATE, FieldSource.date(StatementColumns.DATE, "uuuu-MM-dd"))
                .build();
    }

    private static Layout journal(FileFormat form) {
        return Layout.named("fuzz", JournalLines.KIND)
                .format(form)
                .numbers(new AmountFormat(2, '.', ',', true, true, "£", "DR", "CR"))
                .field(JournalLines.REFERENCE, "ref")
                .field(JournalLines.DATE, FieldSource.date("day", "dd/MM/uuuu"))
                .field(JournalLines.ACCOUNT, "account")
                .field(JournalLines.AMOUNT, "amount")
                .build();
    }

    /** Reads the bytes; throws whatever must never be thrown. */
    public void read(byte[] bytes) {
        try {
            Path file = Files.createTempFile("fuzz", ".bin");
            try {
                Files.write(file, packed(bytes));
                if (this == SURVEY) {
                    FileSurvey survey = FileSurvey.of(file);
                    survey.text();
                    survey.layout();
                    survey.preview(3);
                } else {
                    read(file);
                }
            } finally {
                Files.delete(file);
            }
        } catch (IOException e) {
            if (e.getMessage() == null || e.getMessage().isBlank()) {
                throw new UncheckedIOException("no words for people", e);
            }
        }
    }

    // The archive around a workbook would keep a fuzzer from ever reaching the sheet.
    private byte[] packed(byte[] bytes) throws IOException {
        if (this == ODS) {
            return zip("content.xml", bytes);
        }
        if (this != XLSX) {
            return bytes;
        }
        String types = "application/vnd.openxmlformats-officedocument.spreadsheetml.";
        String relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        return zip(
                "[Content_Types].xml",
                text("<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\">"
                        + "<Override PartName=\"/xl/workbook.xml\" ContentType=\"" + types + "sheet.main+xml\"/>"
                        + "<Override PartName=\"/xl/sharedStrings.xml\" ContentType=\"" + types
                        + "sharedStrings+xml\"/>"
                        + "<Override PartName=\"/xl/styles.xml\" ContentType=\"" + types + "styles+xml\"/></Types>"),
                "xl/workbook.xml",
                text("<workbook xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" xmlns:r=\""
                        + relations + "\"><sheets><sheet name=\"A\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>"),
                "xl/_rels/workbook.xml.rels",
                text(
                        "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship "
                                + "Id=\"r1\" Type=\"" + relations
                                + "/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>"),
                "xl/styles.xml",
                text("<styleSheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><cellXfs>"
                        + "<xf numFmtId=\"0\"/><xf numFmtId=\"14\"/></cellXfs></styleSheet>"),
                "xl/sharedStrings.xml",
                text(
                        "<sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><si><t>ref</t></si><si><t>day"
                                + "</t></si><si><t>account</t></si><si><t>amount</t></si></sst>"),
                "xl/worksheets/sheet1.xml",
                bytes);
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] zip(Object... namesAndParts) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < namesAndParts.length; i += 2) {
                zip.putNextEntry(new ZipEntry((String) namesAndParts[i]));
                zip.write((byte[]) namesAndParts[i + 1]);
            }
        }
        return out.toByteArray();
    }

    private void read(Path file) throws IOException {
        StringBuilder told = new StringBuilder();
        try (RowSource rows = SourceFiles.open(file, "fuzz", layout)) {
            read(rows, told);
        }
        if (this == SEPARATED) {
            // Plain rows are read by column, many at a time; one by one they must come to the same.
            StringBuilder oneByOne = new StringBuilder();
            try (RowSource rows = SourceFiles.open(file, "fuzz", layout)) {
                read(new OneByOne(rows), oneByOne);
            }
            if (!told.toString().contentEquals(oneByOne)) {
                throw new IllegalStateException("by column: " + told + "\none by one: " + oneByOne);
            }
        }
    }

    private void read(RowSource rows, StringBuilder told) throws IOException {
        Intake intake = new Intake(layout, SourceFile.of("fuzz", Currency.getInstance("GBP")), rows);
        boolean more = true;
        long records = 0;
        while (more) {
            IntakeBlock block = intake.newBlock();
            more = intake.fill(block);
            records += block.records().size();
            if (this == SEPARATED) {
                tell(block, told);
            }
        }
        IntakeTally tally = intake.tally();
        long leftOut =
                tally.leftOut().values().stream().mapToLong(Long::longValue).sum();
        if (tally.rows() != records + leftOut + tally.unreadable() || records != tally.records()) {
            throw new IllegalStateException("rows are not accounted for");
        }
        told.append(tally.leftOut()).append(tally.totals()).append(tally.firstDate());
    }

    private static void tell(IntakeBlock block, StringBuilder told) {
        for (int i = 0; i < block.records().size(); i++) {
            SourceRecord record = block.records().get(i);
            told.append(record.row())
                    .append(record.isValid())
                    .append(record.text(JournalLines.REFERENCE))
                    .append(record.number(JournalLines.DATE))
                    .append(record.text(JournalLines.ACCOUNT))
                    .append(record.number(JournalLines.AMOUNT))
                    .append('\n');
        }
        block.findings().forEach(finding -> told.append(finding).append('\n'));
    }

    /** Rows that are never handed out in blocks. */
    private record OneByOne(RowSource rows) implements RowSource {
        @Override
        public Row next() throws IOException {
            return rows.next();
        }

        @Override
        public List<String> titles() {
            return rows.titles();
        }

        @Override
        public List<Finding> remarks() {
            return rows.remarks();
        }

        @Override
        public void close() throws IOException {
            rows.close();
        }
    }
}
