package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.LayoutReader;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.kinds.JournalLines;
import io.mivrel.report.SummaryText;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowOrder;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipFile;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The same journals in each form that a delivered file may have, read back by what reads source files. */
public class FormsTest {
    private static final String COLUMNS = """
            columns:
              Reference: {field: reference, width: 12, leading zeros: 8}
              Date:      {field: date, pattern: uuuu-MM-dd, width: 10}
              Account:   {field: account, width: 10, align: right}
              Text:      {field: narrative, width: 8}
              Amount:    {field: amount, width: 14, align: right, leading zeros: 10}
              Source:    {constant: M, width: 6}
            """;

    /** The same without places, which only fixed width has. */
    private static final String NARROW =
            COLUMNS.replaceAll(", width: \\d+|, align: right", "").replace("narrative", "narrative, at most: 8");

    private static Path delivered(String file, String journal) throws Exception {
        return delivered(file, journal, COLUMNS);
    }

    private static Path delivered(String file, String journal, String columns) throws Exception {
        Workshop workshop = new Workshop()
                .put("own.yaml", "delivery: Own\ntakes: journals\nfile: " + file + "\n" + columns)
                .sheet("journal", "", "own.yaml")
                .journal(journal);
        assertThat(workshop.run("journal").summary(SummaryText.Style.PLAIN)).contains("read back: matches");
        return only(workshop);
    }

    private static Path only(Workshop workshop) {
        return workshop.folder.resolve("out").resolve(workshop.names("out").get(0));
    }

    private static final String JOURNAL = "1201,15/03/2027,5010,a long text,1234.50,,,\n"
            + "1201,15/03/2027,1200,tin,,1234.50,,\nJ-2,16/03/2027,5020,ö,,(0.07),,\nJ-2,16/03/2027,1200,,(0.07),,,\n";

    @Test
    public void fixedWidthIsFilledAndCut() throws Exception {
        assertThat(delivered("{kind: fixed width, line ends: LF}", JOURNAL))
                .content(StandardCharsets.UTF_8)
                .isEqualTo("""
                Reference   Date         AccountText            AmountSource
                00001201    2027-03-15      5010a long t    0001234.50M    \s
                00001201    2027-03-15      1200tin         -001234.50M    \s
                J-2         2027-03-16      5020ö           0000000.07M    \s
                J-2         2027-03-16      1200            -000000.07M    \s
                """);
    }

    private static List<String> cells(RowSource source) throws IOException {
        List<String> rows = new ArrayList<>();
        try (source) {
            for (Row row = source.next(); row != null; row = source.next()) {
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < row.size(); i++) {
                    cells.add(row.trimmed(i));
                }
                rows.add(String.join("\t", cells));
            }
        }
        return rows;
    }

    @Test
    public void aWorkbookHasNumbers() throws Exception {
        List<String> rows = cells(Workbooks.open(delivered("{kind: workbook}", JOURNAL, NARROW), ""));
        // A text that looks like a formula is a text there, and nobody is warned of it.
        Workshop formula = new Workshop()
                .put("own.yaml", "delivery: Own\ntakes: journals\nfile: {kind: workbook}\n" + NARROW)
                .sheet("journal", "", "own.yaml")
                .put("journal.csv", Workshop.JOURNAL_TITLES + JOURNAL.replace("tin", "=tin"));
        assertThat(formula.run("journal").findings())
                .extracting(finding -> finding.rule().id())
                .doesNotContain("text-formula");
        assertThat(rows)
                .startsWith(
                        "Reference\tDate\tAccount\tText\tAmount\tSource",
                        "00001201\t2027-03-15\t5010\ta long t\t0001234.50\tM")
                .hasSize(5);
    }

    @Test
    public void whatFixedWidthCannotHoldIsSaidBeforehandOrDeliversNothing() throws Exception {
        Workshop workshop = new Workshop()
                .put(
                        "own.yaml",
                        "delivery: Own\ntakes: journals\nfile: {kind: fixed width}\n"
                                + "columns: {A: {field: account}, Long title: {field: amount, width: 3}}\n")
                .sheet("journal", "", "own.yaml")
                .put("journal.csv", Workshop.JOURNAL_TITLES + JOURNAL);
        assertThatThrownBy(() -> workshop.run("journal"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("'A' needs 'width'")
                .hasMessageContaining("'Long title' is longer than its 'width' of 3");
        workshop.put(
                "own.yaml",
                "delivery: Own\ntakes: journals\nfile: {kind: fixed width, titles: no}\n"
                        + "columns: {A: {field: account, width: 4}, B: {field: amount, width: 3}}\n");
        assertThatThrownBy(() -> workshop.run("journal"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining(
                        "the column 'B' is 3 wide, and '1234.50' has 7 characters; nothing was delivered");
        assertThat(workshop.folder.resolve("out")).isEmptyDirectory();
    }

    @Test
    public void aNumberThatASpreadsheetWouldRoundIsAText() throws Exception {
        String row = ",INV,CUS-001,15/03/2027,,bell,";
        Path file = delivered(
                "invoice",
                "{kind: workbook}",
                "takes: invoices",
                "Qty: {field: quantity}|Net: {field: net}",
                "",
                "1" + row + "123.567890123456,1.00,123.57,STD,24.71,4000,\n2" + row
                        + "1234.567890123456,1.00,1234.57,STD,246.91,4000,\n");
        try (ZipFile zip = new ZipFile(file.toFile())) {
            String sheet = new String(
                    zip.getInputStream(zip.getEntry("xl/worksheets/sheet1.xml")).readAllBytes(),
                    StandardCharsets.UTF_8);
            assertThat(sheet)
                    .contains("<v>123.567890123456</v>", "<t>1234.567890123456</t>", "<v>1234.57</v>")
                    .doesNotContain("<v>1234.567890123456</v>");
        }
    }

    @DataProvider
    public Object[][] texts() {
        return new Object[][] {
            {"{kind: fixed width, byte order mark: yes, titles: no}", "UTF-8"},
            {"{kind: fixed width, encoding: UTF-16LE, byte order mark: yes}", "UTF-16LE"},
            {"{kind: fixed width, encoding: windows-1252, line ends: LF}", "windows-1252"},
            {"{kind: fixed width, titles: no, rows at most: 2, name: \"{part}.txt\"}", "UTF-8"}
        };
    }

    @Test(dataProvider = "texts")
    public void fixedWidthIsProvedInEachEncoding(String form, String encoding) throws Exception {
        assertThat(Files.readString(delivered(form, JOURNAL), Charset.forName(encoding)))
                .contains("0001234.50");
    }

    /** Kinds of documents with columns of every type, and rows with what forms might stumble on. */
    @DataProvider
    public Object[][] kinds() {
        return new Object[][] {
            {
                "bank",
                "takes: bank transactions",
                "Date: {field: date, pattern: dd.MM.uuuu}|Text: {field: narrative}|In: {field: money in}|Out: {field: money out}",
                "Mon 01/03/2027,tin | \"\" 12,,10.00,90.00\nMon 01/03/2027,\"'0012, x; y\",0.01,,90.01\nTue 02/03/2027,ÄÖ€ ß,5.00,,95.01\n"
            },
            {
                "invoice",
                "takes: invoices",
                "Number: {field: number}|Kind: {field: kind}|Date: {field: date, pattern: uuuu-MM-dd}|Qty: {field: quantity}"
                        + "|Price: {field: price}|Net: {field: net}|Tax: {field: tax}",
                "007,INV,CUS-001,15/03/2027,,bell,3,1.3333,4.00,STD,0.80,4000,\n1E5,CRN,CUS-001,15/03/2027,,bell,1,0.10,0.10,STD,0.02,4000,\n"
            },
            {
                "journal",
                "takes: journals",
                "Ref: {field: reference}|Date: {field: date, pattern: d MMMM uuuu, language: de}|Account: {field: account}"
                        + "|Text: {field: narrative}|Debit: {field: debit}|Credit: {field: credit}",
                "1/2,15/03/2027,5010,-5,1234.50,,,\n1/2,15/03/2027,1200,TRUE,,1234.50,,\n"
            }
        };
    }

    @Test(dataProvider = "kinds")
    public void eachFormHoldsTheSameCells(String kind, String takes, String columns, String rows) throws Exception {
        Path separated = delivered(kind, "{kind: separated}", takes, columns, "", rows);
        List<String> wanted = cells(SourceFiles.open(separated, "s", FileFormat.csv()));
        assertThat(wanted).hasSizeGreaterThan(2);
        Path workbook = delivered(kind, "{kind: workbook}", takes, columns, "", rows);
        assertThat(full(cells(Workbooks.open(workbook, "")))).isEqualTo(full(wanted));
        Path fixed = delivered(kind, "{kind: fixed width}", takes, columns, ", width: 20", rows);
        List<Slice> slices = new ArrayList<>();
        for (int i = 0; i < columns.split("\\|").length; i++) {
            slices.add(new Slice("c" + i, 20 * i + 1, 20 * i + 20));
        }
        FileFormat form =
                new FileFormat(FileKind.FIXED_WIDTH, ',', "UTF-8", "", slices, 0, 1, 1, "", RowOrder.OLDEST_FIRST);
        // The whole line is the last cell.
        assertThat(cells(SourceFiles.open(fixed, "f", form)))
                .map(row -> row.substring(0, row.lastIndexOf('\t')))
                .isEqualTo(wanted);
    }

    // A sheet of a workbook ends with the last cell that is filled, and 5.00 is the number 5 in it.
    private static List<String> full(List<String> rows) {
        return rows.stream()
                .map(row -> row.replaceAll("(?<=\t)(-?[0-9]+)(\\.[0-9]*?)0+(?=\t|$)", "$1$2")
                        .replaceAll("\\.(?=\t|$)", ""))
                .map(row -> row.replaceAll("\t+$", ""))
                .toList();
    }

    private static Path delivered(String kind, String file, String takes, String columns, String places, String rows)
            throws Exception {
        String block = columns.replaceAll("\\}(\\||$)", places + "}$1").replace("|", "\n  ");
        Workshop workshop = new Workshop()
                .put("own.yaml", "delivery: Own\n" + takes + "\nfile: " + file + "\ncolumns:\n  " + block + "\n")
                .sheet(kind, kind.equals("bank") ? "coding: {table: coding.csv, uncoded: 2900}\n" : "", "own.yaml");
        workshop = switch (kind) {
            case "bank" -> workshop.bank(rows);
            case "invoice" -> workshop.invoice(rows);
            default -> workshop.journal(rows);
        };
        Outcome outcome = workshop.run(kind);
        assertThat(outcome.summary(SummaryText.Style.PLAIN))
                .contains("read back: matches")
                .doesNotContain("held rows");
        return only(workshop);
    }

    @Test
    public void aFormIsChosenInCodeToo() throws Exception {
        Workshop workshop = new Workshop().journal(JOURNAL);
        Mivrel run = Mivrel.named("own", BooksFolder.read(workshop.folder.resolve("books")))
                .takeIn(
                        workshop.folder.resolve("journal.csv"),
                        LayoutReader.read(workshop.folder.resolve("journal-layout.yaml")))
                .keepIn(workshop.folder);
        DeliveryFormat format = DeliveryFormat.csv("own.txt").withoutTitles().of("fixed width");
        run.deliver(inCode(format, 4), workshop.folder.resolve("out")).run();
        assertThat(workshop.delivered()).startsWith("5010 0001234.50\r\n1200 -001234.50\r\n");
        Mivrel narrow = Mivrel.named("narrow", BooksFolder.read(workshop.folder.resolve("books")))
                .takeIn(
                        workshop.folder.resolve("journal.csv"),
                        LayoutReader.read(workshop.folder.resolve("journal-layout.yaml")));
        assertThat(narrow.deliver(inCode(format, 3), workshop.folder.resolve("two"))
                        .run()
                        .findings())
                .extracting(finding -> finding.rule().id())
                .contains("code-too-long");
        assertThatThrownBy(() -> narrow.deliver(inCode(format.of("stone"), 4), workshop.folder.resolve("three"))
                        .run())
                .hasMessageContaining("there is no form 'stone'; there are separated, fixed width, workbook");
    }

    private static Delivery inCode(DeliveryFormat format, int places) {
        return Delivery.named("Own", JournalLines.KIND)
                .format(format)
                .column(DeliveryColumn.of("A", JournalLines.ACCOUNT).wide(places, false))
                .column(DeliveryColumn.of("B", JournalLines.AMOUNT).zeros(10).wide(11, true))
                .build();
    }
}
