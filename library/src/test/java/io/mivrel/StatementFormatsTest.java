package io.mivrel;

import static io.mivrel.kinds.BankLines.*;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The open statement formats: what their entries become, what they prove, and what is refused. */
public class StatementFormatsTest {
    private static final String LAYOUT = "layout: Bank\ngives: bank lines\naccount: 1200\nfile: {kind: statement}\n";

    private static Workshop of(String file, String text) {
        return new Workshop().takes("bank", file, LAYOUT).put(file, text);
    }

    private static Reading read(String file, String text) throws Exception {
        return Reading.of(of(file, text), "bank", DATE, AMOUNT, PAYEE, NARRATIVE, REFERENCE, BANK_REFERENCE);
    }

    // ---- OFX

    private static String ofx1(String entries, String closing) {
        return "OFXHEADER:100\r\nDATA:OFXSGML\r\nVERSION:102\r\nENCODING:USASCII\r\nCHARSET:1252\r\n\r\n"
                + "<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP<BANKACCTFROM><BANKID>40<ACCTID>00918274"
                + "</BANKACCTFROM><BANKTRANLIST><DTSTART>20270301<DTEND>20270331" + entries
                + "</BANKTRANLIST><LEDGERBAL><BALAMT>" + closing
                + "<DTASOF>20270331</LEDGERBAL></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>";
    }

    @Test
    public void ofx1ReadsTagsThatAreNeverClosed() throws Exception {
        String entries =
                "<STMTTRN><TRNTYPE>POS<DTPOSTED>20270302120000[-5:EST]<TRNAMT>-12.50<FITID>A1<NAME>TIN &amp; CO"
                        + "<MEMO>ingots</STMTTRN>"
                        + "<STMTTRN><TRNTYPE>CREDIT\n<DTPOSTED>20270303\n<TRNAMT>+7,25\n<FITID>A2\n<CHECKNUM>100871\n<NAME>SHOP\n";
        Reading read = read("bank.ofx", ofx1(entries, "94.75"));
        assertThat(read.records())
                .containsExactly(
                        "2027-03-02 | -1250 | TIN & CO | TIN & CO ingots |  | A1",
                        "2027-03-03 | 725 | SHOP | SHOP | 100871 | A2");
        assertThat(read.tally().spans()).hasSize(1);
        assertThat(read.tally().spans().get(0).closing()).isEqualTo(9475);
        assertThat(read.rules()).containsExactly("statement-account-unchecked");
    }

    @Test
    public void ofx1IsReadInTheEncodingThatItsHeaderNames() throws Exception {
        Charset cp1252 = Charset.forName("windows-1252");
        String text = ofx1("<STMTTRN><DTPOSTED>20270302<TRNAMT>-1.00<FITID>A<NAME>CAFÉ “ÉTÉ”</STMTTRN>", "0");
        Workshop workshop = of("bank.ofx", "").put("bank.ofx", text.getBytes(cp1252));
        assertThat(Reading.of(workshop, "bank", NARRATIVE).records()).containsExactly("CAFÉ “ÉTÉ”");
    }

    @Test
    public void ofx2ReadsXmlAndSeveralStatements() throws Exception {
        String one =
                "<STMTTRNRS><STMTRS><CURDEF>GBP</CURDEF><BANKACCTFROM><ACCTID>1</ACCTID></BANKACCTFROM><BANKTRANLIST>"
                        + "<STMTTRN><DTPOSTED>20270302</DTPOSTED><TRNAMT>5.00</TRNAMT><FITID>A</FITID><NAME>x</NAME></STMTTRN>"
                        + "</BANKTRANLIST></STMTRS></STMTTRNRS>";
        String other = one.replace("<ACCTID>1<", "<ACCTID>2<").replace("5.00", "6.00");
        String text = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<?OFX OFXHEADER=\"200\" VERSION=\"211\"?>\n<OFX>"
                + "<!-- two accounts --><BANKMSGSRSV1>" + one + other + "</BANKMSGSRSV1></OFX>";
        assertThat(read("bank.ofx", text).records()).hasSize(2);
        Workshop only = of("bank.ofx", text).replace("bank-layout.yaml", "statement}", "ofx, statements of: 2}");
        Reading wanted = Reading.of(only, "bank", AMOUNT);
        assertThat(wanted.records()).containsExactly("600");
        assertThat(wanted.tally().leftOut().toString()).contains("OTHER_ACCOUNT=1");
    }

    @DataProvider
    public static Object[][] badOfx() {
        String good = "<DTPOSTED>20270302<TRNAMT>-1.00<FITID>A<NAME>x";
        return new Object[][] {
            {good.replace("20270302", "20270231"), "date-unreadable"},
            {good.replace("-1.00", "-1.005"), "amount-too-precise"},
            {good.replace("-1.00", "-1,234.00"), "amount-unreadable"},
            {good.replace("<TRNAMT>-1.00", ""), "entry-unreadable"},
            {good + "<CORRECTFITID>Z<CORRECTACTION>DELETE", "entry-corrects"},
            {good + "<CURRENCY><CURRATE>1.1<CURSYM>EUR</CURRENCY>", "entry-currency"},
        };
    }

    @Test(dataProvider = "badOfx")
    public void anOfxEntryThatIsNotSoundIsHeld(String entry, String rule) throws Exception {
        Outcome outcome =
                of("bank.ofx", ofx1("<STMTTRN>" + entry + "</STMTTRN>", "0")).run("bank");
        assertThat(outcome.status()).isEqualTo(1);
        assertThat(Workshop.told(outcome).get(0).rule().id()).isEqualTo(rule);
        assertThat(outcome.report().held().rows()).isEqualTo(1);
    }

    // ---- camt.053

    private static String camt(String version, String body) {
        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?><Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001."
                + version
                + "\"><BkToCstmrStmt><GrpHdr><MsgId>1</MsgId></GrpHdr><Stmt><Id>S1</Id><Acct><Id><IBAN>GB1</IBAN>"
                + "</Id><Ccy>GBP</Ccy></Acct>" + body + "</Stmt></BkToCstmrStmt></Document>";
    }

    private static String balance(String code, String amount, String side, String day) {
        return "<Bal><Tp><CdOrPrtry><Cd>" + code + "</Cd></CdOrPrtry></Tp><Amt Ccy=\"GBP\">" + amount
                + "</Amt><CdtDbtInd>" + side + "</CdtDbtInd><Dt><Dt>" + day + "</Dt></Dt></Bal>";
    }

    private static String entry(String amount, String side, String status, String more) {
        return "<Ntry><Amt Ccy=\"GBP\">" + amount + "</Amt><CdtDbtInd>" + side + "</CdtDbtInd>" + status
                + "<BookgDt><Dt>2027-03-02</Dt></BookgDt>" + more + "</Ntry>";
    }

    @DataProvider
    public static Object[][] versions() {
        return new Object[][] {{"02"}, {"03"}, {"04"}, {"05"}, {"06"}, {"07"}, {"08"}};
    }

    @Test(dataProvider = "versions")
    public void camtReadsEveryVersion(String version) throws Exception {
        boolean late = version.equals("08");
        String status = late ? "<Sts><Cd>BOOK</Cd></Sts>" : "<Sts>BOOK</Sts>";
        String name = late ? "<Cdtr><Pty><Nm>Tin Works</Nm></Pty></Cdtr>" : "<Cdtr><Nm>Tin Works</Nm></Cdtr>";
        String details =
                "<AcctSvcrRef>R1</AcctSvcrRef><NtryDtls><TxDtls><Refs><EndToEndId>E1</EndToEndId></Refs><RltdPties>"
                        + name
                        + "</RltdPties><RmtInf><Ustrd>Invoice 7</Ustrd><Ustrd>tin</Ustrd></RmtInf></TxDtls></NtryDtls>";
        Reading read = read(
                "bank.xml",
                camt(
                        version,
                        balance("OPBD", "100.00", "CRDT", "2027-03-01")
                                + balance("CLBD", "20.50", "DBIT", "2027-03-31")
                                + entry("120.50", "DBIT", status, details)
                                + entry("9.99", "CRDT", status.replace("BOOK", "PDNG"), "")));
        assertThat(read.records()).containsExactly("2027-03-02 | -12050 | Tin Works | Invoice 7 tin | E1 | R1");
        assertThat(read.tally().proof().orElseThrow().holds()).isTrue();
        assertThat(read.tally().leftOut().toString()).contains("NOT_BOOKED=1");
        assertThat(read.rules()).containsExactly("statement-account-unchecked");
    }

    private static String detail(String amount, String side) {
        return "<TxDtls><Refs><EndToEndId>E" + amount + "</EndToEndId></Refs><Amt Ccy=\"GBP\">" + amount
                + "</Amt><CdtDbtInd>" + side + "</CdtDbtInd></TxDtls>";
    }

    @Test
    public void aBatchedCamtEntryBecomesItsDetailsWhenTheyAddUp() throws Exception {
        String details = "<AcctSvcrRef>B</AcctSvcrRef><NtryDtls><Btch><NbOfTxs>3</NbOfTxs></Btch>"
                + detail("10.00", "DBIT") + detail("5.50", "DBIT") + detail("0.50", "CRDT") + "</NtryDtls>";
        String totals = "<TxsSummry><TtlNtries><NbOfNtries>1</NbOfNtries></TtlNtries></TxsSummry>";
        Reading read =
                read("bank.xml", camt("08", totals + entry("15.00", "DBIT", "<Sts><Cd>BOOK</Cd></Sts>", details)));
        assertThat(read.records())
                .containsExactly(
                        "2027-03-02 | -1000 |  |  | E10.00 | B/1",
                        "2027-03-02 | -550 |  |  | E5.50 | B/2",
                        "2027-03-02 | 50 |  |  | E0.50 | B/3");
        assertThat(read.rules()).containsExactly("statement-account-unchecked");
        Reading wrong = read("bank.xml", camt("08", entry("15.01", "DBIT", "<Sts><Cd>BOOK</Cd></Sts>", details)));
        assertThat(wrong.rules()).contains("batch-differs");
        assertThat(wrong.records()).hasSize(1);
    }

    @Test
    public void aReversalKeepsTheSideThatTheMessageGivesIt() throws Exception {
        String reversal = entry("5.00", "DBIT", "<RvslInd>true</RvslInd><Sts><Cd>BOOK</Cd></Sts>", "");
        Reading read = read(
                "bank.xml",
                camt(
                        "08",
                        balance("PRCD", "5.00", "CRDT", "2027-03-01")
                                + balance("CLBD", "0.00", "CRDT", "2027-03-31")
                                + reversal));
        assertThat(read.records().get(0)).startsWith("2027-03-02 | -500");
        assertThat(read.tally().proof().orElseThrow().holds()).isTrue();
    }

    @Test
    public void controlTotalsAndBalancesAreCompared() throws Exception {
        String booked = "<Sts><Cd>BOOK</Cd></Sts>";
        String totals =
                "<TxsSummry><TtlNtries><NbOfNtries>3</NbOfNtries></TtlNtries><TtlCdtNtries><NbOfNtries>2</NbOfNtries>"
                        + "<Sum>9.00</Sum></TtlCdtNtries></TxsSummry>";
        Reading read = read(
                "bank.xml",
                camt(
                        "04",
                        balance("OPBD", "0.00", "CRDT", "2027-03-01")
                                + balance("CLBD", "7.00", "CRDT", "2027-03-31")
                                + totals
                                + entry(
                                        "4.00",
                                        "CRDT",
                                        booked.replace("<Cd>", "").replace("</Cd>", ""),
                                        "")));
        assertThat(read.rules())
                .contains("balance-closing")
                .filteredOn(r -> r.equals("control-total-differs"))
                .hasSize(3);
        assertThat(read.tally().failed()).isTrue();
    }

    @Test
    public void statementsThatDoNotFollowOnAreReported() throws Exception {
        String first = balance("OPBD", "0.00", "CRDT", "2027-03-01") + balance("CLBD", "0.00", "CRDT", "2027-03-02");
        String second = "<Id>S2</Id><Acct><Id><IBAN>GB1</IBAN></Id><Ccy>GBP</Ccy></Acct>"
                + balance("OPBD", "8.00", "CRDT", "2027-03-03") + balance("CLBD", "8.00", "CRDT", "2027-03-04");
        Reading read = read("bank.xml", camt("02", first + "</Stmt><Stmt>" + second));
        assertThat(read.findings())
                .anySatisfy(f -> assertThat(f.reason())
                        .isEqualTo("statement S2 opens with 8.00, but statement S1 before it closed with 0.00"));
    }

    @Test
    public void aNewerOrOtherMessageIsRefusedByName() throws Exception {
        assertThat(read("bank.xml", camt("09", "")).findings().get(0).reason()).contains("camt.053.001.09");
        Reading other = read("bank.xml", camt("02", "").replace("camt.053", "camt.052"));
        assertThat(other.findings().get(0).reason()).contains("a message camt.052.001.02");
    }

    // ---- MT940

    private static final String MT940 = """
            :20:REF
            :25:40172300918274GBP
            :28C:3/1
            :60F:C270301GBP100,00
            :61:2703020303D12,5NTRFINV 7//B1
            supplement
            :86:166?00TRANSFER?20EREF+E77SVWZ+Tin ?21ingots?32TIN ?33WORKS
            :61:270304RC3,NCHGNONREF
            :86:Charge taken
            back again
            :61:270305C20,00NMSC/X
            :86:/NAME/ST ALDHELM/REMI/USTD//Bell 3/EREF/K9
            :62F:C270331GBP104,50
            """;

    @Test
    public void mt940ReadsBareAndWrappedMessages() throws Exception {
        List<String> expected = List.of(
                "2027-03-03 | -1250 | TIN WORKS | Tin ingots | E77 | B1",
                "2027-03-04 | -300 |  | Charge taken back again |  | ",
                "2027-03-05 | 2000 | ST ALDHELM | Bell 3 | K9 | ");
        Reading bare = read("bank.sta", MT940);
        assertThat(bare.records()).isEqualTo(expected);
        assertThat(bare.tally().proof().orElseThrow().holds()).isTrue();
        String wrapped =
                "{1:F01AAAABB99AXXX0000000000}{2:I940AAAABB99XXXXN}{4:\r\n" + MT940.replace("\n", "\r\n") + "-}";
        assertThat(read("bank.sta", wrapped).records()).isEqualTo(expected);
    }

    @Test
    public void mt940PagesAreOneStatementAndAMissingPageIsNoticed() throws Exception {
        String first = MT940.substring(0, MT940.indexOf(":61:270304")) + ":62M:C270303GBP87,50\n-\n";
        String second = ":20:REF\n:25:40172300918274GBP\n:28C:3/2\n:60M:C270303GBP87,50\n"
                + MT940.substring(MT940.indexOf(":61:270304"));
        Reading read = read("bank.sta", first + second);
        assertThat(read.records()).hasSize(3);
        assertThat(read.tally().spans()).hasSize(1);
        assertThat(read.tally().proof().orElseThrow().holds()).isTrue();
        Reading gap = read("bank.sta", first + second.replace("60M:C270303GBP87,50", "60M:C270303GBP88,50"));
        assertThat(gap.rules()).contains("statement-gap");
        assertThat(gap.tally().failed()).isTrue();
    }

    @Test
    public void aStatementOfAnotherAccountOrCurrencyIsRefused() throws Exception {
        String chart = "1200,Current account,asset,bank,,";
        Workshop other = of("bank.sta", MT940)
                .replace("books/chart.csv", "tax code\n", "tax code,number,currency\n")
                .replace("books/chart.csv", chart, chart + ",GB99|555,EUR");
        Reading read = Reading.of(other, "bank", AMOUNT);
        assertThat(read.rules()).containsExactlyInAnyOrder("statement-account", "statement-currency");
        Workshop same = of("bank.sta", MT940)
                .replace("books/chart.csv", "tax code\n", "tax code,number,currency\n")
                .replace("books/chart.csv", chart, chart + ",GB99|40-17-23 00918274,");
        assertThat(Reading.of(same, "bank", AMOUNT).rules()).isEmpty();
    }

    @Test
    public void aCutMt940IsRefusedAsAWhole() throws Exception {
        Outcome outcome =
                of("bank.sta", MT940.substring(0, MT940.indexOf(":62F:"))).run("bank");
        assertThat(outcome.report().clear().rows()).isZero();
        assertThat(outcome.report().held().rows()).isEqualTo(3);
        assertThat(Workshop.told(outcome).get(0).reason()).contains("without its closing balance");
    }

    // ---- QIF

    @Test
    public void qifReadsWithThePatternThatTheLayoutDeclares() throws Exception {
        String qif = "!Account\nN1200\nTBank\n^\n!Type:Bank\nD1/ 3'27\nT100.00\nPOpening Balance\nL[1200]\n^\n"
                + "D2/ 3'27\nT-1,250.00\nN100871\nPTIN WORKS\nMingots\nLMetal\nSMetal\n$-1250.00\n^\n";
        Workshop workshop = of("bank.qif", qif)
                .put(
                        "bank-layout.yaml",
                        LAYOUT.replace("statement}", "qif}")
                                + "fields: {date: {column: date, pattern: d/M/uu, century from: 2000}}\n");
        Reading read = Reading.of(workshop, "bank", DATE, AMOUNT, PAYEE, NARRATIVE, REFERENCE);
        assertThat(read.records()).containsExactly("2027-03-02 | -125000 | TIN WORKS | ingots | 100871");
        assertThat(read.tally().leftOut().toString()).isEqualTo("{OPENING=1}");
        assertThat(read.tally().spans().get(0).opening()).isEqualTo(10_000);
        for (String written : new String[] {"5322,70", "5.322,70", "5,322.70", "5322.70"}) {
            workshop.put("bank.qif", qif.replace("T100.00", "T" + written));
            assertThat(Reading.of(workshop, "bank", DATE).tally().spans().get(0).opening())
                    .as(written)
                    .isEqualTo(5_322_70);
        }
    }

    @Test
    public void qifWithoutADatePatternIsASettingsMistake() {
        Workshop workshop =
                of("bank.qif", "!Type:Bank\n").put("bank-layout.yaml", LAYOUT.replace("statement}", "qif}"));
        assertThat(org.assertj.core.api.Assertions.catchThrowable(() -> workshop.run("bank")))
                .hasMessageContaining("'date' is required");
    }

    // ---- all of them

    @DataProvider
    public static Object[][] wholeFiles() {
        String entry = entry("1.00", "DBIT", "<Sts><Cd>BOOK</Cd></Sts>", "");
        return new Object[][] {
            {"ofx", ofx1("<STMTTRN><DTPOSTED>20270302<TRNAMT>-1.00<FITID>A<NAME>x</STMTTRN>", "0")},
            {
                "xml",
                camt(
                        "08",
                        balance("OPBD", "1.00", "CRDT", "2027-03-01")
                                + balance("CLBD", "0.00", "CRDT", "2027-03-02")
                                + entry)
            },
            {"sta", MT940},
            {"qif", "!Type:Bank\nD2027-03-02\nT-1.00\nPx\n^\n"},
        };
    }

    @Test(dataProvider = "wholeFiles")
    public void aFileCutAtAnyByteIsNeverDeliveredAsIfItWereWhole(String ending, String text) throws Exception {
        byte[] whole = text.getBytes(StandardCharsets.UTF_8);
        String layout = ending.equals("qif")
                ? LAYOUT.replace("statement}", "qif}") + "fields: {date: {column: date, pattern: uuuu-MM-dd}}\n"
                : LAYOUT;
        Workshop workshop = new Workshop().takes("bank", "bank." + ending, layout);
        workshop.put("bank." + ending, whole);
        long records = Reading.of(workshop, "bank", AMOUNT).records().size();
        assertThat(records).isPositive();
        for (int length = 0; length < whole.length; length++) {
            byte[] cut = java.util.Arrays.copyOf(whole, length);
            workshop.put("bank." + ending, cut);
            Reading read = Reading.of(workshop, "bank", AMOUNT);
            // What is cut within its last blanks or marks may still be whole; anything else says so.
            boolean isWhole = read.records().size() == records && read.tally().unreadable() == 0;
            // QIF has no end of its own, so a list that is cut before its first entry is an empty list.
            boolean empty = ending.equals("qif") && read.tally().rows() == 0;
            assertThat(read.tally().failed() || isWhole || empty || isBlocked(read))
                    .as("cut at " + length + ": " + read.rules())
                    .isTrue();
        }
    }

    private static boolean isBlocked(Reading read) {
        return read.findings().stream().anyMatch(f -> f.blocks());
    }

    @Test(dataProvider = "wholeFiles")
    public void changedBytesBecomeFindingsAndNeverAFailure(String ending, String text) throws Exception {
        byte[] whole = text.getBytes(StandardCharsets.UTF_8);
        String layout = ending.equals("qif")
                ? LAYOUT.replace("statement}", "qif}") + "fields: {date: {column: date, pattern: uuuu-MM-dd}}\n"
                : LAYOUT;
        Workshop workshop = new Workshop().takes("bank", "bank." + ending, layout);
        java.util.Random random = new java.util.Random(5);
        for (int i = 0; i < 400; i++) {
            byte[] changed = whole.clone();
            for (int n = 0; n <= random.nextInt(4); n++) {
                changed[random.nextInt(changed.length)] = (byte) random.nextInt(256);
            }
            workshop.put("bank." + ending, changed);
            Reading read = Reading.of(workshop, "bank", DATE, AMOUNT, NARRATIVE);
            assertThat(read.tally().rows())
                    .isEqualTo(read.records().size()
                            + read.tally().unreadable()
                            + read.tally().leftOut().values().stream()
                                    .mapToLong(Long::longValue)
                                    .sum());
        }
    }
}
