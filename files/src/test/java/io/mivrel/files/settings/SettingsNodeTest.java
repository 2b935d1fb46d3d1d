package io.mivrel.files.settings;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.coding.CodingEntry;
import io.mivrel.coding.CodingTable;
import io.mivrel.coding.Direction;
import io.mivrel.delivery.AmountSign;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Sheet;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.Credits;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.layout.Signs;
import io.mivrel.model.Posting;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.Link;
import io.mivrel.shape.Tags;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Settings files say what the forms in the documentation say, and nothing is assumed that was not asked. */
public class SettingsNodeTest {
    private Path folder;
    private Problems problems;

    @BeforeMethod
    public void newFolder() throws IOException {
        folder = Files.createTempDirectory("mivrel forms");
        problems = new Problems();
    }

    private Path write(String name, String text) {
        try {
            Files.createDirectories(folder.resolve(name).getParent());
            return Files.writeString(folder.resolve(name), text);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private List<String> said() {
        try {
            problems.throwIfAny();
            return List.of();
        } catch (SettingsException e) {
            return e.problems().stream().map(SettingsProblem::toString).toList();
        }
    }

    @Test
    public void aLayoutIsReadWhole() {
        Layout layout = LayoutFile.read(write("layout.yaml", """
                        # a comment
                        layout: Everything
                        gives: invoice lines
                        credits: negative
                        file:
                          kind: separated
                          separator: tab
                          encoding: latin1
                          titles: row 12
                          until: "--- end"
                        numbers: {decimal: ",", thousands: " ", negative: any, currency mark: "€"}
                        fields:
                          number:    {columns: [Series, No], between: "/"}
                          kind:      {column: Kind, values: {R: invoice, G: credit note}}
                          party:     {column: 7, if blank: CASH}
                          date:      {column: Day, pattern: dd.MM.uu, century from: 1980}
                          account:   {constant: 4000}
                          net:       {column: Net}
                        unused: [Remark, "Page no."]
                        """), "layout.yaml", problems);
        assertThat(said()).isEmpty();
        assertThat(layout.name()).isEqualTo("Everything");
        assertThat(layout.gives()).isSameAs(InvoiceLines.KIND);
        assertThat(layout.credits()).isEqualTo(Credits.NEGATIVE);
        assertThat(layout.format())
                .isEqualTo(FileFormat.separated('\t', "ISO-8859-1").titlesIn(12).endingAt("--- end"));
        assertThat(layout.numbers().decimalMark()).isEqualTo(',');
        assertThat(layout.numbers().thousandsMark()).isEqualTo(' ');
        assertThat(layout.numbers().brackets()).isTrue();
        assertThat(layout.numbers().trailingMinus()).isTrue();
        assertThat(layout.numbers().currencyMark()).isEqualTo("€");
        assertThat(layout.unused()).containsExactly("Remark", "Page no.");
        FieldSource number = layout.fields().get(InvoiceLines.NUMBER);
        assertThat(number.columns()).containsExactly("Series", "No");
        assertThat(number.between()).isEqualTo("/");
        assertThat(layout.fields().get(InvoiceLines.DOCUMENT_KIND).values())
                .isEqualTo(Map.of("R", "invoice", "G", "credit note"));
        assertThat(layout.fields().get(InvoiceLines.PARTY).columns()).containsExactly("#7");
        assertThat(layout.fields().get(InvoiceLines.PARTY).ifBlank()).isEqualTo("CASH");
        assertThat(layout.fields().get(InvoiceLines.ACCOUNT).constant()).isEqualTo("4000");
    }

    private Layout layout(String text) {
        return LayoutFile.read(write("layout.yaml", "layout: L\n" + text), "layout.yaml", problems);
    }

    private static final String JOURNAL_FIELDS = """
            fields:
              reference: {column: r}
              date:      {column: d}
              account:   {column: a, take: "([0-9]+)", values: {4: "4000"}}
              amount:    {column: m, side: {column: s, plus: [D, DR], minus: C}}
            """;

    @Test
    public void everyKindOfFileHasItsForm() {
        Layout statement = layout("gives: bank lines\naccount: 1200\nfile: {kind: camt.053, statements of: GB1 2}\n");
        assertThat(said()).isEmpty();
        assertThat(statement.format().kind()).isEqualTo(FileKind.CAMT_053);
        assertThat(statement.format().part()).isEqualTo("GB1 2");
        assertThat(statement.fields()).containsKeys(BankLines.DATE, BankLines.AMOUNT, BankLines.BANK_REFERENCE);
        assertThat(statement.numbers().thousandsMark())
                .as("written in one way only")
                .isEqualTo((char) 0);

        Layout workbook =
                layout("gives: journal lines\nfile: {kind: workbook, sheet: 2, titles: rows 3-4, until: Total}\n"
                        + JOURNAL_FIELDS);
        assertThat(said()).isEmpty();
        assertThat(workbook.format().part()).isEqualTo("#2");
        assertThat(workbook.format().titlesRow()).isEqualTo(4);
        assertThat(workbook.format().titleRows()).isEqualTo(2);
        assertThat(workbook.fields().get(JournalLines.DATE).date().pattern()).isEqualTo("uuuu-MM-dd");
        FieldSource amount = workbook.fields().get(JournalLines.AMOUNT);
        assertThat(amount.side().plus()).containsExactly("D", "DR");
        assertThat(workbook.fields().get(JournalLines.ACCOUNT).extract().pattern())
                .isEqualTo("([0-9]+)");

        Layout fixed = layout(
                "gives: journal lines\nfile: {kind: fixed width, columns: {r: 1-4, d: 6-15, a: 17-20, m: 22, s: 24}}\n"
                        + JOURNAL_FIELDS.replace("column: d", "column: d, pattern: dd/MM/uuuu") + "unused: [line]\n");
        assertThat(said()).isEmpty();
        assertThat(fixed.format().slices()).hasSize(5).last().isEqualTo(new FileFormat.Slice("s", 24, 24));
    }

    @Test
    public void shapesAndFiltersAreReadInTheirOrder() {
        Layout layout = layout("""
                gives: journal lines
                file: {titles: none}
                tags: {column: 1, H: {heading: ["-", r, d]}, L: {line: ["-", a, m, s]}, T: {aside: yes}}
                link: {x: {file: other.csv, key: r, their key: id, keys: first counts}}
                fan out: [{column: m, account: 4000, side: credit}]
                leave out: [{column: 2, begins: [a, b]}]
                only: [{contains: c}]
                """ + JOURNAL_FIELDS.replace("column: d", "column: d, pattern: dd/MM/uuuu"));
        assertThat(said()).isEmpty();
        assertThat(layout.shapes()).hasSize(3);
        assertThat(layout.shapes().get(0)).isInstanceOf(Tags.class);
        Link link = (Link) layout.shapes().get(1);
        assertThat(link.firstOnly()).isTrue();
        assertThat(link.theirKey()).isEqualTo("id");
        assertThat(((FanOut) layout.shapes().get(2)).amounts().get(0).text()).isEqualTo("m");
        assertThat(layout.filters()).extracting(RowFilter::keep).containsExactly(false, true);
        assertThat(layout.filters().get(0).column()).isEqualTo("#2");
    }

    @Test
    public void mistakesInFormsAndShapesAreSaidTogether() {
        layout("""
                gives: invoice lines
                file: {kind: mt940, separator: comma}
                signs: turned
                fields:
                  number: {column: n, take: "["}
                """);
        assertThat(String.join("\n", said()))
                .contains("gives bank lines, not invoice lines")
                .contains("separator")
                .contains("turned");
        problems = new Problems();
        layout(
                "gives: bank lines\nfile: {kind: fixed}\nlink: {x: {file: ../up.csv, key: a}}\nfields: {date: {column: d}}\n");
        assertThat(String.join("\n", said()))
                .contains("fixed width")
                .contains("plain name")
                .contains("pattern");
    }

    @Test
    public void whatIsLeftOutIsStrict() {
        Layout layout = LayoutFile.read(write("layout.yaml", """
                        layout: Bare
                        gives: journal lines
                        fields:
                          reference: {column: r}
                          date:      {column: d, pattern: uuuu-MM-dd}
                          account:   {column: a}
                          amount:    {column: m}
                        """), "layout.yaml", problems);
        assertThat(said()).isEmpty();
        assertThat(layout.format()).isEqualTo(FileFormat.csv());
        assertThat(layout.numbers().brackets()).isFalse();
        assertThat(layout.numbers().trailingMinus()).isFalse();
        assertThat(layout.numbers().thousandsMark()).isEqualTo(',');
        assertThat(layout.signs()).isEqualTo(Signs.AS_WRITTEN);
    }

    @Test
    public void aDeliveryIsReadWhole() {
        Delivery delivery = DeliveryFile.read(write("delivery.yaml", """
                        delivery: Everything
                        takes: journals
                        file: {kind: separated, separator: pipe, encoding: UTF-16LE, byte order mark: yes, line ends: LF,
                               titles: no, quotes: always, rows at most: 100, name: "x-{run}-{date}-{part}.txt"}
                        numbers: {decimal: ",", thousands: "."}
                        columns:
                          A: {field: reference, at most: 12, refuse: "*"}
                          B: {field: date, pattern: dd/MM/uuuu}
                          C: {field: amount, blank zero: yes, sign: turned}
                          D: {constant: "x y"}
                        """), "delivery.yaml", problems);
        assertThat(said()).isEmpty();
        assertThat(delivery.takes()).isEqualTo(JournalLines.KIND);
        Sheet sheet = delivery.sheets().get(0);
        assertThat(sheet.format())
                .isEqualTo(
                        new DeliveryFormat('|', "UTF-16LE", "\n", true, false, true, 100, "x-{run}-{date}-{part}.txt"));
        assertThat(DeliveryFormat.filled(sheet.format().name(), "march", "2027-03-31", 2))
                .isEqualTo("x-march-2027-03-31-2.txt");
        assertThat(sheet.columns()).extracting(DeliveryColumn::title).containsExactly("A", "B", "C", "D");
        DeliveryColumn reference = sheet.columns().get(0);
        assertThat(reference.field()).isSameAs(JournalLines.REFERENCE);
        assertThat(reference.text().atMost()).isEqualTo(12);
        assertThat(reference.text().refuse()).isEqualTo("*");
        DeliveryColumn amount = sheet.columns().get(2);
        assertThat(amount.blankZero()).isTrue();
        assertThat(amount.sign()).isEqualTo(AmountSign.TURNED);
        assertThat(sheet.columns().get(3).constant()).isEqualTo("x y");
    }

    @Test
    public void aDeliveryMayHaveSeveralSheets() {
        String yaml = """
                delivery: Headings and lines
                takes: invoices
                sheets:
                  heads: {rows: document, file: {name: "heads-{date}.csv"}, columns: {No: {field: number}, To: {field: party}}}
                  lines:
                    rows: line
                    file: {name: "lines-{date}.csv"}
                    columns: {No: {field: number}, Net: {field: net}}
                """;
        Delivery delivery = DeliveryFile.read(write("sheets.yaml", yaml), "sheets.yaml", problems);
        assertThat(said()).isEmpty();
        assertThat(delivery.sheets()).extracting(Sheet::name).containsExactly("heads", "lines");
        assertThat(delivery.sheets().get(0).level()).isSameAs(InvoiceLines.TABLE.level(0));
        String broken = yaml.replace("rows: line", "rows: row").replace("No: {field: number}, Net", "Net");
        assertThat(DeliveryFile.read(write("broken.yaml", broken), "broken.yaml", problems))
                .isNull();
        assertThat(said()).containsExactly("broken.yaml:6:11: 'rows': 'row' is not known; allowed: document, line");
    }

    @Test
    public void sheetsThatCannotBeJoinedAreRefused() {
        assertThat(DeliveryFile.read(write("apart.yaml", """
                delivery: Apart
                takes: invoices
                sheets:
                  heads: {rows: document, file: {name: "h.csv"}, columns: {No: {field: number}, Net: {field: net}}}
                  lines: {rows: line, file: {name: "l.csv"}, columns: {Net: {field: net}}}
                """), "apart.yaml", problems))
                .isNull();
        assertThat(said())
                .containsExactly(
                        "apart.yaml:4:3: the column 'Net' of the sheet 'heads' has the field net of invoice lines, which its"
                                + " rows do not have",
                        "apart.yaml:4:3: the sheet 'lines' needs 'number', so that its rows can be joined to those of the"
                                + " other sheets");
    }

    @Test
    public void booksAndCodingAreReadWhole() {
        write("books/books.yaml", "books: Larkmoor\ncurrency: EUR\n");
        write("books/chart.csv", """
                code,name,type,use,status,tax code
                1200,Bank,asset,bank,,
                "12,00","A, quoted",expense,,closed,STD

                """);
        write("books/tax-codes.csv", "code,name,rate,account\nSTD,Standard,17.5,1200\n");
        write("books/parties.csv", "code,name,kind\nC1,Someone,customer\nS1,Other,supplier\n");
        write("books/periods.csv", "from,to,status\n2027-01-01,2027-01-31,closed\n2027-02-01,2027-02-28,open\n");
        Books books = BooksFolder.read(folder.resolve("books"), "books", problems);
        assertThat(said()).isEmpty();
        assertThat(books.currency().getCurrencyCode()).isEqualTo("EUR");
        Account quoted = books.account("12,00");
        assertThat(quoted.name()).isEqualTo("A, quoted");
        assertThat(quoted.status()).isEqualTo(AccountStatus.CLOSED);
        assertThat(quoted.use()).isEqualTo(AccountUse.GENERAL);
        assertThat(quoted.taxCode()).isEqualTo("STD");
        assertThat(books.party("C1").isCustomer()).isTrue();
        assertThat(books.party("S1").isCustomer()).isFalse();
        assertThat(books.periods()).hasSize(2);
        assertThat(books.taxCode("STD").rate()).isEqualByComparingTo("17.5");

        CodingTable table = CodingFile.read(write("coding.csv", """
                        entry,direction,words,account,from,to,tax code,party,narrative
                        tin,out,tin ingot | smelter*,1200,,"1,000.00",STD,S1,Tin bought
                        large,,,1200,5000,,,,
                        """), "coding.csv", books, problems);
        assertThat(said()).isEmpty();
        assertThat(table.entries())
                .containsExactly(
                        new CodingEntry(
                                "tin",
                                Direction.OUT,
                                List.of("tin ingot", "smelter*"),
                                SourceRecord.ABSENT,
                                1_000_00,
                                "Tin bought",
                                List.of(Posting.whole("1200", "STD", "S1"))),
                        new CodingEntry(
                                "large",
                                Direction.EITHER,
                                List.of(),
                                5_000_00,
                                SourceRecord.ABSENT,
                                null,
                                List.of(Posting.whole("1200", null, null))));
    }

    @DataProvider
    public Object[][] brokenFiles() {
        return new Object[][] {
            {"", "the file is empty"},
            {"# only a comment\n", "the file is empty"},
            {"- a\n- b\n", "must be a block"},
            {"layout: [a\n", "is not YAML"},
            {"layout: 'x\n", "is not YAML"},
            {"layout: x\ngives: {a: b}\nfields: {}\n", "must be a single text"},
            {"layout: x\ngives: bank lines\nfields: text\n", "must be a block"},
            {"layout: x\ngives: bank lines\n", "lacks 'fields'"},
            {"layout: x\ngives: bank lines\nfile: {titles: row 0}\nfields: {}\n", "'titles' is 'row'"},
            {"layout: x\ngives: bank lines\nfile: {kind: sheet}\nfields: {}\n", "'kind': 'sheet' is not known"},
            {"layout: x\ngives: bank lines\nfields: {date: {column: a}}\n", "needs its 'pattern'"},
            {"layout: x\ngives: bank lines\nfields: {amount: {columns: [a, b, c]}}\n", "from one column only"},
            {"layout: x\ngives: bank lines\nfields: {amount: {constant: a}}\n", "'a' is not an amount"},
            {"layout: x\ngives: journal lines\nfields: {line: {column: a}}\n", "key 'line' is not known"},
            {"a: &a [x]\nlayout: *a\n", "must be a single text"},
        };
    }

    @Test(dataProvider = "brokenFiles")
    public void aBrokenFileIsAProblemWithAPlace(String text, String says) {
        assertThat(LayoutFile.read(write("broken.yaml", text), "broken.yaml", problems))
                .isNull();
        assertThat(String.join("\n", said())).contains("broken.yaml").contains(says);
    }

    @Test
    public void aFolderOrBytesInPlaceOfAFileAreSaidPlainly() throws IOException {
        Files.createDirectory(folder.resolve("sub"));
        LayoutFile.read(folder.resolve("sub"), "sub", problems);
        Files.write(folder.resolve("bytes.yaml"), new byte[] {'a', ':', ' ', (byte) 0xE9});
        LayoutFile.read(folder.resolve("bytes.yaml"), "bytes.yaml", problems);
        assertThat(said())
                .containsExactlyInAnyOrder(
                        "sub: is a folder, a file was expected", "bytes.yaml: the file is not text in UTF-8");
    }

    @Test
    public void tablesNameTheirRows() {
        write("books/books.yaml", "books: x\ncurrency: GBP\n");
        write("books/chart.csv", "code,name,type\n1,A\n2,B,asset,extra\n,C,asset\n4,\"open,asset\n5,E,\n");
        assertThat(BooksFolder.read(folder.resolve("books"), "books", problems)).isNull();
        assertThat(said())
                .anySatisfy(p -> assertThat(p).startsWith("books/chart.csv:2: 'type' is blank"))
                .anySatisfy(p -> assertThat(p).startsWith("books/chart.csv:3: has 4 cells"))
                .anySatisfy(p -> assertThat(p).startsWith("books/chart.csv:4: 'code' is blank"))
                .anySatisfy(p -> assertThat(p).startsWith("books/chart.csv:5: the row has a quote that opens"))
                .anySatisfy(p -> assertThat(p).startsWith("books/chart.csv:6: 'type' is blank"));
    }
}
