package io.mivrel;

import static io.mivrel.kinds.JournalLines.*;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The three kinds of workbooks give the same records, and a hostile one is refused in bounded memory. */
public class WorkbooksTest {
    private static final String LAYOUT = """
            layout: Sheet
            gives: journal lines
            file: {kind: workbook, sheet: Lines, titles: row 3, until: Total}
            fields:
              reference: {column: ref}
              date:      {column: day, pattern: dd/MM/uuuu}
              account:   {column: account}
              narrative: {column: text}
              amount:    {column: amount}
            """;

    private static byte[] xlsx() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(out, "test", "1.0")) {
            book.newWorksheet("Notes").value(0, 0, "nothing here");
            Worksheet sheet = book.newWorksheet("Lines");
            sheet.value(0, 0, "Larkmoor");
            String[] titles = {"ref", "day", "account", "text", "amount"};
            for (int i = 0; i < titles.length; i++) {
                sheet.value(2, i, titles[i]);
            }
            sheet.value(3, 0, 7);
            sheet.value(3, 1, LocalDate.of(2027, 3, 2));
            sheet.style(3, 1).format("dd/mm/yyyy").set();
            sheet.value(3, 2, 5010);
            sheet.value(3, 3, "tin & lead");
            sheet.value(3, 4, 0.1 + 0.2);
            sheet.value(4, 0, "7");
            sheet.value(4, 1, "02/03/2027");
            sheet.value(4, 2, "1200");
            sheet.value(4, 4, -0.3);
            sheet.value(6, 0, "Total");
        }
        return out.toByteArray();
    }

    private static byte[] xls() throws IOException {
        try (HSSFWorkbook book = new HSSFWorkbook()) {
            book.createSheet("Notes").createRow(0).createCell(0).setCellValue("nothing here");
            var sheet = book.createSheet("Lines");
            sheet.createRow(0).createCell(0).setCellValue("Larkmoor");
            String[] titles = {"ref", "day", "account", "text", "amount"};
            Row heading = sheet.createRow(2);
            for (int i = 0; i < titles.length; i++) {
                heading.createCell(i).setCellValue(titles[i]);
            }
            CellStyle date = book.createCellStyle();
            date.setDataFormat(book.createDataFormat().getFormat("dd/mm/yyyy"));
            Row first = sheet.createRow(3);
            first.createCell(0).setCellValue(7);
            first.createCell(1).setCellValue(LocalDate.of(2027, 3, 2));
            first.getCell(1).setCellStyle(date);
            first.createCell(2).setCellValue(5010);
            first.createCell(3).setCellValue("tin & lead");
            first.createCell(4).setCellFormula("0.1+0.2");
            Row second = sheet.createRow(4);
            second.createCell(0).setCellValue("7");
            second.createCell(1).setCellValue("02/03/2027");
            second.createCell(2).setCellFormula("\"12\"&\"00\"");
            second.createCell(4).setCellValue(-0.3);
            sheet.createRow(6).createCell(0).setCellValue("Total");
            book.getCreationHelper().createFormulaEvaluator().evaluateAll();
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            book.write(out);
            return out.toByteArray();
        }
    }

    private static byte[] zip(String... namesAndTexts) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < namesAndTexts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndTexts[i]));
                zip.write(namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        }
        return out.toByteArray();
    }

    private static String ods(String rows) {
        return "<?xml version=\"1.0\"?><office:document-content xmlns:office=\"o\" xmlns:table=\"t\" xmlns:text=\"x\">"
                + "<office:body><office:spreadsheet><table:table table:name=\"Notes\"><table:table-row><table:table-cell>"
                + "<text:p>nothing</text:p></table:table-cell></table:table-row></table:table>"
                + "<table:table table:name=\"Lines\">" + rows + "</table:table></office:spreadsheet></office:body>"
                + "</office:document-content>";
    }

    private static String cell(String type, String value, String text) {
        String attribute = type.equals("date") ? "date-value" : "value";
        return type.equals("string")
                ? "<table:table-cell office:value-type=\"string\"><text:p>" + text + "</text:p></table:table-cell>"
                : "<table:table-cell office:value-type=\"" + type + "\" office:" + attribute + "=\"" + value
                        + "\"><text:p>" + text + "</text:p></table:table-cell>";
    }

    private static String row(String... cells) {
        return "<table:table-row>" + String.join("", cells) + "</table:table-row>";
    }

    /** An ODS workbook with the sheets Notes and Lines, the latter with one row. */
    static byte[] sheet(String cells) {
        try {
            return zip("content.xml", ods(row(cells)));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private static String text(String text) {
        return cell("string", "", text);
    }

    private static byte[] ods() throws IOException {
        String blank = "<table:table-cell table:number-columns-repeated=\"1020\"/>";
        return zip(
                "mimetype",
                "application/vnd.oasis.opendocument.spreadsheet",
                "content.xml",
                ods(row(text("Larkmoor"))
                        + "<table:table-row/>"
                        + row(text("ref"), text("day"), text("account"), text("text"), text("amount"))
                        + row(
                                cell("float", "7", "7"),
                                cell("date", "2027-03-02T00:00:00", "2 March"),
                                cell("float", "5010", "5010"),
                                text("tin &amp; lead<text:s text:c=\"1\"/>"),
                                cell("currency", "0.30000000000000004", "0,30"),
                                blank)
                        + row(
                                text("7"),
                                text("02/03/2027"),
                                text("1200"),
                                "<table:table-cell/>",
                                cell("float", "-0.3", "x"))
                        + "<table:table-row table:number-rows-repeated=\"1048000\">" + blank + "</table:table-row>"
                        + row(text("Total"))));
    }

    @DataProvider
    public static Object[][] kinds() throws IOException {
        return new Object[][] {{"a.xlsx", xlsx()}, {"a.xls", xls()}, {"a.ods", ods()}};
    }

    @Test(dataProvider = "kinds")
    public void everyKindGivesTheSameRecords(String file, byte[] bytes) throws Exception {
        Workshop workshop = new Workshop().takes("journal", file, LAYOUT).put(file, bytes);
        Reading read = Reading.of(workshop, "journal", REFERENCE, DATE, ACCOUNT, NARRATIVE, AMOUNT);
        assertThat(read.records())
                .isEqualTo(List.of("7 | 2027-03-02 | 5010 | tin & lead | 30", "7 | 2027-03-02 | 1200 |  | -30"));
        assertThat(read.findings()).isEmpty();
        assertThat(read.tally().leftOut().toString()).contains("BELOW_DATA=1").contains("ABOVE_TITLES=1");
        assertThat(workshop.run("journal").report().clear().documents()).isEqualTo(1);
    }

    @Test(dataProvider = "kinds")
    public void heldRowsGoBackAsTextAndAreTakenBack(String file, byte[] bytes) throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", file, LAYOUT)
                .put(file, bytes)
                .replace("books/chart.csv", "5010,Tin,expense,,", "5010,Tin,expense,,closed");
        Outcome held = workshop.run("journal");
        assertThat(held.report().held().rows()).isEqualTo(2);
        String back = java.nio.file.Files.readString(held.held().get(0));
        assertThat(held.held().get(0).getFileName()).hasToString(file + ".csv");
        assertThat(back).contains("Tin is closed");
        workshop.put("fixed.csv", back.replace("5010,tin", "5020,tin")).replace("journal.yaml", file, "fixed.csv");
        Outcome cleared = workshop.run("journal");
        assertThat(cleared.report().clear().rows()).isEqualTo(2);
        assertThat(cleared.report().clear().totals().debit()).isEqualTo(30);
    }

    @Test(dataProvider = "kinds")
    public void aSheetThatIsNotThereIsNamed(String file, byte[] bytes) throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", file, LAYOUT.replace("Lines", "Pay"))
                .put(file, bytes);
        Reading read = Reading.of(workshop, "journal");
        assertThat(read.rules()).containsExactly("sheet-missing");
        assertThat(read.findings().get(0).reason()).contains("'Pay'").contains("Notes, Lines");
        workshop.replace("journal-layout.yaml", "sheet: Pay", "sheet: 2");
        assertThat(Reading.of(workshop, "journal").records()).hasSize(2);
    }

    @Test(dataProvider = "kinds")
    public void cutAndChangedWorkbooksAreRefusedOrReadNeverFail(String file, byte[] bytes) throws Exception {
        Workshop workshop = new Workshop().takes("journal", file, LAYOUT);
        java.util.Random random = new java.util.Random(3);
        for (int i = 0; i < 150; i++) {
            byte[] changed = i % 3 == 0 ? java.util.Arrays.copyOf(bytes, random.nextInt(bytes.length)) : bytes.clone();
            for (int n = 0; i % 3 > 0 && n < 3; n++) {
                changed[random.nextInt(changed.length)] = (byte) random.nextInt(256);
            }
            workshop.put(file, changed);
            Reading read = Reading.of(workshop, "journal", REFERENCE);
            assertThat(read.records().size() >= 2 || !read.findings().isEmpty()).isTrue();
        }
    }

    @DataProvider
    public static Object[][] hostile() throws IOException {
        String bomb = "<!DOCTYPE a [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\">]>";
        String external = "<!DOCTYPE a [<!ENTITY a SYSTEM \"file:///etc/hostname\">]>";
        return new Object[][] {
            {
                "entities",
                zip(
                        "content.xml",
                        "<?xml version=\"1.0\"?>" + bomb + ods(row(text("&b;"))).substring(21)),
                "type"
            },
            {
                "external",
                zip(
                        "content.xml",
                        "<?xml version=\"1.0\"?>" + external
                                + ods(row(text("&a;"))).substring(21)),
                "type"
            },
            {"deep", zip("content.xml", ods(row("<a>".repeat(100_000)))), "limit"},
            {"inflated", zip("content.xml", ods("<a/>".repeat(4_000_000))), "500 times"},
            {"one text", zip("content.xml", ods(row(text("x" + "yz".repeat(600_000))))), "1 MB"},
            {"rows", zip("content.xml", ods("<table:table-row table:number-rows-repeated=\"99999999\"/>")), "1048576"},
            {"no workbook", zip("readme.txt", "hello"), "no workbook"},
            {"empty archive", zip(), "no workbook"},
        };
    }

    @Test(dataProvider = "hostile")
    public void aHostileWorkbookIsRefusedWithItsReason(String name, byte[] bytes, String says) throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", "a.ods", LAYOUT.replace("sheet: Lines", "sheet: 2"))
                .put("a.ods", bytes);
        Outcome outcome = workshop.run("journal");
        assertThat(outcome.status()).isEqualTo(1);
        assertThat(Workshop.told(outcome).get(0).reason()).contains(says);
        assertThat(outcome.report().clear().rows()).isZero();
    }

    @Test
    public void aFormulaWithoutItsValueIsHeld() throws Exception {
        String sheet = ods(row(text("ref"), "<table:table-cell table:formula=\"of:=[.A1]\"/>"));
        Workshop workshop = new Workshop()
                .takes(
                        "journal",
                        "a.ods",
                        LAYOUT.replace("titles: row 3, until: Total", "titles: none")
                                .replace("column: ref", "column: 1")
                                .replace("column: day", "column: 1")
                                .replace("column: account", "column: 1")
                                .replace("column: text", "column: 1")
                                .replace("column: amount", "column: 2"))
                .put("a.ods", zip("content.xml", sheet));
        assertThat(Reading.of(workshop, "journal").rules()).containsExactly("formula-unvalued");
    }
}
