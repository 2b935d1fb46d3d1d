package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Finding;
import io.mivrel.report.HeldCopies;
import io.mivrel.report.SummaryText;
import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.stream.Stream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Held rows go back under the layout of their file: uncorrected they are held again, corrected they go out. Real files. */
public class HeldCopiesTest {
    private static final String LAYOUT = "layout: B\ngives: bank lines\naccount: 1200\nfile: {encoding: windows-1252}\n"
            + "fields:\n  date: {column: Date, pattern: uuuu-MM-dd}\n  narrative: {column: Text}\n"
            + "  amount: {column: Amount}\n  department: {column: Dept}\n";
    private static final String TITLES = "Date,Text,Amount,Dept\n";

    private static List<String> rules(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .map(finding -> finding.rule().id())
                .toList();
    }

    private static String held(Outcome outcome) throws Exception {
        return Files.readString(outcome.held().get(0), Charset.forName("windows-1252"));
    }

    @DataProvider
    public Object[][] damagedRows() {
        return new Object[][] {
            {"2027-03-02,shop\n", "cells-missing"},
            {"2027-03-02,shop,3.00\n", "cells-missing"},
            {"2027-03-02,shop,3.00,7,surplus\n", "cells-extra"},
            {"2027-03-02\n", "cells-missing"},
        };
    }

    @Test(dataProvider = "damagedRows")
    public void aRowOfAnotherWidthIsHeldAgainUntilItIsCorrected(String row, String rule) throws Exception {
        Workshop workshop = new Workshop().takes("bank", "bank.csv", LAYOUT);
        Outcome first = workshop.put("bank.csv", TITLES + "2027-03-01,shop,1.00,7\n" + row)
                .run("bank");
        assertThat(rules(first)).containsExactly(rule);
        String copy = held(first);
        assertThat(copy.lines().findFirst().orElse(""))
                .isEqualTo(
                        "Date,Text,Amount,Dept,Mivrel row,Mivrel problem,Mivrel suggestion,Mivrel decision,Mivrel who,"
                                + "Mivrel why,Mivrel key,Mivrel titles Date|Text|Amount|Dept,Mivrel file");
        Outcome uncorrected = workshop.put("bank.csv", copy).run("bank");
        assertThat(uncorrected.report().clear().rows()).isZero();
        assertThat(uncorrected.report().held().rows()).isEqualTo(1);
        // What was held twice is still under its own titles.
        assertThat(held(uncorrected).lines().findFirst().orElse("")).startsWith("Date,Text,Amount,Dept,Mivrel row");
        String corrected = copy.replace("no cell here,no cell here,no cell here", "shop,3.00,8")
                .replace("shop,no cell here,no cell here", "shop,3.00,8")
                .replace("3.00,no cell here", "3.00,8")
                .replaceAll(",surplus\r", "\r");
        Outcome outcome = workshop.put("bank.csv", corrected).run("bank");
        assertThat(rules(outcome)).isEmpty();
        assertThat(outcome.report().clear().totals().debit()).isEqualTo(3_00);
    }

    @DataProvider
    public Object[][] waysToSave() {
        return new Object[][] {
            {",", StandardCharsets.UTF_8, ""},
            {";", Charset.forName("windows-1252"), ""},
            {";", StandardCharsets.UTF_8, "\ufeff"},
            {"\t", StandardCharsets.UTF_16LE, "\ufeff"}
        };
    }

    @Test(dataProvider = "waysToSave")
    public void aCopyThatASpreadsheetSavedIsRecognised(String separator, Charset charset, String mark)
            throws Exception {
        Workshop workshop = new Workshop().takes("bank", "bank.csv", LAYOUT);
        Outcome first = workshop.put(
                        "bank.csv", TITLES + "2027-03-02,Glocke für Köln,x,7\n", Charset.forName("windows-1252"))
                .run("bank");
        assertThat(rules(first)).containsExactly("amount-unreadable");
        String[] lines = held(first).replace(",x,", ",3.00,").split("\r\n");
        String saved = mark + lines[0].replace(",", separator) + "\r\n"
                + "2027-03-02,Glocke für Köln,3.00,7,2,".replace(",", separator) + "\"was wrong\"" + separator.repeat(7)
                + "\r\n";
        Outcome outcome = workshop.put("bank.csv", saved, charset).run("bank");
        assertThat(Workshop.told(outcome)).extracting(Finding::toString).isEmpty();
        assertThat(Files.readString(java.nio.file.Path.of(
                        outcome.report().deliveries().get(0).files().get(0).name())))
                .contains("2027-03-02,Glocke für Köln,3.00");
    }

    @Test
    public void withoutTitlesTheAddedCellsStandBehindAllThatIsUsed() throws Exception {
        String layout = "layout: B\ngives: bank lines\naccount: 1200\nfile: {titles: none}\nfields:\n"
                + "  date: {column: 1, pattern: uuuu-MM-dd}\n  narrative: {column: 2}\n  amount: {column: 3}\n"
                + "  department: {column: 5}\nunused: [\"4\"]\n";
        Workshop workshop = new Workshop().takes("bank", "bank.csv", layout);
        Outcome first = workshop.put("bank.csv", "2027-03-01,shop,1.00,,7\n2027-03-02,shop,3.00\n")
                .run("bank");
        assertThat(rules(first)).containsExactly("cells-missing");
        assertThat(held(first)).startsWith("2027-03-02,shop,3.00,no cell here,no cell here,2,");
        Outcome again = workshop.put("bank.csv", held(first)).run("bank");
        assertThat(again.report().clear().rows()).isZero();
        assertThat(again.report().held().rows()).isEqualTo(1);
    }

    @Test
    public void bothTitleRowsOfAWorkbookGoIntoItsCopy() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = book.newWorksheet("Bank");
            String[][] rows = {
                {"Booking", "", "Amount"},
                {"date", "Text", "GBP"},
                {"2027-03-01", "shop", "1.00"},
                {"2027-03-02", "shop"}
            };
            for (int r = 0; r < rows.length; r++) {
                for (int c = 0; c < rows[r].length; c++) {
                    sheet.value(r, c, rows[r][c]);
                }
            }
        }
        String layout =
                "layout: B\ngives: bank lines\naccount: 1200\nfile: {kind: workbook, titles: rows 1-2}\nfields:\n"
                        + "  date: {column: Booking date, pattern: uuuu-MM-dd}\n  narrative: {column: Text}\n"
                        + "  amount: {column: Amount GBP}\n";
        Workshop workshop = new Workshop().takes("bank", "bank.xlsx", layout).put("bank.xlsx", out.toByteArray());
        Outcome first = workshop.run("bank");
        assertThat(rules(first)).containsExactly("amount-missing");
        String copy = held(first);
        assertThat(copy).startsWith("Booking date,Text,Amount GBP,Mivrel row,").contains("2027-03-02,shop,,4,");
        Outcome outcome = workshop.put("bank.xlsx", copy.replace("shop,,4", "shop,5.00,4"))
                .run("bank");
        assertThat(rules(outcome)).isEmpty();
        assertThat(outcome.report().clear().totals().debit()).isEqualTo(5_00);
    }

    @Test
    public void evidenceAndCopiesAreForTheirOwnerOnly() throws Exception {
        Workshop workshop = new Workshop().journal("1,01/03/2027,9999,tin,1.00,,,\n1,01/03/2027,2900,tin,,1.00,,\n");
        Outcome outcome = workshop.run("journal");
        try (Stream<Path> all = Files.walk(outcome.evidence())) {
            for (Path one : all.toList()) {
                assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(one)))
                        .as(one.toString())
                        .isEqualTo(Files.isDirectory(one) ? "rwx------" : "rw-------");
            }
        }
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(outcome.workbook())))
                .isEqualTo("rw-------");
        assertThat(outcome.summary(SummaryText.Style.PLAIN)).doesNotContain("can look into");
        Files.setPosixFilePermissions(outcome.evidence().getParent(), PosixFilePermissions.fromString("rwxr-xr-x"));
        assertThat(workshop.run("journal").summary(SummaryText.Style.PLAIN))
                .contains("others on this machine can look into", "chmod 700");
    }

    @Test
    public void aWorkbookThatHasNotAllRowsSaysSo() throws Exception {
        StringBuilder rows = new StringBuilder();
        for (int i = 1; i <= HeldCopies.MOST_IN_WORKBOOK + 5; i++) {
            rows.append(i).append(",01/03/2027,9999,tin,1.00,,,\n");
        }
        assertThat(new Workshop().journal(rows.toString()).run("journal").summary(SummaryText.Style.PLAIN))
                .contains("the workbook has 20,000 of 20,005 held rows; all of them are in");
    }
}
