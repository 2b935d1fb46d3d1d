package io.mivrel.cli;

import static io.mivrel.cli.CommandOutput.mivrel;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.testng.SkipException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Receivers' templates of many shapes: each made into a delivery by a few answers, and files that hold against it. */
public class TemplateTest {
    private static final String JOURNALS = """
            Vch,Day,Account,Dept,Details,Dr,Cr
            101,13/03/2027,6100,10,Rent of the casting shed,200.00,
            101,13/03/2027,1800,10,Rent of the casting shed,,200.00
            102,25/03/2027,6200,,Telephone,45.10,
            102,25/03/2027,1800,,Telephone,,45.10
            """;

    private static final String BANK = """
            Date,Details,Paid in,Paid out,Balance
            13/03/2027,Parish of Torrow,1500.00,,2500.00
            14/03/2027,Calder Vale Metals,,480.25,2019.75
            25/03/2027,Telephone,,45.10,1974.65
            """;

    private static final String INVOICES = """
            Number,Type,Customer,Date,Description,Net,Tax code,Tax,Account
            S-1,invoice,CUS-001,13/03/2027,Tower bell,100.00,STD,20.00,4100
            S-2,credit note,CUS-001,25/03/2027,Hand bell,-10.00,STD,-2.00,4100
            """;

    /** A template with its bytes, the raw file, and what is answered. */
    private record Case(String name, byte[] template, String raw, List<String> answers, List<String> delivers) {
        @Override
        public String toString() {
            return name;
        }
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @DataProvider
    public Object[][] templates() throws IOException {
        List<Case> cases = new ArrayList<>();
        cases.add(new Case(
                "entries-blank.csv",
                ("Beleg-Nr*;Buchungstag*;Konto*;Kostenstelle;Text (max 12 Zeichen);Soll;Haben;W\u00e4hrung\r\n"
                                + ";TT.MM.JJJJ;;;;;;EUR, GBP\r\n")
                        .getBytes(Charset.forName("windows-1252")),
                JOURNALS,
                List.of("column W\u00e4hrung==GBP", "amounts=1234,50"),
                List.of("101;13.03.2027;6100;10;Rent of the;200,00;;GBP")));
        cases.add(new Case(
                "two-rows-of-titles.csv",
                text("Entry,,,,Amount,\nJournal no,Date (MM/DD/YYYY),Nominal code,Memo,Debit,Credit\n"),
                JOURNALS,
                List.of(),
                List.of("Entry,,,,Amount,", "101,03/13/2027,6100,Rent of the casting shed,200.00,")));
        cases.add(new Case(
                "records.txt",
                text("HDR|LEDGER|IMPORT\nDTL|1|J1|20270131|4000|12.50|Bells\nDTL|2|J1|20270131|1800|-12.50|Bells\n"
                        + "DTL|3|J2|20270201|4000|8.00|Bells\nDTL|4|J2|20270201|1800|-8.00|Bells\nTRL|4|0.00\n"),
                JOURNALS,
                List.of(
                        "column 3=reference",
                        "column 4=date",
                        "column 5=account",
                        "column 6=amount",
                        "column 7=narrative"),
                List.of("HDR|LEDGER|IMPORT", "DTL|1|101|20270313|6100|200.00|Rent of the casting shed", "TRL|4|0.00")));
        cases.add(new Case(
                "taken-before.tsv",
                text("Ref\tPosting date\tGL code\tNet movement\tSource\tText\n"
                        + "A1\t31.1.2027\t4000\t1.200,50\tGL\tx\nA1\t31.1.2027\t1800\t(1.200,50)\tGL\tx\n"),
                JOURNALS,
                List.of("column Net movement=amount"),
                List.of("101\t13.3.2027\t1800\t(200,00)\tGL\tRent of the casting shed")));
        cases.add(new Case(
                "quoted.csv",
                text("\uFEFFsep=;\r\n\"Voucher No\";\"Posting date\";\"Account\";\"Debit\";\"Credit\";\"Line\"\r\n"
                        + "\"1\";\"2027-01-31\";\"4000\";\"12.50\";\"\";\"1\"\r\n"),
                JOURNALS,
                List.of("column Line=line"),
                List.of("sep=;", "\"101\";\"2027-03-13\";\"1800\";\"\";\"200.00\";\"2\"")));
        cases.add(new Case("workbook.xlsx", workbook(), JOURNALS, List.of("column Batch=row number"), List.of()));
        cases.add(new Case(
                "sides.csv",
                text("Voucher;Date;Account;D/C;Amount\n1;31.01.2027;4000;C;12,50\n1;31.01.2027;1800;D;12,50\n"),
                JOURNALS,
                List.of("column D/C=side D C"),
                List.of("101;13.03.2027;6100;D;200,00", "101;13.03.2027;1800;C;200,00")));
        cases.add(new Case(
                "totals.csv",
                text("Ref,Date,Account,Debit,Credit\nA,2027-01-01,1,5.00,\nA,2027-01-01,1,,5.00\nTotal,,,5.00,5.00\n"),
                JOURNALS,
                List.of(),
                List.of("101,2027-03-13,6100,200.00,", "Total,,,245.10,245.10")));
        cases.add(new Case(
                "bank-import.csv",
                text(
                        "Transaction date,Amount,Payee,Particulars,Code,Cheque\n5/1/27,-12.00,Shop,Bread,,\n17/1/27,3.00,Shop,Refund,,\n"),
                BANK,
                List.of("account=1800"),
                List.of("13/3/27,1500.00,", "14/3/27,-480.25,")));
        cases.add(new Case(
                "sales.csv",
                text(
                        "Document type,Invoice number,Customer code,Invoice date,Line text,Net amount,VAT code,VAT,Nominal\n"
                                + "\"INV, CRN\",,,DD/MM/YYYY,,,,,\n"),
                INVOICES,
                List.of(
                        "credits=negative",
                        "column Document type=invoice: INV, credit note: CRN",
                        "column Line text=narrative"),
                List.of("INV,S-1,CUS-001,13/03/2027,Tower bell,100.00,STD,20.00,4100", "CRN,S-2,")));
        cases.add(new Case(
                "posting-file.txt",
                text("J0001  20270131  4000       12.50  Bells            \n"
                        + "J0001  20270131  1800      -12.50  Bells            \n"
                        + "J0002  20270201  4000        8.00  Chimes           \n"
                        + "J0002  20270201  1800       -8.00  Chimes           \n"
                        + "J0003  20270205  4000     1120.00  Tower bell       \n"
                        + "J0003  20270205  1800    -1120.00  Tower bell       \n"),
                JOURNALS,
                List.of(
                        "column 1=reference",
                        "column 2=date",
                        "column 3=account",
                        "column 4=amount",
                        "column 5=narrative"),
                List.of()));
        return cases.stream().map(one -> new Object[] {one}).toArray(Object[][]::new);
    }

    @Test
    public void aCompanyThatIsThereGetsAFurtherDelivery() throws Exception {
        Path folder = Files.createTempDirectory("mivrel template");
        Path raw = Files.writeString(folder.resolve("raw-2027-03.csv"), JOURNALS);
        Path company = folder.resolve("co");
        mivrel(
                "start",
                raw,
                "--in",
                company,
                "--answer",
                "company=X",
                "--answer",
                "currency=GBP",
                "--answer",
                "deliver=journals-two-sides");
        Path template = Files.writeString(
                folder.resolve("other.csv"), "Ref;Posting date;GL code;Net;Memo\n1;31.1.2027;4000;1,50;x\n");
        CommandOutput asked = mivrel("start", "--template", template, "--in", company);
        assertThat(asked.status()).isEqualTo(2);
        assertThat(asked.err()).contains("Which of your columns is 'Net'?", "200.00 | -200.00 | 45.10");
        CommandOutput wrong = mivrel("start", "--template", template, "--in", company, "--answer", "column Net=amuont");
        assertThat(wrong.err()).contains("'amuont' is not a field of journals", "'amount'?");
        CommandOutput made = mivrel("start", "--template", template, "--in", company, "--answer", "column Net=amount");
        assertThat(made.out())
                .contains(
                        "what was there before is kept in 'earlier'",
                        "101;13.3.2027;6100;200,00;Rent of the casting shed");
        assertThat(Files.readString(company.resolve("raw.yaml"))).contains("as: deliveries/other.yaml");
        assertThat(Files.readString(company.resolve("earlier/raw.yaml"))).doesNotContain("other.yaml");
        assertThat(mivrel("start", "--in", company).err()).contains("name a raw file");
        assertThat(mivrel("start", "--template", raw.resolveSibling("none.csv"), "--in", company)
                        .err())
                .contains("none.csv");
    }

    @Test
    public void everyDifferenceFromADeliveryIsToldWithItsPlace() throws Exception {
        Path folder = Files.createTempDirectory("mivrel template");
        Path delivery = Files.writeString(folder.resolve("d.yaml"), """
                delivery: D
                takes: journals
                file: {line ends: LF, byte order mark: yes, last rows: [[T, "{rows}", "{sum of Debit}", "{documents}"]]}
                columns:
                  Row: {counts: rows}
                  Ref: {field: reference, required: yes}
                  Day: {field: date, pattern: dd/MM/uuuu}
                  Text: {field: narrative, at most: 5, squeeze blanks: yes, refuse: "<"}
                  Tax: {field: tax code, values: {STD: S, ZERO: Z}}
                  Debit: {field: debit}
                  Credit: {field: credit, blank zero: yes}
                  Source: {constant: GL}
                """);
        Path right = Files.writeString(
                folder.resolve("right.csv"),
                "\uFEFFRow,Ref,Day,Text,Tax,Debit,Credit,Source\n1,A,31/01/2027,tin,S,5.00,,GL\n2,A,31/01/2027,tin,,0.00,5.00,GL\n"
                        + "T,2,5.00,1\n");
        assertThat(mivrel("check", right, "--as", delivery).out()).contains("2 rows", "no difference");
        Path wrong = Files.writeString(
                folder.resolve("wrong.csv"),
                "Row,Ref,Date,Text,Tax,Debit,Credit,Source\r\n1,A,1/31/2027,a  tin<,X,5.0,,GL\r\n3,,31/01/2027,tin,,0.00,0.00,AP\r\n"
                        + "4,B\r\nT,9,7.00,1\r\n");
        CommandOutput held = mivrel("check", wrong, "--as", delivery);
        assertThat(held.status()).isEqualTo(1);
        assertThat(held.out())
                .contains(
                        "file, byte-order mark: there is none",
                        "file, line ends: 'CRLF' are to be LF",
                        "row 1, title 3: 'Date' is to be 'Day'",
                        "row 2, Day: '1/31/2027' is not a day written dd/MM/uuuu",
                        "row 2, Text: 'a  tin<' has 7 characters; the column takes 5",
                        "row 2, Text: 'a  tin<' has a character of <",
                        "row 2, Text: 'a  tin<' has blanks too many",
                        "row 2, Tax: 'X' is not among S, Z",
                        "row 2, Debit: '5.0' is written 5.00",
                        "row 3, Row: '3' is to be 2",
                        "row 3, Ref: is blank, and the column is required",
                        "row 3, Credit: '0.00' is nil, which is left blank",
                        "row 3, Source: 'AP' is to be 'GL'",
                        "row 4, row: '4 | B' has 2 cells; there are 8 columns",
                        "row 5, a row under the data: '9' is to be 3, rows",
                        "row 5, a row under the data: '7.00' is to be 5.00, sum of Debit",
                        "row 2, journal A: '5.00' does not sum to nil");
    }

    // A database's own reader, where the machine has one.
    @Test
    public void whatIsDeliveredLoadsIntoADatabase() throws Exception {
        Path folder = Files.createTempDirectory("mivrel template");
        Path raw = Files.writeString(folder.resolve("raw-2027-03.csv"), JOURNALS);
        Path company = folder.resolve("co");
        mivrel(
                "start",
                raw,
                "--in",
                company,
                "--answer",
                "company=X",
                "--answer",
                "currency=GBP",
                "--answer",
                "deliver=journals-two-sides");
        mivrel("run", company.resolve("raw.yaml"));
        Path delivered;
        try (Stream<Path> all = Files.list(company.resolve("out"))) {
            delivered = all.findFirst().orElseThrow();
        }
        Process process;
        try {
            process = new ProcessBuilder("sqlite3", ":memory:")
                    .redirectErrorStream(true)
                    .start();
        } catch (IOException absent) {
            throw new SkipException("sqlite3 is not on this machine: " + absent.getMessage());
        }
        try (OutputStream in = process.getOutputStream()) {
            in.write(text(".mode csv\n.import \"" + delivered + "\" t\n"
                    + "select count(*), printf('%.2f', sum(Debit)), printf('%.2f', sum(Credit)), min(Text) from t;\n"));
        }
        String answer = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(answer.strip()).isEqualTo("4,245.10,245.10,\"Rent of the casting shed\"");
    }

    private static byte[] workbook() throws IOException {
        var bytes = new java.io.ByteArrayOutputStream();
        workbook(bytes);
        return bytes.toByteArray();
    }

    private static void workbook(OutputStream out) throws IOException {
        try (Workbook book = new Workbook(out, "Larkmoor", "1.0")) {
            Worksheet read = book.newWorksheet("Read me");
            read.value(0, 0, "How to fill in the sheet Journal");
            Worksheet journal = book.newWorksheet("Journal");
            List<String> titles = List.of("Batch", "Voucher", "Date", "Account", "Text", "Debit", "Credit");
            journal.value(0, 0, "Journal import");
            for (int i = 0; i < titles.size(); i++) {
                journal.value(2, i, titles.get(i));
            }
            journal.value(3, 0, "007");
            journal.value(3, 1, "V1");
            journal.value(3, 2, LocalDate.of(2027, 1, 31));
            journal.style(3, 2).format("yyyy-mm-dd").set();
            journal.value(3, 3, "4000");
            journal.value(3, 4, "to be replaced");
            journal.value(3, 5, 12.5);
        }
    }

    @Test(dataProvider = "templates")
    public void aTemplateIsMetByFewAnswers(Object given) throws Exception {
        Case one = (Case) given;
        Path folder = Files.createTempDirectory("mivrel template");
        Path template = Files.write(folder.resolve(one.name), one.template);
        Path raw = Files.writeString(folder.resolve("raw-2027-03.csv"), one.raw);
        Path company = folder.resolve("co");
        List<Object> words = new ArrayList<>(List.of("start", raw, "--template", template, "--in", company));
        Stream.concat(Stream.of("company=Larkmoor Bell Foundry", "currency=GBP", "uncoded=9999"), one.answers.stream())
                .filter(answer -> !answer.startsWith("uncoded") || one.raw.equals(BANK) && false)
                .forEach(answer -> words.addAll(List.of("--answer", answer)));
        CommandOutput started = mivrel(words.toArray());
        assertThat(started.err()).isEmpty();
        assertThat(started.out()).contains("as it will stand in the file of");
        if (one.name.equals("totals.csv")) {
            // Debit and credit sum to the same, and each is stated under its own column.
            assertThat(Files.readString(company.resolve("deliveries/totals.yaml")))
                    .contains("{sum of Debit}", "{sum of Credit}");
        }
        CommandOutput run = mivrel("run", company.resolve("raw.yaml"));
        assertThat(run.out() + run.err()).contains("read back: matches");
        Path delivery;
        try (Stream<Path> all = Files.list(company.resolve("deliveries"))) {
            delivery = all.findFirst().orElseThrow();
        }
        try (Stream<Path> files = Files.list(company.resolve("out"))) {
            for (Path file : files.toList()) {
                CommandOutput held = mivrel("check", file, "--as", delivery);
                assertThat(held.out() + held.err()).contains("no difference");
                assertThat(held.status()).isZero();
                if (!one.delivers.isEmpty()) {
                    Charset charset =
                            one.name.startsWith("entries") ? Charset.forName("windows-1252") : StandardCharsets.UTF_8;
                    assertThat(Files.readString(file, charset)).contains(one.delivers);
                }
            }
        }
    }
}
