package io.mivrel.bench;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Mivrel;
import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** What is measured is a true run: the generated files are what they claim, and the run finds what is wrong in them. */
public class GeneratorTest {
    private static final int LINES = 60_000;

    private static Path filled() throws Exception {
        Path folder = Files.createTempDirectory("mivrel bench").resolve("data");
        Generator.fill(folder, LINES);
        return folder;
    }

    @Test
    public void theLedgerHasItsFaultsAndNoOthers() throws Exception {
        RunReport report = Mivrel.open(filled().resolve("j.yaml")).run().report();
        assertThat(report.rowsRead()).isEqualTo(LINES + 1);
        // About 15,000 vouchers: 1 in 2,000 unbalanced, and 1 in 5,000 lines with an unknown account.
        assertThat(report.findings().counts().get(Rule.JOURNAL_UNBALANCED)).isBetween(1L, 25L);
        assertThat(report.findings().counts().get(Rule.ACCOUNT_UNKNOWN)).isBetween(2L, 35L);
        assertThat(report.findings().counts()).containsOnlyKeys(Rule.JOURNAL_UNBALANCED, Rule.ACCOUNT_UNKNOWN);
        assertThat(report.clear().rows()).isGreaterThan(LINES * 99L / 100);
    }

    @Test
    public void theBankFileIsProvedWhole() throws Exception {
        RunReport report = Mivrel.open(filled().resolve("b.yaml")).run().report();
        assertThat(report.clear().rows()).isEqualTo(LINES);
        assertThat(report.files().get(0).proof().orElseThrow().holds()).isTrue();
        assertThat(report.files().get(0).proof().orElseThrow().steps()).isEqualTo(LINES - 1);
    }

    @Test
    public void theSameNumberGivesTheSameBytes() throws Exception {
        Path one = filled();
        Path two = filled();
        for (String name : new String[] {"j.csv", "b.csv", "b-coding.csv", "books/chart.csv"}) {
            assertThat(one.resolve(name)).hasSameBinaryContentAs(two.resolve(name));
        }
    }
}
