package io.mivrel.files.statements;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What banks write into {@code :86:}, in their three ways. */
public class InformationTest {
    private static StatementEntry filled(String supplement, String... lines) {
        Information information = new Information();
        for (String line : lines) {
            information.add(line);
        }
        StatementEntry entry = new StatementEntry(1);
        information.fill(entry, supplement);
        return entry;
    }

    @DataProvider
    public static Object[][] texts() {
        return new Object[][] {
            {new String[] {"paid for tin"}, "paid for tin", "", ""},
            {new String[] {"paid for", "tin"}, "paid for tin", "", ""},
            {
                new String[] {"166?00TRANSFER?20paid f", "or tin?30BANKDEFF?31123?32TIN ?33WORKS"},
                "paid for tin",
                "TIN WORKS",
                ""
            },
            {new String[] {"166?00CHARGES"}, "CHARGES", "", ""},
            {new String[] {"166>00X>20a>21b>60c"}, "abc", "", ""},
            {new String[] {"166?20EREF+E1?21KREF+K?22SVWZ+paid for?23 tin?32W"}, "paid for tin", "W", "E1"},
            {new String[] {"166?20EREF+NOTPROVIDED?22SVWZ+tin"}, "tin", "", ""},
            {new String[] {"166?20words SVWZ+tin"}, "words tin", "", ""},
            {new String[] {"/TRCD/00100/NAME/TIN WORKS/REMI/USTD//invoice 7/EREF/E9"}, "invoice 7", "TIN WORKS", "E9"},
            {new String[] {"/EREF/NOTPROVIDED/CNTP/GB1/WEXCGB2L/TIN WORKS/TOWN//REMI/x"}, "x", "TIN WORKS", ""},
            {new String[] {"1/2 inch rope"}, "1/2 inch rope", "", ""},
            {new String[] {"/UNKNOWN/word"}, "/UNKNOWN/word", "", ""},
        };
    }

    @Test(dataProvider = "texts")
    public void isTakenApart(String[] lines, String narrative, String payee, String reference) {
        StatementEntry entry = filled("", lines);
        assertThat(entry.narrative()).isEqualTo(narrative);
        assertThat(entry.payee()).isEqualTo(payee);
        assertThat(entry.cells().get(io.mivrel.layout.StatementColumns.ALL.indexOf("reference")))
                .isEqualTo(reference);
    }

    @Test
    public void theSupplementStandsInWhereNothingIsSaid() {
        assertThat(filled("cheque 7").narrative()).isEqualTo("cheque 7");
        assertThat(filled("cheque 7", "tin").narrative()).isEqualTo("tin");
    }

    @Test
    public void yearsOfMt940LieWithinItsWindow() {
        assertThat(Mt940Rows.date("270228")).hasToString("2027-02-28");
        assertThat(Mt940Rows.date("790101")).hasToString("2079-01-01");
        assertThat(Mt940Rows.date("800101")).hasToString("1980-01-01");
        assertThat(Mt940Rows.date("270229")).isNull();
        assertThat(Mt940Rows.date("271301")).isNull();
    }
}
