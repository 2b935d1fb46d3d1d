package io.mivrel.examples;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Larkmoor Bell Foundry has every kind of disorder that the story needs, and the story comes out the same by hand. */
public class DemoDataTest {
    private Path folder;

    @BeforeMethod
    public void unpack() throws IOException {
        folder = Files.createTempDirectory("mivrel demo").resolve("larkmoor");
        DemoData.unpack(folder);
    }

    private RunReport check(String sheet) throws Exception {
        return Mivrel.open(folder.resolve(sheet)).check().report();
    }

    private static List<FindingRule> blockers(RunReport report) {
        return report.findings().worstFirst().stream()
                .filter(Finding::blocks)
                .map(Finding::rule)
                .toList();
    }

    @Test
    public void theBankFileIsOneMonthOfDisorder() throws Exception {
        List<String> lines =
                Files.readAllLines(folder.resolve("inbox/current-2027-03.csv"), Charset.forName("windows-1252"));
        assertThat(lines.get(3)).startsWith("Booked,Kind,Details");
        assertThat(lines.stream().filter(l -> l.matches("[A-Z][a-z]{2} .*"))).hasSizeGreaterThanOrEqualTo(150);
        assertThat(String.join("\n", lines)).contains("SOCIÉTÉ D'HORLOGERIE");
        RunReport report = check("bank.yaml");
        assertThat(report.files().get(0).proof().orElseThrow().holds()).isTrue();
        assertThat(blockers(report)).contains(Rule.DATE_UNREADABLE, Rule.DATE_WEEKDAY, Rule.UNCODED);
    }

    @Test
    public void theLedgerHasOneOfEachFault() throws Exception {
        RunReport report = check("ledger.yaml");
        assertThat(report.clear().documents() + report.held().documents()).isGreaterThanOrEqualTo(120);
        assertThat(report.rowsRead()).isGreaterThanOrEqualTo(400);
        assertThat(blockers(report))
                .containsExactlyInAnyOrder(
                        Rule.PERIOD_CLOSED, Rule.ACCOUNT_CLOSED, Rule.JOURNAL_UNBALANCED, Rule.ACCOUNT_UNKNOWN);
        assertThat(report.findings().counts()).containsKeys(Rule.AMOUNT_NEGATIVE_ON_SIDE, Rule.REFERENCE_RETURNS);
    }

    @Test
    public void theInvoiceListHasCreditsBillsAndADuplicate() throws Exception {
        String list = Files.readString(folder.resolve("inbox/invoices-2027-03.csv"));
        assertThat(list).contains(";INV;", ";CRN;", ";BILL;");
        RunReport report = check("invoices.yaml");
        assertThat(report.clear().documents() + report.held().documents()).isGreaterThanOrEqualTo(25);
        assertThat(blockers(report)).contains(Rule.DOCUMENT_REPEATED, Rule.TOTAL_DIFFERS, Rule.PARTY_UNKNOWN);
    }

    @Test
    public void everyDeliveredJournalBalances() throws Exception {
        for (String sheet : DemoData.RUN_SHEETS) {
            Outcome outcome = Mivrel.open(folder.resolve(sheet)).run();
            assertThat(outcome.evidence()).isDirectory();
        }
        int files = 0;
        try (var out = Files.newDirectoryStream(folder.resolve("out"), "journals-signed-*")) {
            for (Path file : out) {
                Map<String, Long> sums = new TreeMap<>();
                for (String line :
                        Files.readAllLines(file, StandardCharsets.UTF_8).subList(1, 10)) {
                    assertThat(line).endsWith(",MIVREL");
                }
                for (String line : Files.readAllLines(file, StandardCharsets.UTF_8)) {
                    String[] cells = line.split(",");
                    String amount = cells[cells.length - 2];
                    if (!amount.equals("Amount")) {
                        sums.merge(cells[0], Long.parseLong(amount.replace(".", "")), Long::sum);
                    }
                }
                assertThat(sums)
                        .hasSizeGreaterThan(100)
                        .allSatisfy((reference, sum) -> assertThat(sum).isZero());
                files++;
            }
        }
        assertThat(files).isEqualTo(2);
    }
}
