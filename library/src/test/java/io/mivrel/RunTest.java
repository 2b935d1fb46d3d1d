package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.delivery.DeliveredFile;
import io.mivrel.intake.BalanceProof;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.report.SummaryText;
import io.mivrel.rows.LeftOut;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.testng.annotations.Test;

/** Whole runs on real files: what comes out, what is held, what is remembered. */
public class RunTest {
    private static final String BANK = """
            Mon 01/03/2027,shop one,12.00,,112.00
            Mon 01/03/2027,shop one,12.00,,124.00
            Tue 02/03/2027,tin,,"1,000.50",-876.50
            ,Total,,,-876.50
            """;

    private static String voucher(int reference, long minor) {
        String amount = minor / 100 + "." + String.format("%02d", minor % 100);
        return reference + ",01/03/2027,5010,tin," + amount + ",,,\n" + reference + ",01/03/2027,2100,tin,," + amount
                + ",,\n";
    }

    @Test
    public void aBankFileBecomesBalancedJournals() throws Exception {
        Workshop workshop = new Workshop().bank(BANK);
        Outcome outcome = workshop.run("bank");
        assertThat(outcome.isAllClear()).isTrue();
        assertThat(workshop.read("out/journals-bank-2027-04-02-1.csv")).isEqualTo("""
                Reference,Date,Account,Text,Amount
                1200-270301-2,2027-03-01,1200,shop one,12.00
                1200-270301-2,2027-03-01,4000,shop one,-10.00
                1200-270301-2,2027-03-01,2200,shop one,-2.00
                1200-270301-3,2027-03-01,1200,shop one,12.00
                1200-270301-3,2027-03-01,4000,shop one,-10.00
                1200-270301-3,2027-03-01,2200,shop one,-2.00
                1200-270302-4,2027-03-02,1200,tin,-1000.50
                1200-270302-4,2027-03-02,5010,tin,1000.50
                """);
        BalanceProof proof = outcome.report().files().get(0).proof().orElseThrow();
        assertThat(proof).isEqualTo(new BalanceProof(2, 0, 100_00, -976_50, -876_50, true));
        assertThat(outcome.summary(SummaryText.Style.PLAIN))
                .contains("opening 100.00 + movement -976.50 = -876.50 = closing, as the statement says")
                .contains("5 rows = 3 clear + 0 held + 2 left out");
    }

    @Test
    public void newestFirstIsProvedTheOtherWayRound() throws Exception {
        String rows = """
                Tue 02/03/2027,tin,,"1,000.50",-876.50
                Mon 01/03/2027,shop two,12.00,,124.00
                Mon 01/03/2027,shop one,12.00,,112.00
                """;
        Workshop workshop = new Workshop().bank(rows);
        assertThat(workshop.open("bank").check().report().findings().worstFirst())
                .anySatisfy(f -> assertThat(f.suggestion()).contains("order: newest first"));
        workshop.replace("bank-layout.yaml", "until: Total", "until: Total, order: newest first");
        BalanceProof proof =
                workshop.run("bank").report().files().get(0).proof().orElseThrow();
        assertThat(proof).isEqualTo(new BalanceProof(2, 0, 100_00, -976_50, -876_50, false));
        assertThat(proof.holds()).isTrue();
    }

    @Test
    public void aCardRunsTheOtherWayRound() throws Exception {
        Workshop workshop = new Workshop().put("bank.csv", "Date,Text,Amount\nMon 01/03/2027,tin,5.00\n");
        workshop.replace(
                "bank-layout.yaml",
                "  money in:  {column: In}\n  money out: {column: Out}\n  balance:   {column: Balance}\n",
                "  amount: {column: Amount}\n");
        workshop.replace("bank-layout.yaml", "gives:", "signs: reversed\ngives:");
        RunReport report = workshop.run("bank").report();
        assertThat(report.clear().totals().credit()).isEqualTo(5_00);
        assertThat(report.clear().totals().debit()).isZero();
    }

    @Test
    public void anUnreadableAmountIsToldByTheBalance() throws Exception {
        Outcome outcome =
                new Workshop().bank(BANK.replace("\"1,000.50\"", "l000.5O")).run("bank");
        assertThat(Workshop.told(outcome))
                .anySatisfy(f -> assertThat(f.suggestion()).isEqualTo("the running balance says 1,000.50 out"));
        assertThat(outcome.report().files().get(0).proof().orElseThrow().holds())
                .isFalse();
    }

    @Test
    public void invoicesAreDeliveredFlatOrAsTheirDoubleEntry() throws Exception {
        String rows = """
                10,INV,CUS-001,01/03/2027,,bell,2,50.25,,STD,,4000,120.60
                C1,CRN,CUS-001,02/03/2027,,bell,,,10.00,STD,2.00,4000,12.00
                B7,BILL,SUP-001,03/03/2027,,tin,,,100.00,ZERO,,5010,100.00
                """;
        Workshop workshop = new Workshop().invoice(rows);
        assertThat(workshop.run("invoice").isAllClear()).isTrue();
        assertThat(workshop.read("out/invoices-2027-04-02.csv")).isEqualTo("""
                Kind,Number,Date,Net,Tax
                invoice,10,2027-03-01,100.50,20.10
                credit note,C1,2027-03-02,10.00,2.00
                bill,B7,2027-03-03,100.00,0.00
                """);
        workshop.sheet("invoice", "", "journals.yaml").replace("invoice.yaml", "run: invoice", "run: entries");
        // They went out by another delivery, so this one gets them only when that is asked for.
        RunReport asked = workshop.run("invoice").report();
        assertThat(asked.before().documents()).isEqualTo(3);
        assertThat(asked.findings().counts()).containsEntry(Rule.DELIVERED_OTHERWISE, 1L);
        workshop.replace("invoice.yaml", "to: out", "to: out, earlier: deliver too");
        RunReport too = workshop.run("invoice").report();
        assertThat(too.clear().documents()).isEqualTo(3);
        assertThat(workshop.run("invoice").report().before().documents()).isEqualTo(3);
        assertThat(workshop.read("out/journals-entries-2027-04-02-1.csv")).isEqualTo("""
                Reference,Date,Account,Text,Amount
                10,2027-03-01,1300,"invoice 10, St Aldhelm",120.60
                10,2027-03-01,4000,bell,-100.50
                10,2027-03-01,2200,"invoice 10, St Aldhelm",-20.10
                C1,2027-03-02,1300,"credit note C1, St Aldhelm",-12.00
                C1,2027-03-02,4000,bell,10.00
                C1,2027-03-02,2200,"credit note C1, St Aldhelm",2.00
                B7,2027-03-03,2100,"bill B7, Calder Vale",-100.00
                B7,2027-03-03,5010,tin,100.00
                """);
    }

    @Test
    public void theSameRunTwiceDeliversNothingTwice() throws Exception {
        Workshop workshop = new Workshop().bank(BANK);
        workshop.run("bank");
        RunReport second = workshop.run("bank").report();
        assertThat(second.clear().documents()).isZero();
        assertThat(second.leftOut()).containsEntry(LeftOut.DELIVERED_BEFORE, 3L);
        assertThat(second.deliveries()).allSatisfy(d -> assertThat(d.files()).isEmpty());
        assertThat(workshop.names("out")).hasSize(1);
    }

    @Test
    public void anotherTextOfTheSameLineIsStillTheSameLine() throws Exception {
        Workshop workshop = new Workshop().bank(BANK);
        workshop.run("bank");
        workshop.replace("bank.csv", "shop one", "shop one corrected");
        assertThat(workshop.run("bank").report().before().documents()).isEqualTo(3);
    }

    @Test
    public void aCorrectedFileDeliversOnlyWhatWasHeld() throws Exception {
        Workshop workshop = new Workshop().bank(BANK.replace("shop one,12.00,,124", "unheard,12.00,,124"));
        assertThat(workshop.run("bank").report().held().documents()).isEqualTo(1);
        workshop.replace("bank.csv", "unheard", "shop two");
        RunReport second = workshop.run("bank").report();
        assertThat(second.clear().documents()).isEqualTo(1);
        assertThat(second.before().documents()).isEqualTo(2);
        assertThat(workshop.read("out/journals-bank-2027-04-02-1-2.csv").lines())
                .hasSize(4);
    }

    @Test
    public void heldRowsCanBeCorrectedAndFedBack() throws Exception {
        Workshop workshop = new Workshop()
                .bank(BANK.replace("Tue 02", "Wed 02").replace("shop one,12.00,,124", "unheard,12.00,,124"));
        Outcome first = workshop.run("bank");
        String held = Files.readString(first.held().get(0));
        assertThat(held.lines()
                        .map(line -> line.replaceFirst(",(Mivrel decision|,,,).*$", ""))
                        .toList())
                .containsExactly(
                        "Date,Text,In,Out,Balance,Mivrel row,Mivrel problem,Mivrel suggestion",
                        "Mon 01/03/2027,unheard,12.00,,124.00,3,narrative: no entry of the coding table fits 12.00 in,"
                                + "add an entry with a word of this text and the direction in",
                        "Wed 02/03/2027,tin,,\"1,000.50\",-876.50,4,Date: 02/03/2027 is a Tuesday,"
                                + "day and month swapped? 03/02/2027 fits the day name");
        workshop.put("bank.csv", held.replace("unheard", "shop two").replace("Wed 02", "Tue 02"));
        RunReport second = workshop.run("bank").report();
        assertThat(second.clear().documents()).isEqualTo(2);
        assertThat(second.held().documents()).isZero();
    }

    @Test
    public void aPilotDeliversTheFirstFewAndLeavesTheRestForLater() throws Exception {
        Workshop workshop = new Workshop().journal(voucher(1, 100) + voucher(2, 200) + voucher(3, 300));
        RunReport pilot = workshop.open("journal").first(1).run().report();
        assertThat(pilot.clear().documents()).isEqualTo(1);
        assertThat(pilot.leftOut()).containsEntry(LeftOut.BEYOND_PILOT, 4L);
        RunReport rest = workshop.run("journal").report();
        assertThat(rest.clear().documents()).isEqualTo(2);
        assertThat(rest.before().documents()).isEqualTo(1);
    }

    @Test
    public void oneBlockerCanHoldEverything() throws Exception {
        Workshop workshop = new Workshop().journal(voucher(1, 100) + "2,01/03/2027,5010,tin,5.00,,,\n");
        workshop.sheet("journal", "when blocked: hold everything\n", "journals.yaml");
        RunReport report = workshop.run("journal").report();
        assertThat(report.clear().rows()).isZero();
        assertThat(report.held().rows()).isEqualTo(3);
        assertThat(workshop.names("out")).isEmpty();
        workshop.journal(voucher(1, 100));
        assertThat(workshop.run("journal").report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void aFileThatFailsAsAWholeIsHeldAsAWhole() throws Exception {
        Workshop workshop = new Workshop().bank(BANK.replace(",Total,,,-876.50", ",Total,,,-8.76"));
        RunReport report = workshop.run("bank").report();
        assertThat(report.clear().documents()).isZero();
        assertThat(report.held().documents()).isEqualTo(3);
        assertThat(workshop.names("out")).isEmpty();
    }

    @Test
    public void partsAreDividedBetweenDocuments() throws Exception {
        Workshop workshop = new Workshop().journal(voucher(1, 100) + voucher(2, 200) + voucher(3, 300));
        workshop.replace("journals.yaml", "file: {", "file: {rows at most: 5, ");
        DeliveredFile delivered = workshop.run("journal").report().deliveries().get(0);
        assertThat(delivered.files()).hasSize(2);
        assertThat(workshop.read("out/journals-journal-2027-04-02-1.csv").lines())
                .hasSize(5);
        assertThat(workshop.read("out/journals-journal-2027-04-02-2.csv").lines())
                .hasSize(3);
    }

    @Test
    public void onlyTheWantedDatesAreTaken() throws Exception {
        Workshop workshop = new Workshop().bank(BANK);
        workshop.sheet(
                "bank",
                "dates: 2027-03-02 to 2027-03-31\ncoding: {table: coding.csv, uncoded: hold}\n",
                "journals.yaml");
        RunReport report = workshop.run("bank").report();
        assertThat(report.leftOut()).containsEntry(LeftOut.OUTSIDE_DATES, 2L);
        workshop.replace("bank.yaml", "2027-03-02 to", "2027-03-01 to");
        assertThat(workshop.run("bank").report().clear().documents()).isEqualTo(2);
    }

    @Test
    public void aCheckWritesNothing() throws Exception {
        Workshop workshop = new Workshop().bank(BANK);
        Outcome outcome = workshop.open("bank").check();
        assertThat(outcome.report().clear().documents()).isEqualTo(3);
        assertThat(workshop.names("")).doesNotContain("out", "evidence", ".mivrel");
    }

    @Test
    public void aCheckOfOnesOwnCanHold() throws Exception {
        Workshop workshop = new Workshop().journal(voucher(1, 100) + voucher(2, 200));
        RunReport report = workshop.open("journal")
                .check((document, findings) -> {
                    if (document.reference().equals("2")) {
                        Origin origin = document.origin();
                        findings.accept(new Finding(Rule.ACCOUNT_RESERVED, origin, "", "", "not this one", ""));
                    }
                })
                .run()
                .report();
        assertThat(report.clear().documents()).isEqualTo(1);
        assertThat(report.held().documents()).isEqualTo(1);
    }

    @Test
    public void evidenceNamesWhatWentInAndCameOut() throws Exception {
        Workshop workshop = new Workshop().bank(BANK.replace("shop one", "=shop()"));
        Path evidence = workshop.run("bank").evidence();
        assertThat(Files.readString(evidence.resolve("files.csv")))
                .contains("input,bank.csv,")
                .contains("output,out/journals-bank-2027-04-02-1.csv,")
                .contains("settings,books/chart.csv,")
                .containsPattern("sha-512:[0-9a-f]{128}");
        assertThat(Files.readString(evidence.resolve("findings.csv"))).contains("'=shop()");
        assertThat(evidence.resolve("settings/bank.yaml")).exists();
        assertThat(evidence.resolve("summary.txt")).content().contains("read back: matches");
    }

    @Test
    public void twoRunsAtOnceWaitForOneAnother() throws Exception {
        Workshop workshop = new Workshop().bank(BANK);
        Mivrel one = workshop.open("bank");
        Mivrel two = workshop.open("bank");
        var other = java.util.concurrent.CompletableFuture.supplyAsync(() -> {
            try {
                return two.run().report().clear().documents();
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
        long mine = one.run().report().clear().documents();
        assertThat(mine + other.join()).isEqualTo(3);
    }

    @Test
    public void aFailingDeliveryLeavesNothingBehind() throws Exception {
        Workshop workshop = new Workshop().bank(BANK).put("out", "a file where the folder should be");
        assertThatThrownBy(() -> workshop.run("bank")).isInstanceOf(IOException.class);
        Files.delete(workshop.folder.resolve("out"));
        assertThat(workshop.run("bank").report().clear().documents()).isEqualTo(3);
    }

    @Test
    public void evidenceThatCannotBeKeptIsSaidAndNothingIsDeliveredTwice() throws Exception {
        Workshop workshop = new Workshop().bank(BANK).put("evidence", "a file where the folder should be");
        assertThatThrownBy(() -> workshop.run("bank"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("the evidence could not be kept, so nothing was delivered")
                .hasMessageContaining("evidence is in the way");
        assertThat(workshop.names("out")).isEmpty();
        Files.delete(workshop.folder.resolve("evidence"));
        assertThat(workshop.run("bank").report().clear().documents()).isEqualTo(3);
        assertThat(workshop.run("bank").report().clear().documents()).isZero();
    }

    @Test
    public void anythingCutOffAnywhereIsFoundOrFits() throws Exception {
        String whole = Workshop.BANK_TITLES + BANK;
        Workshop workshop = new Workshop();
        for (int length = 0; length < whole.length(); length++) {
            RunReport report = workshop.put("bank.csv", whole.substring(0, length))
                    .open("bank")
                    .check()
                    .report();
            assertThat(report.clear().documents()).isLessThanOrEqualTo(3);
        }
    }

    @Test
    public void bytesFlippedAtRandomNeverBreakTheCounts() throws Exception {
        byte[] whole = (Workshop.JOURNAL_TITLES + voucher(1, 123_45) + voucher(2, 99) + voucher(3, 7)).getBytes();
        Workshop workshop = new Workshop();
        Random random = new Random(11);
        for (int round = 0; round < 500; round++) {
            byte[] flipped = whole.clone();
            for (int i = 0; i <= random.nextInt(4); i++) {
                flipped[random.nextInt(flipped.length)] = (byte) random.nextInt(256);
            }
            RunReport report =
                    workshop.put("journal.csv", flipped).open("journal").check().report();
            assertThat(report.clear().totals().debit())
                    .isEqualTo(report.clear().totals().credit());
        }
    }
}
