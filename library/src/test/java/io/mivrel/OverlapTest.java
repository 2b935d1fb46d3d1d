package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.model.Finding;
import io.mivrel.report.SummaryText;
import io.mivrel.rows.LeftOut;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** Several statement files of one account: lines in two of them are taken once, and gaps are found. Real files. */
public class OverlapTest {
    private static final String TITLES = "Date,Text,Amount,Balance\n";

    private static Workshop workshop(boolean balances) {
        String layout = "layout: B\ngives: bank lines\naccount: 1200\nfields:\n"
                + "  date: {column: Date, pattern: uuuu-MM-dd}\n  narrative: {column: Text}\n  amount: {column: Amount}\n"
                + (balances ? "  balance: {column: Balance}\n" : "unused: [Balance]\n");
        return new Workshop().takes("bank", "in-*.csv", layout);
    }

    private static Outcome run(Workshop workshop, String... files) throws Exception {
        for (int i = 0; i < files.length; i++) {
            workshop.put("in-" + (i + 1) + ".csv", TITLES + files[i]);
        }
        return workshop.run("bank");
    }

    private static List<String> delivered(Outcome outcome) throws IOException {
        return outcome.report().deliveries().get(0).files().isEmpty()
                ? List.of()
                : Files.readAllLines(java.nio.file.Path.of(outcome.report()
                                .deliveries()
                                .get(0)
                                .files()
                                .get(0)
                                .name()))
                        .stream()
                        .skip(1)
                        .toList();
    }

    private static List<String> rules(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .map(Finding::rule)
                .map(r -> r.id())
                .toList();
    }

    @Test
    public void balancesTellTwoEqualPaymentsOfOneDayApart() throws Exception {
        String first = "2027-03-01,shop,5.00,5.00\n2027-03-02,shop,5.00,10.00\n2027-03-02,shop,5.00,15.00\n";
        String second = "2027-03-02,shop,5.00,10.00\n2027-03-02,shop,5.00,15.00\n2027-03-02,shop,5.00,20.00\n";
        Outcome outcome = run(workshop(true), first, second);
        assertThat(delivered(outcome)).hasSize(4);
        assertThat(outcome.report().leftOut()).containsEntry(LeftOut.TAKEN_ONCE, 2L);
        assertThat(rules(outcome)).containsExactly("lines-taken-once");
        assertThat(outcome.summary(SummaryText.Style.PLAIN)).contains("2 in another file too");
    }

    @Test
    public void withoutBalancesOnlyAsManyAreLeftOutAsStandInTheOtherFile() throws Exception {
        String first = "2027-03-01,shop,5.00,\n2027-03-02,shop,5.00,\n2027-03-02,shop,5.00,\n";
        String second = "2027-03-02,shop,5.00,\n2027-03-02,shop,5.00,\n2027-03-02,shop,5.00,\n2027-03-03,tin,-1.00,\n";
        Outcome outcome = run(workshop(false), first, second);
        assertThat(delivered(outcome)).hasSize(5);
        assertThat(rules(outcome)).containsOnly("line-alike", "lines-taken-once-by-content");
    }

    @Test
    public void aPaymentThatIsEqualOnBothSidesOfTheSeamIsNobodysGuess() throws Exception {
        String first = "2027-03-01,tin,-7.00,\n2027-03-02,shop,5.00,\n";
        String second = "2027-03-02,shop,5.00,\n2027-03-03,tin,-1.00,\n";
        Outcome outcome = run(workshop(false), first, second);
        assertThat(rules(outcome)).containsExactly("lines-taken-once-by-content", "lines-taken-once-by-content");
        assertThat(delivered(outcome)).hasSize(2);
        assertThat(outcome.report().held().rows()).isEqualTo(2);
        assertThat(outcome.status()).isEqualTo(1);
        // With balances the chain tells: it goes on, so there are two.
        Outcome chained = run(
                workshop(true),
                "2027-03-01,tin,-7.00,93.00\n2027-03-02,shop,5.00,98.00\n",
                "2027-03-02,shop,5.00,103.00\n2027-03-03,tin,-1.00,102.00\n");
        assertThat(delivered(chained)).hasSize(4);
        assertThat(rules(chained)).isEmpty();
    }

    @Test
    public void oneFileNeverLosesALineToItself() throws Exception {
        String twice = "2027-03-02,shop,5.00,\n2027-03-02,shop,5.00,\n";
        assertThat(delivered(run(workshop(false), twice))).hasSize(2);
        assertThat(delivered(run(workshop(false), twice, "2027-04-01,tin,-1.00,\n")))
                .hasSize(3);
    }

    @Test
    public void aGapHoldsTheLaterFileAndNamesBoth() throws Exception {
        Outcome outcome = run(
                workshop(true),
                "2027-03-01,shop,5.00,5.00\n",
                "2027-03-04,shop,1.00,9.00\n2027-03-05,shop,1.00,10.00\n",
                "2027-03-06,shop,1.00,11.00\n");
        assertThat(rules(outcome)).containsExactly("statement-gap");
        assertThat(Workshop.told(outcome).get(0).reason())
                .contains("in-1.csv closes on 2027-03-01 with 5.00", "in-2.csv from 2027-03-04 on goes out from 8.00");
        assertThat(outcome.report().held().rows()).isEqualTo(2);
        assertThat(delivered(outcome)).hasSize(2);
        assertThat(outcome.status()).isEqualTo(1);
    }

    @Test
    public void filesMayComeInAnyOrder() throws Exception {
        Outcome outcome = run(workshop(true), "2027-03-03,shop,1.00,6.00\n", "2027-03-01,shop,5.00,5.00\n");
        assertThat(rules(outcome)).isEmpty();
        assertThat(delivered(outcome)).hasSize(2);
    }

    @Test
    public void theSameFileTwiceIsRefused() throws Exception {
        String file = "2027-03-01,shop,5.00,5.00\n2027-03-02,tin,-1.00,4.00\n";
        assertThatThrownBy(() -> run(workshop(true), file, file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("in-2.csv holds the same bytes as in-1.csv");
    }

    // Money in, out and in again on one day: two lines with the same balance, and a cut between them. The days, amounts
    // and
    // balances do not tell them apart, but all lines together do, so the file is held and no line is lost in silence.
    @Test
    public void whatOnlyTheOrderTellsApartIsHeld() throws Exception {
        Outcome outcome = run(
                workshop(true),
                "2027-03-01,shop,5.00,5.00\n2027-03-02,shop,1.00,6.00\n",
                "2027-03-02,shop,-1.00,5.00\n2027-03-02,shop,1.00,6.00\n2027-03-03,shop,2.00,8.00\n");
        assertThat(rules(outcome)).contains("statement-gap");
        assertThat(outcome.status()).isEqualTo(1);
    }

    @Test
    public void identifiersOfTheBankDecideBeforeAnythingElse() throws Exception {
        String head = ":20:R\n:25:1\n:28C:1\n";
        String first =
                head + ":60F:C270301GBP0,\n:61:270302C5,00NTRFA//1\n:86:shop\n:61:270302C5,00NTRFA//2\n:86:shop\n"
                        + ":62F:C270302GBP10,\n";
        String second = head + ":60F:C270302GBP5,\n:61:270302C5,00NTRFA//2\n:86:other words\n:61:270303C5,00NTRFA//3\n"
                + ":86:shop\n:62F:C270303GBP15,\n";
        Workshop workshop = new Workshop()
                .takes("bank", "s-*.sta", "layout: B\ngives: bank lines\naccount: 1200\nfile: {kind: mt940}\n")
                .put("s-1.sta", first)
                .put("s-2.sta", second);
        Outcome outcome = workshop.run("bank");
        assertThat(delivered(outcome)).hasSize(3);
        assertThat(rules(outcome)).containsOnly("lines-taken-once", "statement-account-unchecked");
    }

    // One true account, cut into downloads that overlap at random: every line comes out once, whatever the cuts.
    @Test
    public void randomDownloadsOfOneAccountGiveEveryLineOnce() throws Exception {
        Random random = new Random(8);
        for (int round = 0; round < 25; round++) {
            List<String> lines = new ArrayList<>();
            long balance = 0;
            for (int i = 0; i < 60; i++) {
                long amount = (random.nextInt(500) + 1) * (random.nextBoolean() ? 100L : -100L);
                balance += amount;
                lines.add(String.format("2027-03-%02d,shop,%d.00,%d.00%n", 1 + i / 3, amount / 100, balance / 100));
            }
            List<String> files = new ArrayList<>();
            int from = 0;
            int to = 0;
            while (to < lines.size()) {
                to = Math.min(lines.size(), to + 1 + random.nextInt(25));
                files.add(String.join("", lines.subList(from, to)));
                from = Math.max(0, to - random.nextInt(8));
            }
            Outcome outcome = run(workshop(true), files.toArray(String[]::new));
            assertThat(delivered(outcome))
                    .as(outcome.summary(SummaryText.Style.PLAIN))
                    .hasSize(60);
            assertThat(outcome.report().held().rows()).isZero();
            var totals = outcome.report().clear().totals();
            assertThat(totals.debit() - totals.credit()).isEqualTo(balance);
        }
    }

    @Test
    public void aTextAndAStatementOfTheSameDaysAreNotTakenTwice() throws Exception {
        String ofx = "<OFX><STMTRS><BANKTRANLIST><STMTTRN><DTPOSTED>20270301<TRNAMT>5.00<FITID>A<NAME>shop</STMTTRN>"
                + "<STMTTRN><DTPOSTED>20270303<TRNAMT>-1.00<FITID>B<NAME>tin</STMTTRN></BANKTRANLIST></STMTRS></OFX>";
        Workshop workshop = workshop(true)
                .put("in-1.csv", TITLES + "2027-03-01,shop,5.00,5.00\n2027-03-03,tin,-1.00,4.00\n")
                .put("b.ofx", ofx)
                .put("ofx-layout.yaml", "layout: O\ngives: bank lines\naccount: 1200\nfile: {kind: ofx}\n");
        workshop.replace(
                "bank.yaml", "bank-layout.yaml}", "bank-layout.yaml}, {files: b.ofx, layout: ofx-layout.yaml}");
        Outcome outcome = workshop.run("bank");
        assertThat(rules(outcome)).contains("files-overlap");
        assertThat(delivered(outcome)).hasSize(2);
        assertThat(outcome.report().held().rows()).isEqualTo(2);
    }
}
