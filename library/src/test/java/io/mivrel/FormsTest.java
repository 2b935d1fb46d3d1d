package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** The same journals in each form that a delivered file may have, read back by what reads source files. */
public class FormsTest {
    private static final String COLUMNS = """
            columns:
              Reference: {field: reference, width: 12, leading zeros: 8}
              Date:      {field: date, pattern: uuuu-MM-dd, width: 10}
              Account:   {field: account, width: 10, align: right}
              Text:      {field: narrative, width: 8}
              Amount:    {field: amount, width: 14, align: right, leading zeros: 10}
              Source:    {constant: M, width: 6}
            """;

    private static Path delivered(String file, String journal) throws Exception {
        Workshop workshop = new Workshop()
                .put("own.yaml", "delivery: Own\ntakes: journals\nfile: " + file + "\n" + COLUMNS)
                .sheet("journal", "", "own.yaml")
                .put("journal.csv", Workshop.JOURNAL_TITLES + journal);
        Outcome outcome = workshop.run("journal");
        assertThat(outcome.summary(io.mivrel.report.SummaryText.Style.PLAIN)).contains("read back: matches");
        try (Stream<Path> files = Files.list(workshop.folder.resolve("out"))) {
            return files.filter(f -> !f.getFileName().toString().startsWith("."))
                    .findFirst()
                    .orElseThrow();
        }
    }

    private static final String JOURNAL = "1201,15/03/2027,5010,a long text,1234.50,,,\n"
            + "1201,15/03/2027,1200,tin,,1234.50,,\nJ-2,16/03/2027,5020,ö,,(0.07),,\nJ-2,16/03/2027,1200,,(0.07),,,\n";

    @Test
    public void fixedWidthIsFilledAndCut() throws Exception {
        assertThat(delivered("{kind: fixed width, line ends: LF}", JOURNAL))
                .content(StandardCharsets.UTF_8)
                .isEqualTo("""
                Reference   Date         AccountText            AmountSource
                00001201    2027-03-15      5010a long t    0001234.50M    \s
                00001201    2027-03-15      1200tin         -001234.50M    \s
                J-2         2027-03-16      5020ö           0000000.07M    \s
                J-2         2027-03-16      1200            -000000.07M    \s
                """);
    }

    @Test
    public void aWorkbookHasNumbers() throws Exception {
        Path file = delivered("{kind: workbook, name: own.xlsx}", JOURNAL);
        List<String> rows = new ArrayList<>();
        try (RowSource source = Workbooks.open(file, "")) {
            for (Row row = source.next(); row != null; row = source.next()) {
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < row.size(); i++) {
                    cells.add(row.trimmed(i));
                }
                rows.add(String.join("|", cells));
            }
        }
        // A text that looks like a formula is a text there, and nobody is warned of it.
        Workshop formula = new Workshop()
                .put("own.yaml", "delivery: Own\ntakes: journals\nfile: {kind: workbook, name: own.xlsx}\n" + COLUMNS)
                .sheet("journal", "", "own.yaml")
                .put("journal.csv", Workshop.JOURNAL_TITLES + JOURNAL.replace("tin", "=tin"));
        assertThat(formula.run("journal").findings())
                .extracting(finding -> finding.rule().id())
                .doesNotContain("text-formula");
        assertThat(rows)
                .startsWith(
                        "Reference|Date|Account|Text|Amount|Source", "00001201|2027-03-15|5010|a long t|0001234.50|M")
                .hasSize(5);
    }

    @Test
    public void whatFixedWidthCannotHoldIsSaidBeforehandOrDeliversNothing() throws Exception {
        Workshop workshop = new Workshop()
                .put(
                        "own.yaml",
                        "delivery: Own\ntakes: journals\nfile: {kind: fixed width}\n"
                                + "columns: {A: {field: account}, Long title: {field: amount, width: 3}}\n")
                .sheet("journal", "", "own.yaml")
                .put("journal.csv", Workshop.JOURNAL_TITLES + JOURNAL);
        assertThatThrownBy(() -> workshop.run("journal"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("'A' needs 'width'")
                .hasMessageContaining("'Long title' is longer than its 'width' of 3");
        workshop.put(
                "own.yaml",
                "delivery: Own\ntakes: journals\nfile: {kind: fixed width, titles: no}\n"
                        + "columns: {A: {field: account, width: 4}, B: {field: amount, width: 3}}\n");
        assertThatThrownBy(() -> workshop.run("journal"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining(
                        "the column 'B' is 3 wide, and '1234.50' has 7 characters; nothing was delivered");
        assertThat(workshop.folder.resolve("out")).isEmptyDirectory();
    }
}
