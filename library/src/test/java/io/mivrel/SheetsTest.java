package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Deliveries of several sheets, and several deliveries and run sheets over one register, told in settings files. */
public class SheetsTest {
    private static final String TWO_SHEETS = """
            delivery: Headings and lines
            takes: invoices
            sheets:
              headings:
                rows: document
                file: {kind: separated, name: "headings-{date}.csv", line ends: LF}
                columns:
                  Number: {field: number}
                  Date:   {field: date, pattern: uuuu-MM-dd}
              lines:
                rows: line
                file: {kind: separated, name: "lines-{date}.csv", line ends: LF, titles: no}
                columns:
                  Number: {field: number}
                  Net:    {field: net}
            """;

    private static final String INVOICES = "1001,INV,CUS-001,01/03/2027,,bell,2,10.00,,ZERO,,4000,\n"
            + "1001,INV,CUS-001,01/03/2027,,rope,1,5.50,,ZERO,,4000,\n"
            + "1002,INV,CUS-001,02/03/2027,,bell,1,7.00,,ZERO,,4000,\n"
            + "1003,INV,CUS-404,02/03/2027,,bell,1,9.00,,ZERO,,4000,\n";

    private Workshop workshop;

    @BeforeMethod
    public void invoices() {
        workshop = new Workshop();
        workshop.put("sheets.yaml", TWO_SHEETS).invoice(INVOICES);
    }

    private String refusal() {
        try {
            workshop.open("invoice");
            return "";
        } catch (SettingsException e) {
            return e.getMessage();
        }
    }

    @Test
    public void sheetsAreJoinedByTheirKeyAndAppearTogether() throws Exception {
        workshop.sheet("invoice", "", "sheets.yaml");
        Outcome outcome = workshop.run("invoice");
        // The invoice that is held is in neither.
        assertThat(outcome.report().held().documents()).isEqualTo(1);
        assertThat(workshop.read("out/headings-2027-04-02.csv"))
                .isEqualTo("Number,Date\n1001,2027-03-01\n1002,2027-03-02\n");
        assertThat(workshop.read("out/lines-2027-04-02.csv")).isEqualTo("1001,20.00\n1001,5.50\n1002,7.00\n");
        assertThat(workshop.run("invoice").report().leftOut()).containsEntry(LeftOut.DELIVERED_BEFORE, 3L);
        assertThat(workshop.names("out")).hasSize(2);
    }

    @Test
    public void aBlockerForTheWholeRunKeepsEverySheetBack() throws Exception {
        workshop.sheet("invoice", "when blocked: hold everything\n", "sheets.yaml");
        workshop.run("invoice");
        assertThat(workshop.names("out")).isEmpty();
    }

    @Test
    public void aSheetThatCannotBeJoinedOrProvedIsRefused() {
        workshop.sheet("invoice", "", "sheets.yaml");
        workshop.put("sheets.yaml", TWO_SHEETS.replace("      Number: {field: number}\n      Net", "      Net"));
        assertThat(refusal()).contains("the sheet 'lines' needs 'number'");
        workshop.put("sheets.yaml", TWO_SHEETS.replace("      Net:    {field: net}\n", ""));
        assertThat(refusal()).contains("no column carries the amount");
        workshop.put("sheets.yaml", TWO_SHEETS.replace("{field: date, pattern: uuuu-MM-dd}", "{field: net}"));
        assertThat(refusal()).contains("the sheet 'headings' has the field").contains("which its rows do not have");
    }

    @Test
    public void aDeliveryAddedLaterGetsEarlierDocumentsWhenThatIsAskedFor() throws Exception {
        workshop.run("invoice");
        workshop.sheet("invoice", "", "flat.yaml, to: out}, {as: sheets.yaml");
        Outcome left = workshop.run("invoice");
        assertThat(left.report().clear().documents()).isZero();
        assertThat(left.findings()).extracting(Finding::rule).contains(Rule.DELIVERED_OTHERWISE);
        assertThat(workshop.names("out")).hasSize(1);

        workshop.replace(
                "invoice.yaml", "{as: sheets.yaml, to: out}", "{as: sheets.yaml, to: out, earlier: deliver too}");
        assertThat(workshop.run("invoice").report().clear().documents()).isEqualTo(2);
        assertThat(workshop.read("out/lines-2027-04-02.csv")).isEqualTo("1001,20.00\n1001,5.50\n1002,7.00\n");
        // The delivery that had them does not get them again, and now both have them.
        assertThat(workshop.names("out")).hasSize(3);
        assertThat(workshop.run("invoice").report().clear().documents()).isZero();
    }

    @Test
    public void anotherNameOfTheRunDeliversNothingTwice() throws Exception {
        workshop.run("invoice");
        workshop.replace("invoice.yaml", "run: invoice", "run: once more");
        assertThat(workshop.run("invoice").report().leftOut()).containsEntry(LeftOut.DELIVERED_BEFORE, 3L);
        assertThat(workshop.names("out")).hasSize(1);
    }

    @Test
    public void anUnknownWordForEarlierIsRefused() {
        workshop.replace("invoice.yaml", "to: out}", "to: out, earlier: again}");
        assertThatThrownBy(() -> workshop.open("invoice")).hasMessageContaining("deliver too");
    }
}
