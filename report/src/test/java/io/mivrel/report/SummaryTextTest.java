package io.mivrel.report;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.intake.Input;
import io.mivrel.kinds.BankLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import io.mivrel.run.Run;
import io.mivrel.run.RunPlan;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Currency;
import java.util.List;
import org.testng.annotations.Test;

/** The same figures for people, for machines and for whoever asks later. */
public class SummaryTextTest {
    private static final Layout LAYOUT = Layout.named("bank", BankLines.KIND)
            .account("1200")
            .format(FileFormat.csv())
            .field(BankLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
            .field(BankLines.NARRATIVE, "text")
            .field(BankLines.AMOUNT, "amount")
            .build();

    /** Lines with commas between their cells; nothing is quoted. */
    private static RowSource source(List<String> lines) {
        return new RowSource() {
            private final Row row = new Row();
            private int next;

            @Override
            public Row next() {
                if (next == lines.size()) {
                    return null;
                }
                List<String> cells = List.of(lines.get(next++).split(",", -1));
                row.fill(next, cells);
                return row;
            }

            @Override
            public void skipTo(long physicalRow) {
                next = (int) physicalRow - 1;
            }

            @Override
            public void close() {}
        };
    }

    private static List<Input> inputs(String... lines) {
        return List.of(new Input("inbox/bank.csv", LAYOUT, () -> source(List.of(lines))));
    }

    private static RunReport report(List<Input> inputs) throws IOException {
        Books books = Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
                .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
                .build();
        RunPlan plan = RunPlan.named("March", books).inputs(inputs).checkOnly().build();
        return Run.execute(plan, Progress.NONE);
    }

    @Test
    public void figuresComeFirstAndStandUnderOneAnother() throws IOException {
        RunReport report = report(inputs(
                "date,text,amount",
                "2027-03-01,shop,1234.50",
                "2027-03-31,tin,-2.00",
                "2027-03-31,tin,x",
                "2027-02-31,tin,-20.00"));
        assertThat(SummaryText.of(report, List.of("evidence: here"), SummaryText.Style.PLAIN))
                .isEqualTo("""

                Larkmoor Bell Foundry, March   (checked only, nothing delivered)

                  read        5 rows in 1 file, 1 to 31 March 2027
                  left out     1 row   1 title row
                  clear       2 rows   2 bank lines   in 1,234.50   out  2.00
                  held        2 rows   2 bank lines   in     0.00   out 20.00
                  accounted   5 rows = 2 clear + 2 held + 1 left out
                  not proved  2 of 4 rows   in 1,234.50   out 2.00

                  2 blockers hold 2 bank lines
                    inbox/bank.csv row 4, amount: "x": is not an amount (decimal mark '.', thousands mark ',')  [amount-unreadable]
                    inbox/bank.csv row 5, date: "2027-02-31": February 2027 has 28 days  [date-unreadable]
                      -> a row before it is of 2027-03-31

                  1 caution
                    inbox/bank.csv: 2 of 4 rows, in 1,234.50, out 2.00, are not proved by anything, row 2 first  [rows-not-proved]
                      -> Compare them with the statement.

                  evidence: here
                """);
    }

    @Test
    public void manyOfOneRuleAreCountedNotRecited() throws IOException {
        String[] lines = new String[5001];
        lines[0] = "date,text,amount";
        for (int i = 1; i < lines.length; i++) {
            lines[i] = "2027-03-01,tin,1.2.3";
        }
        RunReport report = report(inputs(lines));
        String text = SummaryText.of(report, List.of(), SummaryText.Style.PLAIN);
        assertThat(text).contains("5,000 blockers hold 5,000 bank lines").contains("and 4,988 more like this");
        assertThat(text.lines().count()).isLessThan(40);
        assertThat(report.findings().worstFirst()).hasSize(2000);
        assertThat(report.findings().dropped()).isEqualTo(3000);
        assertThat(OutcomeJson.of(report, null, null, List.of(), 1)).contains("\"findingsNotListed\" : 3000");
    }

    @Test
    public void colourIsOnlyAddedNeverNeeded() throws IOException {
        RunReport report = report(inputs("date,text,amount", "2027-03-01,tin,x"));
        String plain = SummaryText.of(report, List.of(), SummaryText.Style.PLAIN);
        String colour = SummaryText.of(report, List.of(), SummaryText.Style.COLOUR);
        assertThat(plain).doesNotContain("\u001b");
        assertThat(colour.replaceAll("\u001b\\[[0-9;]*m", "")).isEqualTo(plain);
    }

    @Test
    public void theEvidenceKeepsWhatWasSaid() throws IOException {
        Path parent = Files.createTempDirectory("mivrel evidence");
        List<Input> inputs = inputs("date,text,amount", "2027-03-01,=cmd(),x", "2027-03-01,tin,1.00");
        RunReport report = report(inputs);
        for (String expected : List.of("march", "march-2", "march-3")) {
            EvidenceFolder evidence = EvidenceFolder.stage(parent, "march");
            assertThat(evidence.folder().getFileName()).hasToString(expected);
            HeldCopies held = evidence.writeHeld(
                    report,
                    inputs,
                    Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
                            .build(),
                    List.of(),
                    "");
            evidence.writeFindings(report);
            evidence.write("said", "{}", List.of(new EvidenceFolder.FileDigest("input", "a", 1, "x:y")));
            assertThat(evidence.folder()).doesNotExist();
            evidence.reveal();
            assertThat(held.workbook()).isNotNull().exists();
            assertThat(held.texts()).hasSize(1);
            assertThat(held.texts().get(0))
                    .content()
                    .contains("2027-03-01,=cmd(),x,2,")
                    .doesNotContain("tin");
            assertThat(evidence.folder().resolve("summary.txt")).hasContent("said");
            assertThat(evidence.folder().resolve("files.csv")).content().contains("input,a,1,x:y");
            assertThat(evidence.folder().resolve("findings.csv")).content().contains("blocker,amount-unreadable");
        }
    }

    @Test
    public void textsThatASpreadsheetWouldRunAreDefused() {
        assertThat(SpreadsheetText.of("=1+1")).isEqualTo("'=1+1");
        assertThat(SpreadsheetText.of("@x")).isEqualTo("'@x");
        assertThat(SpreadsheetText.of("-5.00")).isEqualTo("-5.00");
        assertThat(SpreadsheetText.of("-5+cmd")).isEqualTo("'-5+cmd");
        assertThat(SpreadsheetText.of("tin")).isEqualTo("tin");
        assertThat(SpreadsheetText.of("")).isEmpty();
    }
}
