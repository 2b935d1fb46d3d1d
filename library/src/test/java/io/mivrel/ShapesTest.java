package io.mivrel;

import static io.mivrel.kinds.JournalLines.*;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.kinds.BankLines;
import java.nio.charset.Charset;
import java.util.List;
import org.testng.annotations.Test;

/** Files whose rows are no flat list, and what is cleaned on the way. */
public class ShapesTest {
    private static final String FIELDS = """
            fields:
              reference: {column: ref}
              date:      {column: day, pattern: dd/MM/uuuu}
              account:   {column: account}
              narrative: {column: text}
              amount:    {column: amount}
            """;

    private static Reading read(Workshop workshop) throws Exception {
        return Reading.of(workshop, "journal", REFERENCE, DATE, ACCOUNT, NARRATIVE, AMOUNT);
    }

    private static Workshop journals(String file, String middle) {
        return new Workshop().takes("journal", file, "layout: J\ngives: journal lines\n" + middle + FIELDS);
    }

    @Test
    public void aPrintFileCarriesItsAccountHeadingsDown() throws Exception {
        String print = """
                LARKMOOR            PAGE 1

                Account 5010 Tin
                02/03/2027 17 tin — été           12.00
                                       Total      12.00
                \fLARKMOOR            PAGE 2
                Account 5010 (continued)
                03/03/2027 18 more tin            2.50-
                Account 1200 Bank
                02/03/2027 17 paid               12.00-
                """;
        Workshop workshop = journals("a.prn", """
                file: {kind: fixed width, encoding: windows-1252, columns: {day: 1-10, ref: 12-13, text: 15-28, amount: 29-42}}
                numbers: {negative: trailing minus}
                carry down: [{title: account, column: line, begins: "Account ", take: "Account ([0-9]+)"}]
                leave out:
                  - {column: line, begins: LARKMOOR}
                  - {column: line, contains: "Total "}
                unused: [line]
                """).put("a.prn", print, Charset.forName("windows-1252"));
        Reading read = read(workshop);
        assertThat(read.records())
                .containsExactly(
                        "17 | 2027-03-02 | 5010 | tin — été | 1200",
                        "18 | 2027-03-03 | 5010 | more tin | -250",
                        "17 | 2027-03-02 | 1200 | paid | -1200");
        assertThat(read.tally().leftOut().toString()).isEqualTo("{BLANK=1, BY_LAYOUT=3, HEADING=3}");
        assertThat(read.findings()).isEmpty();
    }

    private static final String TAGS = """
            file: {titles: none}
            tags:
              column: 1
              H: {heading: ["-", ref, day]}
              L: {line: ["-", account, text, amount]}
              X: {aside: yes}
            """;

    @Test
    public void taggedRowsTakeTheHeadingAboveThem() throws Exception {
        Reading read = read(journals("a.csv", TAGS)
                .put("a.csv", "X,export\nH,7,02/03/2027\nL,5010,tin,5.00\nL,1200,,-5.00\n\nH,8,\n"));
        assertThat(read.records())
                .containsExactly("7 | 2027-03-02 | 5010 | tin | 500", "7 | 2027-03-02 | 1200 |  | -500");
        assertThat(read.rules()).containsExactly("heading-without-lines");
        assertThat(read.findings().get(0).origin()).hasToString("a.csv row 6");
        assertThat(read.tally().leftOut().toString()).isEqualTo("{BLANK=1, BY_LAYOUT=1, HEADING=2}");
    }

    @Test
    public void aTagThatIsNotNamedAndCellsThatAreNotNamedAreHeld() throws Exception {
        Reading read = read(journals("a.csv", TAGS).put("a.csv", "H,7,02/03/2027\nZ,what\nL,5010,tin,5.00,more\n"));
        assertThat(read.rules()).contains("tag-unknown", "cells-extra");
        assertThat(read.findings().get(0).value()).isEqualTo("Z");
        assertThat(read.tally().records()).isEqualTo(2);
    }

    @Test
    public void rowsOfTheFileMayNameTheColumnsOfATag() throws Exception {
        Workshop workshop =
                journals("a.csv", """
                file: {titles: none}
                tags:
                  column: 1
                  C: {columns of: L}
                  H: {heading: ["-", ref, day]}
                  L: {line: named}
                """).put("a.csv", "C,amount,text,account\nH,7,02/03/2027\nL,5.00,tin,5010\n");
        assertThat(read(workshop).records()).containsExactly("7 | 2027-03-02 | 5010 | tin | 500");
    }

    // One form of definition row for all tags, which come again in another order, and with another form of amount.
    @Test
    public void definitionRowsMayShareATagAndComeAgain() throws Exception {
        Workshop workshop = journals("a.csv", """
                file: {titles: none}
                tags:
                  column: 1
                  C: {columns of cell: 2, also: [amount]}
                  H: {heading: named}
                  L: {line: named}
                """)
                .replace(
                        "journal-layout.yaml",
                        "  amount:",
                        "  debit: {column: debit}\n  credit: {column: credit}\n  amount:")
                .put("a.csv", """
                        C,H,ref,day
                        C,L,account,debit,credit,text
                        H,7,02/03/2027
                        L,5010,5.00,,tin
                        L,1200,,5.00,bank
                        C,H,day,ref
                        C,L,text,amount,account
                        H,03/03/2027,8
                        L,tin,1.00,5010
                        L,bank,-1.00,1200
                        C,L,sum,account
                        """);
        Reading read = read(workshop);
        assertThat(read.records().subList(0, 4))
                .containsExactly(
                        "7 | 2027-03-02 | 5010 | tin | 500",
                        "7 | 2027-03-02 | 1200 | bank | -500",
                        "8 | 2027-03-03 | 5010 | tin | 100",
                        "8 | 2027-03-03 | 1200 | bank | -100");
        assertThat(read.findings())
                .singleElement()
                .satisfies(late ->
                        assertThat(late.value() + ": " + late.reason()).startsWith("sum: the row names a column"));
    }

    @Test
    public void anAmountBesideItsSidesMustAgreeWithThem() throws Exception {
        Workshop workshop = new Workshop().takes("journal", "a.csv", """
                        layout: J
                        gives: journal lines
                        fields:
                          reference: {column: ref}
                          date:      {column: day, pattern: dd/MM/uuuu}
                          account:   {column: account}
                          debit:     {column: debit}
                          credit:    {column: credit}
                          amount:    {column: amount}
                        """).put("a.csv", """
                        ref,day,account,debit,credit,amount
                        7,02/03/2027,5010,5.00,,5.00
                        7,02/03/2027,1200,,5.00,-5.00
                        8,02/03/2027,5010,0.00,0.00,3.00
                        8,02/03/2027,1200,,3.00,
                        9,02/03/2027,5010,4.00,,5.00
                        9,02/03/2027,1200,,4.00,-4.00
                        """);
        Reading read = read(workshop);
        assertThat(read.rules()).containsExactly("amount-on-both-sides");
        assertThat(read.findings().get(0).origin().row()).isEqualTo(6);
    }

    @Test
    public void aHeadingMayBeKnownByACellThatIsFilled() throws Exception {
        Workshop workshop = journals("a.csv", """
                file: {titles: none}
                tags:
                  column: 1
                  when filled: {heading: [ref, day]}
                  when blank: {line: ["-", account, text, amount]}
                """)
                .put("a.csv", "7,02/03/2027\n,5010,tin,5.00\n,1200,bank,-5.00\n8,03/03/2027\n,5010,tin,1.00\n");
        assertThat(read(workshop).records())
                .containsExactly(
                        "7 | 2027-03-02 | 5010 | tin | 500",
                        "7 | 2027-03-02 | 1200 | bank | -500",
                        "8 | 2027-03-03 | 5010 | tin | 100");
    }

    private static final String LINK = """
            link:
              head: {file: heads.csv, key: ref, their key: id}
              acct: {file: accounts.csv, key: old, their key: old}
            fields:
              reference: {column: ref}
              date:      {column: head.day, pattern: dd/MM/uuuu}
              account:   {column: acct.new}
              narrative: {column: head.text}
              amount:    {column: amount}
            unused: [old, head.id, acct.old]
            """;

    private static Workshop linked() {
        return new Workshop()
                .takes("journal", "lines.csv", "layout: J\ngives: journal lines\n" + LINK)
                .put("heads.csv", "id,day,text\n7,02/03/2027,tin\n8,03/03/2027,unused\n")
                .put("accounts.csv", "old,new\nA,5010\nB,1200\n");
    }

    @Test
    public void theEvidenceHoldsEveryFileThatWasRead() throws Exception {
        Workshop workshop = linked().replace(
                        "journal-layout.yaml", "{column: head.text}", "{column: head.text, values from: words.csv}")
                .put("words.csv", "from,to\ntin,tin ingots\nunused,unused\n")
                .put("lines.csv", "ref,old,amount\n7,A,5.00\n7,B,-5.00\n");
        Outcome outcome = workshop.run("journal");
        assertThat(outcome.evidence().resolve("files.csv"))
                .content()
                .contains(
                        "input,lines.csv", "linked,heads.csv", "linked,accounts.csv", "settings,words.csv", "sha-512:");
        assertThat(outcome.evidence().resolve("settings/words.csv")).exists();
    }

    @Test
    public void linkedFilesAreJoinedAndOrphansReportedBothWays() throws Exception {
        Reading read = read(linked().put("lines.csv", "ref,old,amount\n7,A,5.00\n7,B,-5.00\n9,A,1.00\n"));
        assertThat(read.records().subList(0, 2))
                .containsExactly("7 | 2027-03-02 | 5010 | tin | 500", "7 | 2027-03-02 | 1200 | tin | -500");
        assertThat(read.rules()).containsExactly("link-missing", "link-unused");
        assertThat(read.findings().get(0).value()).isEqualTo("9");
        assertThat(read.findings().get(1).origin()).hasToString("heads.csv row 3");
    }

    @Test
    public void aLinkedFileThatIsMissingOrAmbiguousStopsTheFile() throws Exception {
        Workshop twice =
                linked().put("lines.csv", "ref,old,amount\n7,A,5.00\n").put("accounts.csv", "old,new\nA,1\nA,2\n");
        assertThat(read(twice).rules()).containsExactly("link-twice");
        Workshop missing = linked().put("lines.csv", "ref,old,amount\n7,A,5.00\n")
                .replace("journal-layout.yaml", "heads.csv", "absent.csv");
        assertThat(read(missing).rules()).containsExactly("linked-file-missing");
        Workshop elsewhere = linked().replace("journal-layout.yaml", "heads.csv", "../heads.csv");
        assertThatThrownBy(() -> elsewhere.run("journal"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("plain name");
    }

    @Test
    public void theSameFileMayBeReadTwice() throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", "a.csv", "layout: J\ngives: journal lines\n" + """
                        link: {first: {file: same, key: ref, keys: first counts}}
                        fields:
                          reference: {column: ref}
                          date:      {column: first.day, pattern: dd/MM/uuuu}
                          account:   {column: account}
                          amount:    {column: amount}
                        unused: [day, first.ref, first.account, first.amount]
                        """)
                .put("a.csv", "ref,day,account,amount\n7,02/03/2027,5010,5.00\n7,,1200,-5.00\n");
        assertThat(read(workshop).records())
                .containsExactly("7 | 2027-03-02 | 5010 |  | 500", "7 | 2027-03-02 | 1200 |  | -500");
    }

    private static final String FAN = """
            fan out:
              - {column: gross, account: 5010, side: debit}
              - {column: tax, account: 2200, text: Tax held, side: credit}
              - {column: net, account: 1200, side: credit}
            fields:
              reference: {constant: PAY}
              date:      {constant: 2027-03-26}
              account:   {column: fan account}
              narrative: {columns: [fan text, no], between: " no. "}
              amount:    {column: fan amount, side: {column: fan side, plus: debit, minus: credit}}
            unused: [name, gross, tax, net]
            """;

    @Test
    public void aWideRowIsFannedOutAndEveryLineCounted() throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", "a.csv", "layout: J\ngives: journal lines\n" + FAN)
                .put(
                        "a.csv",
                        "no,name,gross,tax,net\n1,A,\"1,000.00\",200.00,800.00\n2,B,500.00,0.00,500.00\n3,C,,-,\n");
        Reading read = read(workshop);
        assertThat(read.records())
                .containsExactly(
                        "PAY | 2027-03-26 | 5010 | gross no. 1 | 100000",
                        "PAY | 2027-03-26 | 2200 | Tax held no. 1 | -20000",
                        "PAY | 2027-03-26 | 1200 | net no. 1 | -80000",
                        "PAY | 2027-03-26 | 5010 | gross no. 2 | 50000",
                        "PAY | 2027-03-26 | 1200 | net no. 2 | -50000");
        assertThat(read.tally().again()).isEqualTo(3);
        assertThat(read.tally().rows()).isEqualTo(7);
        assertThat(read.tally().leftOut().toString()).isEqualTo("{TITLES=1, WITHOUT_AMOUNTS=1}");
        Outcome outcome = workshop.replace("books/chart.csv", "2200,Tax,liability,tax", "2200,Tax,liability,")
                .replace("books/tax-codes.csv", "STD,Standard,20,2200\n", "STD,Standard,20,2900\n")
                .run("journal");
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
        assertThat(outcome.summary(io.mivrel.report.SummaryText.Style.PLAIN))
                .contains("7 rows in 1 file")
                .contains("fanned out of 4 rows");
    }

    @Test
    public void aHeldWideRowGoesBackAsItsLinesAndIsTakenBackOnce() throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", "a.csv", "layout: J\ngives: journal lines\n" + FAN.replace("2200", "6215"))
                .put("a.csv", "no,name,gross,tax,net\n1,A,\"1,000.00\",200.00,800.00\n");
        Outcome held = workshop.run("journal");
        assertThat(held.report().held().rows()).isEqualTo(3);
        String back = java.nio.file.Files.readString(held.held().get(0));
        assertThat(back.lines()).hasSize(4);
        workshop.put("back.csv", back.replace("6215,Tax held", "6200,Tax held"))
                .replace("journal.yaml", "a.csv", "back.csv");
        Outcome cleared = workshop.run("journal");
        assertThat(cleared.report().clear().totals().debit())
                .as(back + cleared.summary(io.mivrel.report.SummaryText.Style.PLAIN))
                .isEqualTo(100_000);
        assertThat(cleared.report().rowsRead()).isEqualTo(3);
    }

    @Test
    public void amountsMayCarryMarksForTheirSide() throws Exception {
        Workshop workshop = journals("a.csv", """
                numbers: {plus mark: DR, minus mark: CR, currency mark: "€", thousands: " ", decimal: ","}
                """)
                .put(
                        "a.csv",
                        "ref,day,account,text,amount\n1,02/03/2027,5010,a,\"1 234,50 DR\"\n1,02/03/2027,5010,b,\"1\u00a0000,00 Cr\"\n"
                                + "1,02/03/2027,5010,c,\"12,00 €\"\n1,02/03/2027,5010,d,\"-5,00 CR\"\n");
        Reading read = read(workshop);
        assertThat(read.records().stream().map(r -> r.substring(r.lastIndexOf('|') + 2)))
                .containsExactly("123450", "-100000", "1200", "");
        assertThat(read.rules()).containsExactly("amount-unreadable");
    }

    @Test
    public void anotherColumnMaySayTheSide() throws Exception {
        Workshop workshop = journals("a.csv", "unused: [x]\n")
                .replace(
                        "journal-layout.yaml",
                        "{column: amount}",
                        "{column: amount, side: {column: side, plus: [D, Dr], minus: C}}")
                .put(
                        "a.csv",
                        "ref,day,account,text,amount,side\n1,02/03/2027,5010,a,5.00,D\n1,02/03/2027,5010,b,5.00,C\n"
                                + "1,02/03/2027,5010,c,5.00,\n1,02/03/2027,5010,d,-2.00,C\n");
        Reading read = read(workshop);
        assertThat(read.records().stream().map(r -> r.substring(r.lastIndexOf('|') + 2)))
                .containsExactly("500", "-500", "", "200");
        assertThat(read.rules()).containsExactly("value-unknown", "amount-negative-on-side");
    }

    @Test
    public void textsAreTakenOutLookedUpAndRowsFiltered() throws Exception {
        Workshop workshop = journals("a.csv", """
                only: [{column: state, is: [booked, done]}]
                leave out: [{column: text, contains: test}]
                """)
                .replace(
                        "journal-layout.yaml",
                        "{column: text}",
                        "{column: text, take: \"for ([A-Za-z ]+)\", if blank: none}")
                .replace("journal-layout.yaml", "{column: account}", "{column: account, values from: old.csv}")
                .put("old.csv", "from,to\nT,5010\nB,1200\n")
                .put(
                        "a.csv",
                        "ref,day,account,text,amount,state\n1,02/03/2027,T,paid 7 for tin ingots 9,1.00,booked\n"
                                + "1,02/03/2027,B,nothing,1.00,done\n1,02/03/2027,B,x,1.00,open\n"
                                + "1,02/03/2027,B,a test,1.00,done\n1,02/03/2027,Q,x,1.00,done\n");
        Reading read = read(workshop);
        assertThat(read.records().subList(0, 2))
                .containsExactly("1 | 2027-03-02 | 5010 | tin ingots | 100", "1 | 2027-03-02 | 1200 | none | 100");
        assertThat(read.rules()).containsExactly("value-unknown");
        assertThat(read.tally().leftOut().toString()).isEqualTo("{TITLES=1, BY_LAYOUT=2}");
    }

    @Test
    public void aCardMayRunTheOtherWayRoundWithItsBalance() throws Exception {
        String rows = "Date,Text,Amount,Balance\n2027-03-02,tin,5.00,105.00\n2027-03-03,paid,-100.00,5.00\n";
        Workshop workshop = new Workshop().takes("bank", "a.csv", """
                        layout: Card
                        gives: bank lines
                        account: 1200
                        signs: all reversed
                        fields:
                          date:      {column: Date, pattern: uuuu-MM-dd}
                          narrative: {column: Text}
                          amount:    {column: Amount}
                          balance:   {column: Balance}
                        """).put("a.csv", rows);
        Reading read = Reading.of(workshop, "bank", BankLines.AMOUNT, BankLines.BALANCE);
        assertThat(read.records()).isEqualTo(List.of("-500 | -10500", "10000 | -500"));
        assertThat(read.tally().proof().orElseThrow().holds()).isTrue();
        Workshop half = workshop.replace("bank-layout.yaml", "all reversed", "reversed");
        assertThat(Reading.of(half, "bank", BankLines.AMOUNT).tally().firstCulprit())
                .isEqualTo(3);
        // Amounts as the books see them, and a balance of what is owed.
        Workshop owed = half.replace("bank-layout.yaml", "signs: reversed", "signs: balance reversed")
                .put("a.csv", rows.replace("5.00,105", "-5.00,105").replace("-100.00,5.00", "100.00,5.00"));
        Reading turned = Reading.of(owed, "bank", BankLines.AMOUNT, BankLines.BALANCE);
        assertThat(turned.records()).isEqualTo(List.of("-500 | -10500", "10000 | -500"));
        assertThat(turned.tally().proof().orElseThrow().holds()).isTrue();
    }

    @Test
    public void settingsOfShapesAreCheckedTogether() {
        Workshop workshop = journals("a.csv", """
                file: {kind: fixed width, columns: {day: 10-1}}
                tags: {column: 1, H: {heading: [a], line: [b]}}
                carry down: [{begins: x, take: "("}]
                fan out: [{column: a, side: left}]
                leave out: [{column: a}]
                """).put("a.csv", "");
        assertThatThrownBy(() -> workshop.run("journal"))
                .hasMessageContaining("first and last place")
                .hasMessageContaining("one of 'heading'")
                .hasMessageContaining("lacks 'title'")
                .hasMessageContaining("is not a pattern")
                .hasMessageContaining("left")
                .hasMessageContaining("one of 'is'");
    }
}
