package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.money.Totals;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;

/** One file with statements of several accounts: each goes to the account of the books that has its number. */
public class SeveralAccountsTest {
    private static final String LINES = """
            delivery: Lines
            takes: bank transactions
            file: {name: "lines-{run}-{date}.csv", line ends: LF}
            columns:
              Account: {field: bank account}
              Date:    {field: date, pattern: uuuu-MM-dd}
              Amount:  {field: amount}
              Text:    {field: narrative}
            """;

    private static String statement(String account, String currency, String closing, String... entries) {
        StringBuilder ofx =
                new StringBuilder("<STMTTRNRS><STMTRS><CURDEF>" + currency + "<BANKACCTFROM><BANKID>9<ACCTID>" + account
                        + "<ACCTTYPE>CHECKING</BANKACCTFROM><BANKTRANLIST><DTSTART>20270301<DTEND>20270331");
        for (int i = 0; i < entries.length; i++) {
            ofx.append("<STMTTRN><TRNTYPE>OTHER<DTPOSTED>2027030")
                    .append(i + 1)
                    .append("<TRNAMT>")
                    .append(entries[i])
                    .append("<FITID>")
                    .append(account)
                    .append(i)
                    .append("<NAME>tin</STMTTRN>");
        }
        return ofx + "</BANKTRANLIST><LEDGERBAL><BALAMT>" + closing
                + "<DTASOF>20270331</LEDGERBAL></STMTRS></STMTTRNRS>";
    }

    private static Workshop workshop(String chart, String... statements) {
        String ofx = "OFXHEADER:100\nDATA:OFXSGML\nVERSION:102\n\n<OFX><BANKMSGSRSV1>" + String.join("", statements)
                + "</BANKMSGSRSV1></OFX>\n";
        return new Workshop()
                .put("books/tax-codes.csv", "code,name,rate,account\nZERO,Zero,0,\n")
                .put("books/chart.csv", "code,name,type,use,status,tax code,number,currency\n" + chart)
                .takes("bank", "all.ofx", "layout: All\ngives: bank lines\naccount: by number\nfile: {kind: ofx}\n")
                .put("all.ofx", ofx)
                .put("lines.yaml", LINES)
                .sheet("bank", "", "lines.yaml")
                .replace("bank.yaml", "bank.csv", "all.ofx");
    }

    private static List<String> delivered(Workshop workshop, String part) throws Exception {
        List<String> lines = new ArrayList<>();
        for (String name : workshop.names("out")) {
            if (name.contains(part)) {
                lines.addAll(Files.readAllLines(workshop.folder.resolve("out").resolve(name)));
            }
        }
        return lines;
    }

    @Test
    public void eachStatementGoesToTheAccountThatHasItsNumber() throws Exception {
        Workshop workshop = workshop(
                "1200,Current,asset,bank,,,400 171,\n1210,Savings,asset,bank,,,55-2,\n",
                statement("400171", "GBP", "7.00", "3.00", "-1.00"),
                statement("552", "GBP", "90.00", "50.00"));
        Outcome outcome = workshop.run("bank");
        assertThat(delivered(workshop, ""))
                .contains("1200,2027-03-01,3.00,tin", "1200,2027-03-02,-1.00,tin", "1210,2027-03-01,50.00,tin");
        assertThat(outcome.report().rowsRead()).isEqualTo(3);
        assertThat(outcome.report().clear().rows()).isEqualTo(3);
    }

    @Test
    public void currenciesAreNeverAddedAndGoIntoFilesOfTheirOwn() throws Exception {
        Workshop workshop = workshop(
                "1200,Current,asset,bank,,,400171,\n1210,Euros,asset,bank,,,552,EUR\n",
                statement("400171", "GBP", "7.00", "3.00", "-1.00"),
                statement("552", "EUR", "90.00", "50.00"));
        Outcome outcome = workshop.run("bank");
        assertThat(delivered(workshop, "EUR")).hasSize(2).contains("1210,2027-03-01,50.00,tin");
        assertThat(outcome.report().clear().allTotals().all().stream().map(Totals::toString))
                .containsExactly("2 amounts, debit 3.00, credit 1.00", "1 amounts, debit 50.00, credit 0.00");
        assertThat(outcome.json()).contains("\"inOtherCurrencies\"", "\"EUR\"");
        assertThat(outcome.summary(io.mivrel.report.SummaryText.Style.PLAIN)).contains("GBP in 3.00", "EUR in 50.00");
        // What went out stays out, whichever file it was in.
        assertThat(workshop.run("bank").report().before().rows()).isEqualTo(3);
    }

    @Test
    public void aNumberThatTheBooksDoNotHaveIsAskedFor() {
        Workshop workshop = workshop(
                "1200,Current,asset,bank,,,400171,\n",
                statement("400171", "GBP", "7.00", "3.00"),
                statement("552", "GBP", "90.00", "50.00"));
        assertThatThrownBy(() -> workshop.run("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("no bank or card account of the books has the number 552")
                .hasMessageContaining("chart.csv");
    }

    @Test
    public void currenciesOfOtherDecimalsDoNotGoTogether() {
        Workshop workshop = workshop(
                "1200,Current,asset,bank,,,400171,\n1210,Yen,asset,bank,,,552,JPY\n",
                statement("400171", "GBP", "7.00", "3.00"),
                statement("552", "JPY", "90", "50"));
        assertThatThrownBy(() -> workshop.run("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("same decimals, not GBP and JPY");
    }

    @Test
    public void aSurveyProposesIt() throws Exception {
        Workshop workshop = workshop(
                "1200,Current,asset,bank,,,400171,\n",
                statement("400171", "GBP", "7.00", "3.00"),
                statement("552", "GBP", "90.00", "50.00"));
        FileSurvey survey = FileSurvey.of(workshop.folder.resolve("all.ofx"));
        assertThat(survey.layout()).contains("account: by number");
        assertThat(survey.survey().questions()).isEmpty();
    }
}
