package io.mivrel.bench;

import java.io.BufferedOutputStream;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.SplittableRandom;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Beside the two large texts of {@link Generator}: ledger lines as fixed-width text (F) and as a workbook (X), bank lines as
 * OFX (O), camt.053 (C) and MT940 (M), with their layouts and run sheets. The same number gives the same bytes.
 */
final class FormatGenerator {
    /** Rows of the workbook. */
    static final long WORKBOOK_ROWS = 500_000;
    /** Entries of each statement file. */
    static final long ENTRIES = 1_000_000;

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("dd/MM/uuuu");
    private static final DateTimeFormatter SHORT = DateTimeFormatter.ofPattern("uuMMdd");
    private static final LocalDate FIRST = LocalDate.of(2027, 1, 1);

    private final Path folder;
    private final SplittableRandom random = new SplittableRandom(77);

    private FormatGenerator(Path folder) {
        this.folder = folder;
    }

    /** The file of an input; made, with what goes with it, unless it is there. */
    static Path fill(Path folder, String input, long lines) throws IOException {
        FormatGenerator generator = new FormatGenerator(folder);
        String ending = switch (input) {
            case "f" -> ".txt";
            case "x" -> ".xlsx";
            case "o" -> ".ofx";
            case "c" -> ".xml";
            default -> ".sta";
        };
        Path file = folder.resolve(input + ending);
        if (!Files.exists(file)) {
            generator.settings(input, file.getFileName().toString());
            Path made = folder.resolve(input + ".making");
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(made), 1 << 20)) {
                generator.write(input, lines, out);
            }
            Files.move(made, file);
        }
        return file;
    }

    private void settings(String input, String file) throws IOException {
        boolean journal = input.equals("f") || input.equals("x");
        String form = input.equals("f")
                ? "{kind: fixed width, columns: {ref: 1-9, day: 11-20, account: 22-25, text: 27-66, amount: 68-82}}"
                : input.equals("x") ? "{kind: workbook}" : "{kind: statement}";
        String fields = journal
                ? """
                fields:
                  reference: {column: ref}
                  date:      {column: day, pattern: dd/MM/uuuu}
                  account:   {column: account}
                  narrative: {column: text}
                  amount:    {column: amount}
                """ + (input.equals("f") ? "numbers: {negative: trailing minus}\nunused: [line]\n" : "")
                : "account: 1200\n";
        Files.writeString(
                folder.resolve(input + "-layout.yaml"),
                "layout: " + input + "\ngives: " + (journal ? "journal" : "bank") + " lines\nfile: " + form + "\n"
                        + fields);
        Files.writeString(
                folder.resolve(input + ".yaml"),
                "run: " + input + "\nbooks: books\nintake: [{files: " + file + ", layout: " + input
                        + "-layout.yaml}]\ndeliver: [{as: " + (journal ? "j" : "s") + "-delivery.yaml, to: out}]\n");
        Files.writeString(folder.resolve("s-delivery.yaml"), """
                delivery: Bank lines
                takes: bank transactions
                file: {name: "s-{date}.csv"}
                columns:
                  date:        {field: date, pattern: uuuu-MM-dd}
                  description: {field: narrative}
                  amount:      {field: amount}
                """);
    }

    private void write(String input, long lines, OutputStream out) throws IOException {
        if (input.equals("x")) {
            workbook(out);
            return;
        }
        Writer text = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8), 1 << 20);
        switch (input) {
            case "f" -> fixed(lines, text);
            case "o" -> ofx(text);
            case "c" -> camt(text);
            default -> mt940(text);
        }
        text.flush();
    }

    private String amount(long minor) {
        return BigDecimal.valueOf(minor, 2).toPlainString();
    }

    // Two lines a voucher, one against the other.
    private void fixed(long lines, Writer out) throws IOException {
        for (long line = 0; line < lines; line += 2) {
            long minor = 1 + random.nextLong(99_999_99);
            String day = FIRST.plusDays(line * 360 / lines).format(DAY);
            for (int side = 0; side < 2; side++) {
                out.write(String.format(
                        Locale.ROOT,
                        "V%08d %s %4d %-40s %14s%s%n",
                        line / 2,
                        day,
                        4000 + random.nextInt(400),
                        "haulage of bell metal, load " + line % 1000,
                        amount(minor),
                        side == 0 ? " " : "-"));
            }
        }
    }

    private void workbook(OutputStream out) throws IOException {
        ZipOutputStream zip = new ZipOutputStream(out);
        String main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        String relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        zip.putNextEntry(new ZipEntry("xl/workbook.xml"));
        zip.write(bytes("<workbook xmlns=\"" + main + "\" xmlns:r=\"" + relations
                + "\"><sheets><sheet name=\"A\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>"));
        zip.putNextEntry(new ZipEntry("xl/_rels/workbook.xml.rels"));
        zip.write(bytes("<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">"
                + "<Relationship Id=\"r1\" Target=\"worksheets/sheet1.xml\"/><Relationship Id=\"r2\" Target=\"styles.xml\"/>"
                + "<Relationship Id=\"r3\" Target=\"sharedStrings.xml\"/></Relationships>"));
        zip.putNextEntry(new ZipEntry("xl/styles.xml"));
        zip.write(bytes("<styleSheet xmlns=\"" + main
                + "\"><cellXfs><xf numFmtId=\"0\"/><xf numFmtId=\"14\"/></cellXfs>" + "</styleSheet>"));
        zip.putNextEntry(new ZipEntry("xl/sharedStrings.xml"));
        StringBuilder texts = new StringBuilder("<sst xmlns=\"" + main + "\">");
        for (String title : new String[] {"ref", "day", "account", "text", "amount"}) {
            texts.append("<si><t>").append(title).append("</t></si>");
        }
        for (int i = 0; i < 1000; i++) {
            texts.append("<si><t>haulage of bell metal, load ").append(i).append("</t></si>");
        }
        zip.write(bytes(texts.append("</sst>").toString()));
        zip.putNextEntry(new ZipEntry("xl/worksheets/sheet1.xml"));
        zip.write(bytes("<worksheet xmlns=\"" + main
                + "\"><sheetData><row r=\"1\"><c t=\"s\"><v>0</v></c><c t=\"s\"><v>1</v></c>"
                + "<c t=\"s\"><v>2</v></c><c t=\"s\"><v>3</v></c><c t=\"s\"><v>4</v></c></row>"));
        long minor = 0;
        StringBuilder row = new StringBuilder();
        for (long i = 0; i < WORKBOOK_ROWS; i++) {
            minor = i % 2 == 0 ? 1 + random.nextLong(99_999_99) : -minor;
            long number = i + 2;
            row.setLength(0);
            row.append("<row r=\"")
                    .append(number)
                    .append("\"><c r=\"A")
                    .append(number)
                    .append("\"><v>")
                    .append(i / 2);
            row.append("</v></c><c r=\"B")
                    .append(number)
                    .append("\" s=\"1\"><v>")
                    .append(46388 + i / 2 * 2 * 360 / WORKBOOK_ROWS);
            row.append("</v></c><c r=\"C").append(number).append("\"><v>").append(4000 + random.nextInt(400));
            row.append("</v></c><c r=\"D")
                    .append(number)
                    .append("\" t=\"s\"><v>")
                    .append(5 + i % 1000);
            row.append("</v></c><c r=\"E")
                    .append(number)
                    .append("\"><v>")
                    .append(amount(minor))
                    .append("</v></c></row>");
            zip.write(bytes(row.toString()));
        }
        zip.write(bytes("</sheetData></worksheet>"));
        zip.finish();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private long entry() {
        return random.nextLong(-99_999_99, 99_999_99);
    }

    private static LocalDate day(long entry) {
        return FIRST.plusDays(entry * 360 / ENTRIES);
    }

    private void ofx(Writer out) throws IOException {
        out.write("OFXHEADER:100\nENCODING:USASCII\nCHARSET:1252\n\n<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP\n"
                + "<BANKACCTFROM><ACCTID>1</BANKACCTFROM><BANKTRANLIST>\n");
        for (long i = 0; i < ENTRIES; i++) {
            out.write("<STMTTRN><TRNTYPE>OTHER\n<DTPOSTED>" + day(i).format(DateTimeFormatter.BASIC_ISO_DATE)
                    + "120000\n<TRNAMT>" + amount(entry()) + "\n<FITID>" + i + "\n<NAME>HAULAGE " + i % 1000
                    + "\n<MEMO>load of bell metal</STMTTRN>\n");
        }
        out.write("</BANKTRANLIST></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>\n");
    }

    private void camt(Writer out) throws IOException {
        out.write(
                "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001.08\">"
                        + "<BkToCstmrStmt><Stmt><Id>1</Id><Acct><Id><IBAN>1</IBAN></Id><Ccy>GBP</Ccy></Acct>\n");
        for (long i = 0; i < ENTRIES; i++) {
            long minor = entry();
            out.write("<Ntry><Amt Ccy=\"GBP\">" + amount(Math.abs(minor)) + "</Amt><CdtDbtInd>"
                    + (minor < 0 ? "DBIT" : "CRDT") + "</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>" + day(i)
                    + "</Dt></BookgDt><AcctSvcrRef>" + i + "</AcctSvcrRef><NtryDtls><TxDtls><Refs><EndToEndId>E" + i
                    + "</EndToEndId></Refs><RmtInf><Ustrd>haulage of bell metal, load " + i % 1000
                    + "</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>\n");
        }
        out.write("</Stmt></BkToCstmrStmt></Document>\n");
    }

    private void mt940(Writer out) throws IOException {
        out.write(":20:R\n:25:1\n:28C:1/1\n:60F:C270101GBP0,\n");
        long balance = 0;
        for (long i = 0; i < ENTRIES; i++) {
            long minor = entry();
            balance += minor;
            out.write(":61:" + day(i).format(SHORT) + (minor < 0 ? "D" : "C")
                    + amount(Math.abs(minor)).replace('.', ',') + "NTRFREF" + i + "//" + i
                    + "\n:86:haulage of bell metal, load " + i % 1000 + "\n");
        }
        out.write(":62F:" + (balance < 0 ? "D" : "C") + "271231GBP"
                + amount(Math.abs(balance)).replace('.', ',') + "\n");
    }
}
