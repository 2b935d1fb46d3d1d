package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.model.Finding;
import io.mivrel.report.SummaryText;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What receivers' files have besides plain columns, each written, proved and read to the letter. */
public class DeliveryLanguageTest {
    private static final String JOURNAL = "V-1,15/03/2027,5010,block  tin ,200.00,,STD,\n"
            + "V-1,15/03/2027,1200,Calder Vale: tin,,200.00,,\n"
            + "V-2,16/03/2027,5020,copper,0.07,,ZERO,\n"
            + "V-2,16/03/2027,1200,copper,,0.07,,\n";

    private static Workshop workshop(String file, String numbers, String columns) {
        return new Workshop()
                .put(
                        "own.yaml",
                        "delivery: Own\ntakes: journals\nfile: " + file + "\nnumbers: " + numbers + "\ncolumns:\n"
                                + columns.indent(2))
                .sheet("journal", "", "own.yaml")
                .journal(JOURNAL);
    }

    private static Path delivered(Workshop workshop) throws Exception {
        assertThat(workshop.run("journal").summary(SummaryText.Style.PLAIN)).contains("read back: matches");
        return workshop.folder.resolve("out").resolve(workshop.names("out").get(0));
    }

    private static final String FRAMED = """
            {line ends: LF, separator: semicolon,
             rows above: ["sep=;", [JRNL, "{run}", "{date ddMMuuuu}", "{part}"]],
             rows under titles: [[text, day, "", money]],
             last rows: [[TRL, "{rows}", "{documents}", "{sum of Amount}"]]}""";

    private static final String FOUR = """
            Ref: {field: reference}
            Day: {field: date, pattern: dd/MM/uuuu}
            Account: {field: account}
            Amount: {field: amount}
            """;

    @Test
    public void rowsAboveUnderAndBelowAreFilledInAndReadBack() throws Exception {
        assertThat(delivered(workshop(FRAMED, "{decimal: \",\"}", FOUR)))
                .content(StandardCharsets.UTF_8)
                .isEqualTo("""
                        sep=;
                        JRNL;journal;02042027;1
                        Ref;Day;Account;Amount
                        text;day;;money
                        V-1;15/03/2027;5010;200,00
                        V-1;15/03/2027;1200;-200,00
                        V-2;16/03/2027;5020;0,07
                        V-2;16/03/2027;1200;-0,07
                        TRL;4;2;0,00
                        """);
    }

    @Test
    public void partsHaveCountsOfTheirOwn() throws Exception {
        Workshop parts = workshop(
                "{line ends: LF, titles: no, rows at most: 2, name: \"{part}.csv\","
                        + " last rows: [[\"{part}\", \"{rows}\", \"{sum of Out}\"]]}",
                "{decimal: \".\"}",
                """
                Row: {counts: rows, leading zeros: 3}
                Ref: {field: reference}
                Out: {field: credit}
                In: {field: debit}
                Doc: {counts: documents}
                """);
        delivered(parts);
        assertThat(parts.folder.resolve("out/1.csv"))
                .content(StandardCharsets.UTF_8)
                .isEqualTo("001,V-1,0.00,200.00,1\n002,V-1,200.00,0.00,1\n1,2,200.00\n");
        assertThat(parts.folder.resolve("out/2.csv"))
                .content(StandardCharsets.UTF_8)
                .isEqualTo("001,V-2,0.00,0.07,1\n002,V-2,0.07,0.00,1\n2,2,0.07\n");
    }

    @DataProvider
    public Object[][] columns() {
        return new Object[][] {
            {"{field: [reference, narrative], between: \" / \"}", "V-1 / block  tin;V-1 / Calder Vale: tin;V-2 / copper"
            },
            {"{field: narrative, squeeze blanks: yes}", "block tin;Calder Vale: tin;copper"},
            {"{field: narrative, take: \"^([^:]+):\"}", ";Calder Vale;"},
            {"{field: reference, part: 2, divided by: \"-\"}", "1;1;2"},
            {"{field: reference, part: 3, divided by: \"-\"}", ";;"},
            {"{field: account, part: 1, divided by: \"|\"}", "5010;1200;5020"},
            {"{field: tax code, values: {STD: S20, ZERO: \"0 %\"}}", "S20;;0 %"},
            {"{field: narrative, squeeze blanks: yes, at most: 6}", "block;Calder;copper"},
            {"{constant: \"\"}", ";;"},
            {"{counts: rows}", "1;2;3"},
            {"{counts: documents}", "1;1;2"}
        };
    }

    @Test(dataProvider = "columns")
    public void aColumnHasWhatItSays(String column, String says) throws Exception {
        Path file = delivered(workshop(
                "{line ends: LF, titles: no, separator: semicolon}",
                "{decimal: \".\"}",
                "Amount: {field: amount}\nOwn: " + column + "\n"));
        List<String> found = new ArrayList<>();
        java.nio.file.Files.readAllLines(file).forEach(line -> found.add(line.substring(line.indexOf(';') + 1)));
        assertThat(String.join(";", found.subList(0, 3))).isEqualTo(says);
    }

    @DataProvider
    public Object[][] amounts() {
        return new Object[][] {
            {"{negative: brackets}", "", "200.00;(200.00);0.07;(0.07)"},
            {"{negative: trailing minus}", "", "200.00;200.00-;0.07;0.07-"},
            {"{negative: trailing minus}", ", leading zeros: 9", "000200.00;00200.00-;000000.07;00000.07-"},
            {"{negative: brackets, decimal: \",\"}", ", leading zeros: 9", "000200,00;(0200,00);000000,07;(0000,07)"},
            {"{decimal: implied}", ", leading zeros: 9", "000020000;-00020000;000000007;-00000007"},
            {"{decimal: implied, negative: trailing minus}", "", "20000;20000-;7;7-"}
        };
    }

    @Test(dataProvider = "amounts")
    public void amountsHaveTheReceiversSigns(String numbers, String more, String says) throws Exception {
        Path file =
                delivered(workshop("{line ends: LF, titles: no}", numbers, "Amount: {field: amount" + more + "}\n"));
        assertThat(java.nio.file.Files.readString(file)
                        .strip()
                        .replace("\n", ";")
                        .replace("\"", ""))
                .isEqualTo(says);
    }

    @Test
    public void theSideOfAnAmountMayStandInAColumnOfItsOwn() throws Exception {
        Path file = delivered(workshop(
                "{line ends: LF, titles: no}",
                "{decimal: \".\"}",
                "Side: {field: amount, side: [D, C]}\nAmount: {field: amount, sign: none}\n"));
        assertThat(file).content(StandardCharsets.UTF_8).isEqualTo("D,200.00\nC,200.00\nD,0.07\nC,0.07\n");
    }

    @Test
    public void twoColumnsMayHaveOneTitle() throws Exception {
        Path file = delivered(workshop(
                "{line ends: LF}",
                "{decimal: \".\"}",
                "Debit: {title: Amount, field: debit}\nCredit: {title: Amount, field: credit}\nLast: {title: \"\","
                        + " constant: x}\n"));
        assertThat(file).content(StandardCharsets.UTF_8).startsWith("Amount,Amount,\n200.00,0.00,x\n");
    }

    @Test
    public void fixedWidthHasRecordsAboveAndBelow() throws Exception {
        Path file = delivered(workshop(
                "{kind: fixed width, line ends: LF, titles: no, rows above: [\"H{date uuMMdd}\"],"
                        + " last rows: [[\"T{rows}\", \"{sum of Debit}\", \"\"]]}",
                "{decimal: implied}",
                """
                Ref: {field: reference, width: 6}
                Debit: {field: debit, width: 10, leading zeros: 10, align: right}
                Filler: {constant: "", width: 3}
                """));
        assertThat(file)
                .content(StandardCharsets.UTF_8)
                .isEqualTo("H270402\nV-1   0000020000   \nV-1   0000000000   \nV-2   0000000007   \n"
                        + "V-2   0000000000   \nT4         20007   \n");
    }

    @Test
    public void aWorkbookHasDatesNumbersAndASheetOfItsName() throws Exception {
        Path file = delivered(
                workshop(
                        "{kind: workbook, name: a.xlsx, sheet: Journal, rows above: [[Own ledger]], last rows: [[\"\", \"\","
                                + " \"{sum of Amount}\"]]}",
                        "{decimal: \".\"}",
                        "Ref: {field: reference}\nDay: {field: date, pattern: dd/MM/uuuu, cell: date}\nAmount: {field: amount}\n"));
        List<List<String>> found = new ArrayList<>();
        try (RowSource rows = Workbooks.open(file, "Journal")) {
            for (Row row = rows.next(); row != null; row = rows.next()) {
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < row.size(); i++) {
                    cells.add(row.text(i));
                }
                found.add(cells);
            }
        }
        assertThat(found.get(0)).startsWith("Own ledger");
        assertThat(found.get(1)).containsExactly("Ref", "Day", "Amount");
        assertThat(found.get(2)).containsExactly("V-1", "2027-03-15", "200");
        assertThat(found.get(6)).endsWith("0");
    }

    @DataProvider
    public Object[][] gaps() {
        return new Object[][] {
            {"{rows above: [[\"{rows}\"]]}", "Amount: {field: amount}", "known only when all rows are written"},
            {"{last rows: [[\"{sum of Net}\"]]}", "Amount: {field: amount}", "there are {run}"},
            {"{last rows: [[\"{date qq}\"]]}", "Amount: {field: amount}", "{date qq} cannot be filled in"},
            {"{}", "Amount: {field: [amount, narrative]}", "Amount"},
            {"{}", "Amount: {field: amount}\nR: {field: reference, part: 2}", "go together"},
            {"{}", "Amount: {field: amount}\nR: {field: reference, take: \"(\"}", "is not a pattern"},
            {"{}", "Amount: {field: amount}\nR: {counts: lines}", "rows, documents"},
            {"{}", "Amount: {field: amount, sign: none}", "no column with 'side' says it"},
            {"{}", "Amount: {field: amount}\nS: {field: amount, side: [D, D]}", "two words that differ"},
            {"{}", "Amount: {field: amount}\nS: {field: debit, side: [D, C]}", "goes with the field 'amount'"},
            {"{kind: fixed width, rows above: [[a, b]]}", "Amount: {field: amount, width: 9}", "is to be one text"}
        };
    }

    @Test(dataProvider = "gaps")
    public void whatCannotBeWrittenIsRefusedWhenSettingsAreRead(String file, String columns, String says) {
        assertThatThrownBy(() -> workshop(file, "{}", columns + "\n").open("journal"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining(says);
    }

    @Test
    public void aBlankThatIsRequiredHoldsItsDocument() throws Exception {
        Workshop workshop = workshop(
                "{line ends: LF}",
                "{decimal: \".\"}",
                "Ref: {field: reference}\nTax: {field: tax code, required: yes}\nAmount: {field: amount}\n");
        Outcome outcome = workshop.run("journal");
        assertThat(outcome.report().findings().worstFirst())
                .extracting(Finding::rule)
                .contains(io.mivrel.model.Rule.CELL_MISSING);
        assertThat(workshop.names("out")).isEmpty();
    }

    @Test
    public void aDeliveryIsLikeAnotherOneBut() throws Exception {
        Workshop workshop = workshop("{line ends: LF, separator: semicolon}", "{decimal: \".\"}", FOUR)
                .put(
                        "other.yaml",
                        "delivery: Other\nlike: own.yaml\nfile: {separator: tab}\nnumbers: {decimal: \",\"}\n"
                                + "columns:\n  Day: {field: date, pattern: uuuuMMdd}\n  Account: {drop: yes}\n"
                                + "  Text: {field: narrative}\n")
                .sheet("journal", "", "other.yaml");
        assertThat(delivered(workshop))
                .content(StandardCharsets.UTF_8)
                .startsWith("Ref\tDay\tAmount\tText\nV-1\t20270315\t200,00\tblock  tin\n");
    }

    @Test
    public void aDeliveryCannotBeLikeItself() {
        Workshop workshop = workshop("{}", "{}", FOUR)
                .put("a.yaml", "delivery: A\nlike: b.yaml\n")
                .put("b.yaml", "delivery: B\nlike: a.yaml\n")
                .sheet("journal", "", "a.yaml");
        assertThatThrownBy(() -> workshop.open("journal"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("like itself");
    }

    @Test
    public void mistakesOfTheOtherDeliveryAreToldInItsFile() {
        Workshop workshop = workshop("{}", "{}", "Amount: {field: amuont}\n")
                .put("a.yaml", "delivery: A\nlike: own.yaml\n")
                .sheet("journal", "", "a.yaml");
        assertThatThrownBy(() -> workshop.open("journal"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("own.yaml")
                .hasMessageContaining("amuont");
    }
}
