package io.mivrel;

import static io.mivrel.kinds.BankLines.*;
import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.settings.BooksFolder;
import io.mivrel.posting.Balance;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.PracticePlace;
import io.mivrel.rows.FileKind;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The same random bank lines, written in every format: all give the same records, the same totals and the same deliveries. */
public class FormatsAgreeTest {
    private static final String[] WORDS = {"tin", "Glocke", "bell & rope", "été", "load 7", "x < y", "O'Hara", "50%"};

    /** Of two decimals, of none, of three and of four (ISO 4217). */
    private static final List<String> CURRENCIES = List.of("GBP", "JPY", "KWD", "CLF");

    private record Line(LocalDate date, long minor, String text, String reference, String currency) {
        BigDecimal value() {
            return value(minor, currency);
        }

        static BigDecimal value(long minor, String currency) {
            return BigDecimal.valueOf(minor, Currency.getInstance(currency).getDefaultFractionDigits());
        }

        String amount() {
            return value().toPlainString();
        }

        String size() {
            return value().abs().toPlainString();
        }

        String expected() {
            return date + " | " + minor + " | " + text + " | " + reference;
        }
    }

    private record Written(String file, byte[] bytes, String layout) {}

    private static List<Line> lines(Random random) {
        return lines(random, "GBP");
    }

    private static List<Line> lines(Random random, String currency) {
        List<Line> lines = new ArrayList<>();
        LocalDate day = LocalDate.of(2027, 1, 1).plusDays(random.nextInt(200));
        int count = 1 + random.nextInt(40);
        for (int i = 0; i < count; i++) {
            day = day.plusDays(random.nextInt(3));
            long minor = random.nextInt(5) == 0 ? random.nextInt(100_000_000) + 1L : random.nextInt(9_999) + 1L;
            String text = WORDS[random.nextInt(WORDS.length)] + " " + WORDS[random.nextInt(WORDS.length)];
            lines.add(new Line(day, random.nextBoolean() ? minor : -minor, text, "R" + i, currency));
        }
        return lines;
    }

    private static long sum(List<Line> lines) {
        return lines.stream().mapToLong(Line::minor).sum();
    }

    private static String statement(String kind) {
        return "layout: B\ngives: bank lines\naccount: 1200\nfile: {kind: " + kind + "}\n";
    }

    private static String table(String file, String more) {
        return "layout: B\ngives: bank lines\naccount: 1200\nfile: " + file + "\n" + more + """
                fields:
                  date:      {column: day, pattern: dd.MM.uuuu}
                  narrative: {column: text}
                  reference: {column: ref}
                  amount:    {column: amount}
                """;
    }

    private static String day(Line line, String pattern) {
        return line.date.format(DateTimeFormatter.ofPattern(pattern));
    }

    private static Written separated(List<Line> lines) {
        StringBuilder text = new StringBuilder("day;text;ref;amount\r\n");
        lines.forEach(l -> text.append(day(l, "dd.MM.uuuu"))
                .append(";\"")
                .append(l.text.replace("\"", "\"\""))
                .append("\";")
                .append(l.reference)
                .append(';')
                .append(l.amount().replace('.', ','))
                .append("\r\n"));
        return new Written(
                "a.csv",
                text.toString().getBytes(Charset.forName("windows-1252")),
                table(
                        "{separator: semicolon, encoding: windows-1252}",
                        "numbers: {decimal: \",\", thousands: none}\n"));
    }

    private static Written fixed(List<Line> lines) {
        StringBuilder text = new StringBuilder("\fPAGE 1\n");
        lines.forEach(l -> text.append(String.format(
                Locale.ROOT,
                "%s %-30s %-6s %,16." + l.value().scale() + "f%s%n",
                day(l, "dd.MM.uuuu"),
                l.text,
                l.reference,
                l.value().abs(),
                l.minor < 0 ? "-" : " ")));
        return new Written(
                "a.prn",
                text.toString().getBytes(StandardCharsets.UTF_8),
                table(
                        "{kind: fixed width, columns: {day: 1-10, text: 12-41, ref: 43-48, amount: 50-66}}",
                        "numbers: {negative: trailing minus}\nleave out: [{column: line, begins: PAGE}]\nunused: [line]\n"));
    }

    private static Written xlsx(List<Line> lines) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = book.newWorksheet("A");
            String[] titles = {"day", "text", "ref", "amount"};
            for (int i = 0; i < titles.length; i++) {
                sheet.value(0, i, titles[i]);
            }
            for (int i = 0; i < lines.size(); i++) {
                Line line = lines.get(i);
                sheet.value(i + 1, 0, line.date);
                sheet.style(i + 1, 0).format("dd.mm.yy").set();
                sheet.value(i + 1, 1, line.text);
                sheet.value(i + 1, 2, line.reference);
                // As a program does it that reckons in binary fractions.
                sheet.value(i + 1, 3, line.value().doubleValue());
            }
        }
        return new Written("a.xlsx", out.toByteArray(), table("{kind: workbook}", ""));
    }

    private static Written xls(List<Line> lines) throws IOException {
        try (HSSFWorkbook book = new HSSFWorkbook()) {
            var sheet = book.createSheet("A");
            CellStyle date = book.createCellStyle();
            date.setDataFormat(book.createDataFormat().getFormat("yyyy-mm-dd"));
            Row heading = sheet.createRow(0);
            String[] titles = {"day", "text", "ref", "amount"};
            for (int i = 0; i < titles.length; i++) {
                heading.createCell(i).setCellValue(titles[i]);
            }
            for (int i = 0; i < lines.size(); i++) {
                Row row = sheet.createRow(i + 1);
                row.createCell(0).setCellValue(lines.get(i).date);
                row.getCell(0).setCellStyle(date);
                row.createCell(1).setCellValue(lines.get(i).text);
                row.createCell(2).setCellValue(lines.get(i).reference);
                row.createCell(3).setCellValue(lines.get(i).value().doubleValue());
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            book.write(out);
            return new Written("a.xls", out.toByteArray(), table("{kind: workbook, sheet: A}", ""));
        }
    }

    private static String xml(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;");
    }

    private static Written ofx(List<Line> lines, boolean tagsClosed) {
        StringBuilder text = new StringBuilder(
                tagsClosed
                        ? "<?xml version=\"1.0\" encoding=\"UTF-8\"?><?OFX OFXHEADER=\"200\"?>"
                        : "OFXHEADER:100\r\nENCODING:UTF-8\r\nCHARSET:NONE\r\n\r\n");
        text.append("<OFX><STMTRS>");
        tag(text, "CURDEF", lines.get(0).currency, tagsClosed);
        text.append("<BANKTRANLIST>");
        for (Line line : lines) {
            text.append("<STMTTRN>");
            tag(text, "DTPOSTED", day(line, "uuuuMMdd") + "120000", tagsClosed);
            tag(text, "TRNAMT", line.amount(), tagsClosed);
            tag(text, "FITID", line.reference, tagsClosed);
            tag(text, "CHECKNUM", line.reference, tagsClosed);
            tag(text, "MEMO", xml(line.text), tagsClosed);
            text.append("</STMTTRN>");
        }
        text.append("</BANKTRANLIST></STMTRS></OFX>");
        return new Written("a.ofx", text.toString().getBytes(StandardCharsets.UTF_8), statement("ofx"));
    }

    private static void tag(StringBuilder text, String tag, String value, boolean closed) {
        text.append('<').append(tag).append('>').append(value).append(closed ? "</" + tag + ">" : "\r\n");
    }

    private static Written camt(List<Line> lines, Random random) {
        int version = 2 + random.nextInt(7);
        String booked = version == 8 ? "<Sts><Cd>BOOK</Cd></Sts>" : "<Sts>BOOK</Sts>";
        StringBuilder text = new StringBuilder(
                "<?xml version=\"1.0\" encoding=\"ISO-8859-1\"?><c:Document xmlns:c=\"urn:iso:std:iso:"
                        + "20022:tech:xsd:camt.053.001.0" + version + "\"><c:BkToCstmrStmt><c:Stmt><c:Id>1</c:Id>");
        long closing = sum(lines);
        text.append(balance("OPBD", 0, lines.get(0))).append(balance("CLBD", closing, lines.get(lines.size() - 1)));
        text.append("<TxsSummry><TtlNtries><NbOfNtries>")
                .append(lines.size())
                .append("</NbOfNtries></TtlNtries></TxsSummry>");
        for (Line line : lines) {
            text.append("<Ntry><Amt Ccy=\"" + line.currency + "\">")
                    .append(line.size())
                    .append("</Amt><CdtDbtInd>");
            text.append(line.minor < 0 ? "DBIT" : "CRDT").append("</CdtDbtInd>").append(booked);
            text.append("<BookgDt><DtTm>")
                    .append(line.date)
                    .append("T09:00:00+01:00</DtTm></BookgDt><NtryDtls><TxDtls><Refs>");
            text.append("<EndToEndId>").append(line.reference).append("</EndToEndId></Refs><RmtInf><Ustrd>");
            text.append(xml(line.text)).append("</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>\n");
        }
        text.append("</c:Stmt></c:BkToCstmrStmt></c:Document>");
        return new Written("a.xml", text.toString().getBytes(StandardCharsets.ISO_8859_1), statement("camt.053"));
    }

    private static String balance(String code, long minor, Line of) {
        return "<Bal><Tp><CdOrPrtry><Cd>" + code + "</Cd></CdOrPrtry></Tp><Amt Ccy=\"" + of.currency + "\">"
                + Line.value(Math.abs(minor), of.currency).toPlainString() + "</Amt><CdtDbtInd>"
                + (minor < 0 ? "DBIT" : "CRDT")
                + "</CdtDbtInd><Dt><Dt>" + of.date + "</Dt></Dt></Bal>";
    }

    private static Written mt940(List<Line> lines, Random random) {
        StringBuilder text = new StringBuilder(random.nextBoolean() ? "{1:F01}{2:I940}{4:\r\n" : "");
        text.append(":20:R\r\n:25:1\r\n:28C:1\r\n:60F:C")
                .append(day(lines.get(0), "uuMMdd"))
                .append(lines.get(0).currency)
                .append("0,\r\n");
        boolean divided = random.nextBoolean();
        for (Line line : lines) {
            text.append(":61:")
                    .append(day(line, "uuMMdd"))
                    .append(day(line, "MMdd"))
                    .append(line.minor < 0 ? 'D' : 'C');
            text.append(comma(line.value().abs()))
                    .append("NTRF")
                    .append(line.reference)
                    .append("\r\n:86:");
            text.append(divided ? "166?00X?20" + line.text : line.text).append("\r\n");
        }
        long closing = sum(lines);
        text.append(":62F:").append(closing < 0 ? 'D' : 'C').append("271231");
        text.append(lines.get(0).currency).append(comma(Line.value(Math.abs(closing), lines.get(0).currency)));
        text.append("\r\n-}\r\n");
        return new Written("a.sta", text.toString().getBytes(StandardCharsets.UTF_8), statement("statement"));
    }

    // In SWIFT messages the comma stands behind whole figures too.
    private static String comma(BigDecimal value) {
        String plain = value.toPlainString().replace('.', ',');
        return plain.contains(",") ? plain : plain + ",";
    }

    private static Written qif(List<Line> lines) {
        StringBuilder text = new StringBuilder("!Type:Bank\n");
        lines.forEach(l -> text.append("D")
                .append(day(l, "d/ M''yy"))
                .append("\nT")
                .append(l.amount())
                .append("\nN")
                .append(l.reference)
                .append("\nM")
                .append(l.text)
                .append("\n^\n"));
        return new Written(
                "a.qif",
                text.toString().getBytes(StandardCharsets.UTF_8),
                statement("qif") + "fields: {date: {column: date, pattern: d/M/uu, century from: 2000}}\n");
    }

    @DataProvider
    public static Object[][] rounds() {
        Object[][] rounds = new Object[12][];
        for (int i = 0; i < rounds.length; i++) {
            rounds[i] = new Object[] {i};
        }
        return rounds;
    }

    @Test(dataProvider = "rounds")
    public void everyFormatGivesTheSameRecordsAndDeliveries(int seed) throws Exception {
        Random random = new Random(seed);
        String currency = CURRENCIES.get(seed % CURRENCIES.size());
        List<Line> lines = lines(random, currency);
        List<String> expected = lines.stream().map(Line::expected).toList();
        List<Written> all = List.of(
                separated(lines),
                fixed(lines),
                xlsx(lines),
                xls(lines),
                ofx(lines, true),
                ofx(lines, false),
                camt(lines, random),
                mt940(lines, random),
                qif(lines));
        String delivered = null;
        for (Written written : all) {
            Workshop workshop =
                    new Workshop().takes("bank", written.file, written.layout).put(written.file, written.bytes);
            workshop.replace("books/books.yaml", "GBP", currency);
            Reading read = Reading.of(workshop, "bank", DATE, AMOUNT, NARRATIVE, REFERENCE);
            assertThat(read.records()).as(written.file + read.findings()).isEqualTo(expected);
            assertThat(read.findings()).as(written.file).noneMatch(f -> f.blocks());
            read.tally().proof().ifPresent(proof -> assertThat(proof.holds()).isTrue());
            Outcome outcome = workshop.run("bank");
            assertThat(outcome.report().clear().rows()).as(written.file).isEqualTo(lines.size());
            String out = delivered(outcome);
            assertThat(out).as(written.file).isEqualTo(delivered == null ? out : delivered);
            delivered = out;
        }
        assertThat(delivered).contains(lines.get(0).amount() + "\n");
    }

    @Test(dataProvider = "rounds")
    public void whatIsPostedIsTheSameToTheLastDecimal(int seed) throws Exception {
        String currency = CURRENCIES.get(seed % CURRENCIES.size());
        List<Line> lines = lines(new Random(seed), currency);
        Written written = separated(lines);
        Workshop workshop = new Workshop()
                .takes("bank", written.file, written.layout)
                .put(written.file, written.bytes)
                .replace("books/books.yaml", "GBP", currency)
                .replace("bank.yaml", "deliver:", "coding: {table: coding.csv, uncoded: \"2900\"}\ndeliver:");
        try (PracticeLedger ledger = PracticeLedger.openOrCreate(
                "practice",
                PracticePlace.file(workshop.folder.resolve("practice.db")),
                BooksFolder.read(workshop.folder.resolve("books")))) {
            PostOutcome posted = workshop.open("bank").postTo(ledger).post();
            assertThat(posted.proof().holds()).isTrue();
            assertThat(posted.posting().posted()).isEqualTo(lines.size());
            Balance bank = ledger.balances(LocalDate.MAX).stream()
                    .filter(balance -> balance.account().equals("1200"))
                    .findFirst()
                    .orElseThrow();
            assertThat(bank.all().minor()).isEqualTo(sum(lines));
            assertThat(bank.all().currency().getCurrencyCode()).isEqualTo(currency);
            assertThat(workshop.open("bank")
                            .postTo(ledger)
                            .withdraw(null, List.of())
                            .proof()
                            .holds())
                    .isTrue();
            assertThat(ledger.balances(LocalDate.MAX))
                    .allMatch(balance -> balance.all().minor() == 0);
        }
    }

    private static String delivered(Outcome outcome) {
        try {
            return java.nio.file.Files.readString(java.nio.file.Path.of(
                    outcome.report().deliveries().get(0).files().get(0).name()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test(dataProvider = "rounds")
    public void everyFormatIsKnownByItsContentUnderAnyName(int seed) throws Exception {
        Random random = new Random(100 + seed);
        List<Line> lines = lines(random);
        for (Written written : List.of(
                ofx(lines, random.nextBoolean()), camt(lines, random), mt940(lines, random), qif(lines), xls(lines))) {
            Workshop workshop = new Workshop().put("unknown.dat", written.bytes);
            FileSurvey survey = FileSurvey.of(workshop.folder.resolve("unknown.dat"));
            FileKind kind = survey.survey().facts().kind();
            assertThat(written.layout).contains(kind == FileKind.MT940 ? "statement" : kind.word());
            assertThat(survey.survey().dataRows()).isEqualTo(lines.size());
            // Under the layout of another kind nothing of it is read.
            Workshop other = workshop.takes("bank", "unknown.dat", separated(lines).layout);
            Outcome refused = other.run("bank");
            assertThat(refused.report().clear().rows()).isZero();
            assertThat(Workshop.told(refused).get(0).rule().id()).isEqualTo("file-kind-differs");
            assertThat(refused.status()).isEqualTo(1);
        }
    }

    @Test
    public void heldEntriesOfAStatementGoBackAsTextAndAreTakenBack() throws Exception {
        List<Line> lines = List.of(
                new Line(LocalDate.of(2026, 12, 30), 500, "closed period", "R1", "GBP"),
                new Line(LocalDate.of(2027, 1, 2), -700, "tin", "R2", "GBP"));
        Written written = ofx(lines, true);
        Workshop workshop =
                new Workshop().takes("bank", written.file, written.layout).put(written.file, written.bytes);
        Outcome first = workshop.run("bank");
        assertThat(first.report().held().rows()).isEqualTo(1);
        String back = java.nio.file.Files.readString(first.held().get(0));
        assertThat(back).contains("date,value date,amount,payee,narrative,reference", "Mivrel problem", "2026-12-30");
        workshop.put("back.csv", back.replace("2026-12-30", "2027-01-03")).replace("bank.yaml", "a.ofx", "back.csv");
        Outcome second = workshop.run("bank");
        assertThat(second.report().clear().rows()).isEqualTo(1);
        assertThat(second.report().clear().totals().debit()).isEqualTo(500);
        assertThat(second.status()).isZero();
    }
}
