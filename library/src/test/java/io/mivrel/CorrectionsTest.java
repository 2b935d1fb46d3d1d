package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.corrections.Correction;
import io.mivrel.files.CodingAdditions;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.report.SummaryText;
import io.mivrel.rows.LeftOut;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Held rows on their way home: corrected, coded, kept or left out, in workbooks and text copies, and never twice. */
public class CorrectionsTest {
    /** Rules that are tested here. */
    static final Set<FindingRule> RULES = Set.of(Rule.KEPT_BY_DECISION, Rule.CORRECTION_UNUSED);

    private static final String ROWS = """
            Mon 01/03/2027,shop one,10.00,,110.00
            Tue 03/03/2027,shop two,20.00,,130.00
            Wed 03/03/2027,odd payment,,5.00,125.00
            Thu 04/03/2027,tin,,25.00,100.00
            """;

    // Delivered, held and left out are always what was read.
    private static RunReport closes(Outcome outcome) {
        RunReport report = outcome.report();
        assertThat(report.clear().rows() + report.held().rows() + report.rowsLeftOut())
                .isEqualTo(report.rowsRead());
        return report;
    }

    private static Copies copies(Workshop shop) throws IOException {
        return Copies.in(shop.folder.resolve("corrections"));
    }

    @Test
    public void aWorkbookShowsWhatIsWrongAndTakesItHome() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        Outcome first = shop.run("bank");
        assertThat(closes(first).held().documents()).isEqualTo(2);
        assertThat(first.uncoded())
                .extracting(g -> g.words() + " " + g.direction() + " " + g.sum())
                .containsExactly("odd payment out 500");
        Copies copies = copies(shop);
        assertThat(copies.sheets.keySet()).containsExactly("bank.csv", "Totals", "Uncoded", "Accounts");
        assertThat(copies.sheets.get("bank.csv").get(0))
                .startsWith("Date", "Text", "In", "Out", "Balance", "Mivrel row", "Mivrel problem");
        assertThat(copies.sheets.get("bank.csv")).hasSize(3);
        assertThat(copies.sheets.get("Uncoded").get(1)).contains("odd payment", "out");
        copies.put("bank.csv", "shop two", "Date", "Tue 02/03/2027")
                .put("bank.csv", "odd payment", "Mivrel decision", "6200")
                .save();
        Outcome second = shop.run("bank");
        assertThat(closes(second).hasHeld()).isFalse();
        assertThat(second.report().before().documents()).isEqualTo(2);
        assertThat(second.summary(SummaryText.Style.PLAIN)).contains("taken in", "1 coded by hand, 1 corrected");
        assertThat(shop.delivered())
                .containsOnlyOnce(",2027-03-02,1200,shop two,20.00")
                .containsOnlyOnce(",2027-03-03,6200,odd payment,5.00");
        assertThat(Files.readString(second.evidence().resolve("decisions.csv")))
                .contains("bank.csv,4,account 6200,", "corrections/");
        Outcome third = shop.run("bank");
        assertThat(closes(third).clear().documents()).isZero();
        assertThat(third.report().before().documents()).isEqualTo(4);
    }

    @Test
    public void aWorkbookThatNobodyTouchedGivesWayToTheNext() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        shop.run("bank");
        assertThat(shop.names("corrections")).containsExactly("bank-2027-04-02-2.xlsx");
        copies(shop).put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        shop.run("bank");
        assertThat(shop.names("corrections")).containsExactly("bank-2027-04-02-2.xlsx", "bank-2027-04-02-3.xlsx");
        shop.replace("coding.csv", "tin,out,tin", "tin,out,tin | odd payment");
        assertThat(shop.run("bank").isAllClear()).isTrue();
        assertThat(shop.names("corrections")).containsExactly("bank-2027-04-02-2.xlsx");
    }

    @Test
    public void aChosenAccountCodesThatLineOnly() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop).put("bank.csv", "odd payment", "Mivrel decision", "6200").save();
        shop.bank(ROWS + "Fri 05/03/2027,odd payment,,5.00,95.00\n");
        Outcome outcome = shop.run("bank");
        assertThat(closes(outcome).held().documents()).isEqualTo(2);
        assertThat(shop.delivered()).containsOnlyOnce(",6200,odd payment,");
    }

    @Test
    public void roundsFollowOneAnotherInAnyOrderOfFiles() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        Path one = shop.folder.resolve("corrections/zz.xlsx");
        Copies round = copies(shop);
        round.put("bank.csv", "shop two", "Date", "Tue 02/03/2072").saveAs(one);
        Files.delete(others(shop, one));
        Outcome still = shop.run("bank");
        assertThat(closes(still).held().documents()).isEqualTo(2);
        Copies again = new Copies(others(shop, one));
        assertThat(again.sheets.get("bank.csv").toString())
                .contains("Tue 02/03/2072")
                .contains("/");
        again.put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        Outcome done = shop.run("bank");
        assertThat(closes(done).held().documents()).isEqualTo(1);
        assertThat(shop.delivered()).containsOnlyOnce(",2027-03-02,1200,shop two,20.00");
    }

    private static Path others(Workshop shop, Path one) throws IOException {
        try (Stream<Path> files = Files.list(shop.folder.resolve("corrections"))) {
            return files.filter(f -> !f.equals(one)).findFirst().orElseThrow();
        }
    }

    @Test
    public void aCorrectionFindsItsRowWhereverItStandsAndIsUselessOnceTheSourceIsRight() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop).put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        shop.bank("Mon 01/03/2027,shop nil,100.00,,100.00\n" + ROWS);
        Outcome moved = shop.open("bank").check();
        assertThat(closes(moved).held().documents()).isEqualTo(1);
        shop.bank(ROWS.replace("Tue 03/03/2027,shop two", "Tue 02/03/2027,shop two"));
        Outcome corrected = shop.run("bank");
        assertThat(corrected.report().findings().counts()).containsKey(Rule.CORRECTION_UNUSED);
        assertThat(closes(corrected).held().documents()).isEqualTo(1);
        assertThat(shop.delivered()).containsOnlyOnce("shop two,20.00");
    }

    @Test
    public void textCopiesComeHomeToo() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        Outcome first = shop.run("bank");
        Path copy = first.evidence().resolve("held/bank.csv");
        Files.delete(others(shop, copy));
        String text = Files.readString(copy).replace("Tue 03/03/2027", "Tue 02/03/2027");
        shop.put("corrections/bank.csv", text.replace(',', ';'));
        Outcome second = shop.run("bank");
        assertThat(closes(second).held().documents()).isEqualTo(1);
        assertThat(shop.delivered()).containsOnlyOnce(",2027-03-02,1200,shop two,20.00");
    }

    @Test
    public void leftOutWithAReasonIsAccountedFor() throws Exception {
        Workshop shop = new Workshop()
                .bank(ROWS.replace(",110.00", ",")
                        .replace(",130.00", ",")
                        .replace(",125.00", ",")
                        .replace(",100.00", ","));
        shop.run("bank");
        copies(shop).decide("bank.csv", "odd payment", "leave out").save();
        Outcome second = shop.run("bank");
        assertThat(closes(second).leftOut()).containsEntry(LeftOut.BY_DECISION, 1L);
        assertThat(second.summary(SummaryText.Style.PLAIN))
                .contains("1 by a decision", "bank.csv row 4 left out, says A. Reed on ", ": seen on paper");
        assertThat(Files.readString(second.evidence().resolve("decisions.csv"))).contains("left out,A. Reed,");
    }

    @Test
    public void whatIsTrueAllTheSameIsKeptOnce() throws Exception {
        String bill = "B-1,BILL,SUP-001,04/03/2027,,tin,1,50.00,50.00,STD,10.00,5010,60.00\n";
        Workshop shop = new Workshop().invoice(bill + bill.replace("B-1", "B1"));
        assertThat(shop.run("invoice").report().findings().counts()).containsKey(Rule.DOCUMENT_REPEATED);
        copies(shop).decide("invoice.csv", "B1", "keep").save();
        Outcome kept = shop.run("invoice");
        assertThat(closes(kept).hasHeld()).isFalse();
        assertThat(kept.report().findings().counts()).containsKey(Rule.KEPT_BY_DECISION);
        assertThat(kept.summary(SummaryText.Style.PLAIN)).contains("kept, says A. Reed", "held as document-repeated");
        // It was said of this row, and of no other.
        shop.invoice(bill + bill.replace("B-1", "B1") + bill.replace("B-1", "B.1"));
        assertThat(shop.run("invoice").report().held().documents()).isEqualTo(1);
    }

    @Test
    public void aClosingBalanceKnownToBeWrongIsOverriddenForThatFigureOnly() throws Exception {
        Workshop shop = new Workshop()
                .bank(ROWS.replace("Tue 03", "Tue 02").replace("odd payment", "tin foil") + "Total,,,,99.00\n");
        shop.replace("bank-layout.yaml", "fields:", "stated: {closing: Total}\nfields:");
        Outcome first = shop.run("bank");
        assertThat(first.report().findings().counts()).containsKey(Rule.BALANCE_CLOSING);
        assertThat(closes(first).clear().documents()).isZero();
        copies(shop).decide("Whole files", "99.00", "keep").save();
        Outcome kept = shop.run("bank");
        assertThat(closes(kept).clear().documents())
                .as(kept.summary(SummaryText.Style.PLAIN))
                .isEqualTo(4);
        assertThat(kept.summary(SummaryText.Style.PLAIN)).contains("held as balance-closing");
        shop.replace("bank.csv", "Total,,,,99.00", "Total,,,,98.00");
        assertThat(shop.open("bank").check().report().findings().counts()).containsKey(Rule.BALANCE_CLOSING);
    }

    @Test
    public void whatMayNotBeOverriddenIsHeldAllTheSame() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop)
                .decide("bank.csv", "odd payment", "keep")
                .decide("bank.csv", "shop two", "keep")
                .save();
        // Neither an account that nobody knows nor a date that cannot be can be kept.
        assertThat(closes(shop.run("bank")).held().documents()).isEqualTo(2);
    }

    @Test
    public void whatIsWrongInACopyIsToldAtOnce() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        Copies copies = copies(shop);
        copies.put("bank.csv", "odd payment", "Mivrel decision", "6201")
                .put("bank.csv", "shop two", "Mivrel decision", "keep")
                .save();
        assertThatThrownBy(() -> shop.open("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("'keep' needs 'Mivrel who' and 'Mivrel why'");
        copies.put("bank.csv", "shop two", "Mivrel decision", "").save();
        assertThatThrownBy(() -> shop.open("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("'6201' is not in the chart");
        copies.put("bank.csv", "odd payment", "Mivrel decision", "")
                .put("bank.csv", "shop two", "Mivrel key", "0")
                .save();
        assertThatThrownBy(() -> shop.open("bank")).hasMessageContaining("tell which row it is, and were changed");
        copies.sheets.get("bank.csv").add(List.of("Mon 01/03/2027", "shop new", "1.00", "", "111.00"));
        copies.put("bank.csv", "shop two", "Mivrel key", "00000000000000000000").save();
        assertThatThrownBy(() -> shop.open("bank")).hasMessageContaining("a row was added that was not handed out");
        shop.put("corrections/notes.xlsx", "no workbook");
        assertThatThrownBy(() -> shop.open("bank")).hasMessageContaining("notes.xlsx");
    }

    @Test
    public void twoCopiesThatDisagreeAreAQuestion() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        Copies copies = copies(shop);
        copies.put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        copies.put("bank.csv", "shop two", "Date", "Tue 09/03/2027").saveAs(shop.folder.resolve("corrections/b.xlsx"));
        assertThatThrownBy(() -> shop.open("bank")).hasMessageContaining("corrects the same row otherwise than");
    }

    @Test
    public void taxThatASupplierRoundedIsKept() throws Exception {
        Workshop shop = new Workshop().invoice("B-1,BILL,SUP-001,04/03/2027,,tin,1,50.00,50.00,STD,10.05,5010,60.05\n");
        assertThat(shop.run("invoice").report().findings().counts()).containsKey(Rule.TAX_DIFFERS);
        copies(shop).decide("invoice.csv", "B-1", "keep").save();
        Outcome kept = shop.run("invoice");
        assertThat(closes(kept).clear().documents()).isEqualTo(1);
        assertThat(kept.report().clear().rows()).isEqualTo(1);
    }

    @Test
    public void anAccountIsNotChosenWhereNothingIsCoded() throws Exception {
        Workshop shop = new Workshop().invoice("B-1,BILL,SUP-001,04/03/2027,,tin,1,50.00,50.00,STD,10.00,5011,60.00\n");
        assertThat(shop.run("invoice").report().held().documents()).isEqualTo(1);
        copies(shop).put("invoice.csv", "B-1", "Mivrel decision", "5010").save();
        assertThatThrownBy(() -> shop.open("invoice"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("only for bank lines of a run with a coding table");
        assertThat(shop.bank(ROWS).run("bank").report().held().documents()).isEqualTo(2);
    }

    @Test
    public void whereEverythingIsHeldTheGroupsAreShownAllTheSame() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.sheet(
                "bank", "coding: {table: coding.csv, uncoded: hold}\nwhen blocked: hold everything\n", "journals.yaml");
        assertThat(shop.run("bank").uncoded()).extracting(g -> g.words()).containsExactly("odd payment");
    }

    @Test
    public void columnsOfACopyAreReadByTheirTitles() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        // The two sides change places together with their titles, and another column wanders to the front.
        copies(shop)
                .move("bank.csv", "Out", 2)
                .move("bank.csv", "Balance", 0)
                .put("bank.csv", "shop two", "Date", "Tue 02/03/2027")
                .save();
        Outcome outcome = shop.run("bank");
        assertThat(outcome.summary(SummaryText.Style.PLAIN)).contains("1 corrected");
        assertThat(shop.delivered()).containsOnlyOnce(",2027-03-02,1200,shop two,20.00");
    }

    @DataProvider
    public Object[][] brokenTitles() {
        return new Object[][] {
            {(Consumer<Copies>) copies -> copies.rename("bank.csv", "Out", "Outgoing"), "the column 'Out' is not there"
            },
            {(Consumer<Copies>) copies -> copies.insert("bank.csv", 1, "Note"), "column 2, 'Note', is none"},
            {(Consumer<Copies>) copies -> copies.insert("bank.csv", 1, ""), "column 2, '', is none"},
            {(Consumer<Copies>) copies -> copies.insert("bank.csv", 3, "In"), "its title is there twice"},
        };
    }

    @Test(dataProvider = "brokenTitles")
    public void aTitleThatIsMissingNewOrDoubledIsRefusedByName(Consumer<Copies> breaking, String says)
            throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        Copies copies = copies(shop);
        breaking.accept(copies);
        copies.save();
        assertThatThrownBy(() -> shop.run("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining(says);
    }

    @Test
    public void aNumberOfAWorkbookIsItsValueWhateverTheMarksOfTheLayout() throws Exception {
        Workshop shop = new Workshop()
                .replace("bank-layout.yaml", "fields:", "numbers: {decimal: \",\", thousands: \".\"}\nfields:")
                .bank("Mon 01/03/2027,shop one,\"10,00\",,\"110,00\"\nTue 02/03/2027,shop two,\"x\",,\"111,50\"\n");
        shop.run("bank");
        copies(shop).number("bank.csv", "shop two", "In", "1.5").save();
        Outcome outcome = shop.run("bank");
        assertThat(outcome.isAllClear())
                .as(outcome.summary(SummaryText.Style.PLAIN))
                .isTrue();
        assertThat(shop.delivered()).containsOnlyOnce(",shop two,1.50");
    }

    @Test
    public void aCorrectionFindsItsRowInARenamedFile() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop).put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        Files.move(shop.folder.resolve("bank.csv"), shop.folder.resolve("march.csv"));
        shop.replace("bank.yaml", "files: bank.csv", "files: march.csv");
        Outcome outcome = shop.run("bank");
        assertThat(outcome.summary(SummaryText.Style.PLAIN)).contains("1 corrected");
        assertThat(shop.delivered()).containsOnlyOnce(",2027-03-02,1200,shop two,20.00");
    }

    @Test
    public void aCorrectionOfAFileThatIsGoneIsNamed() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop).put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        Files.delete(shop.folder.resolve("bank.csv"));
        shop.put("april.csv", Workshop.BANK_TITLES + "Thu 01/04/2027,shop four,1.00,,\n");
        shop.replace("bank.yaml", "files: bank.csv", "files: april.csv");
        shop.put("corrections/to do.txt", "ask the bank about shop two\n");
        Outcome outcome = shop.run("bank");
        assertThat(outcome.findings())
                .filteredOn(f -> f.rule() == Rule.CORRECTION_UNUSED)
                .extracting(f -> f.origin().file() + ": " + f.reason())
                .anyMatch(words -> words.startsWith("bank.csv: the correction in corrections/bank-2027-04-02.xlsx")
                        && words.endsWith("found no row: this run reads no file of this name"))
                .anyMatch(words -> words.startsWith("corrections/to do.txt: the text has no rows"));
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void allNonsenseOfASheetIsToldAtOnceAndCaseDoesNotCount() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop)
                .put("bank.csv", "shop two", "Mivrel decision", "KEEP")
                .put("bank.csv", "odd payment", "Mivrel decision", "nonsense")
                .save();
        assertThatThrownBy(() -> shop.run("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("'KEEP' needs 'Mivrel who'")
                .hasMessageContaining("'nonsense' is not in the chart");
    }

    @Test
    public void titlesWithStrokesAndLineEndsComeHomeToo() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.replace("bank-layout.yaml", "{column: Text}", "{column: 4}")
                .replace("bank-layout.yaml", "{column: Balance}", "{column: 5}")
                .replace("bank-layout.yaml", "{column: In}", "{column: 2}")
                .replace("bank-layout.yaml", "{column: Out}", "{column: 3}")
                .put(
                        "bank.csv",
                        "Date,In,Out,\"Text\\|\nof it\",Balance\nMon 01/03/2027,10.00,,shop one,110.00\n"
                                + "Tue 03/03/2027,20.00,,shop two,130.00\n");
        shop.run("bank");
        copies(shop)
                .move("bank.csv", "Balance", 0)
                .put("bank.csv", "shop two", "Date", "Tue 02/03/2027")
                .save();
        Outcome outcome = shop.run("bank");
        assertThat(outcome.isAllClear())
                .as(outcome.summary(SummaryText.Style.PLAIN))
                .isTrue();
        assertThat(shop.delivered()).containsOnlyOnce(",2027-03-02,1200,shop two,20.00");
    }

    private static void savedAt(Path file, String instant) throws Exception {
        Files.setLastModifiedTime(file, FileTime.from(Instant.parse(instant)));
    }

    @Test
    public void aNewerDecisionReplacesAnOlderOneInWhicheverCopy() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        Copies copies = copies(shop);
        Path first = shop.folder.resolve("corrections/a.xlsx");
        Path second = shop.folder.resolve("corrections/z.xlsx");
        copies.put("bank.csv", "shop two", "Mivrel decision", "6200").saveAs(first);
        copies.put("bank.csv", "shop two", "Mivrel decision", "5010 Tin").saveAs(second);
        savedAt(first, "2027-04-02T09:00:00Z");
        savedAt(second, "2027-04-02T10:00:00Z");
        Outcome later = shop.run("bank");
        assertThat(later.report().corrections())
                .filteredOn(c -> c.account() != null)
                .extracting(Correction::account)
                .containsExactly("5010");
        assertThat(Workshop.told(later))
                .extracting(Finding::reason)
                .anyMatch(reason -> reason.contains("z.xlsx") && reason.contains("counts, because it was saved later"));
        // The older one counts once it is saved again.
        Workshop other = new Workshop().bank(ROWS);
        other.run("bank");
        Files.copy(first, other.folder.resolve("corrections/a.xlsx"));
        Files.copy(second, other.folder.resolve("corrections/z.xlsx"));
        savedAt(other.folder.resolve("corrections/a.xlsx"), "2027-04-02T11:00:00Z");
        savedAt(other.folder.resolve("corrections/z.xlsx"), "2027-04-02T10:00:00Z");
        assertThat(other.run("bank").report().corrections())
                .filteredOn(c -> c.account() != null)
                .extracting(Correction::account)
                .containsExactly("6200");
    }

    @Test
    public void decisionsHaveTheOldAndTheNewValue() throws Exception {
        Workshop shop = new Workshop().bank(ROWS);
        shop.run("bank");
        copies(shop).put("bank.csv", "shop two", "Date", "Tue 02/03/2027").save();
        Outcome again = shop.run("bank");
        assertThat(again.report().corrections())
                .filteredOn(c -> !c.after().isEmpty())
                .singleElement()
                .satisfies(c -> assertThat(c.after()).isEqualTo("Date: Tue 02/03/2027"));
        assertThat(Files.readString(again.evidence().resolve("decisions.csv"))).contains("before,after", "Date: ");
    }

    @Test
    public void accountsFilledInForGroupsGoIntoTheCodingTable() throws Exception {
        Workshop shop =
                new Workshop().bank("Mon 01/03/2027,unheard of shape,,5.00,\nTue 02/03/2027,unheard of shape,,6.00,\n");
        shop.run("bank");
        Copies copies = copies(shop);
        String words = copies.sheets.get("Uncoded").get(1).get(2);
        copies.put("Uncoded", words, "account", "6200 Telephone and internet").save();
        CodingAdditions shown = Mivrel.codingAdditions(shop.folder.resolve("bank.yaml"));
        String before = shop.read("coding.csv");
        assertThat(shown.entries())
                .singleElement()
                .satisfies(one ->
                        assertThat(one.cells()).containsEntry("account", "6200").containsEntry("direction", "out"));
        assertThat(shop.read("coding.csv")).isEqualTo(before);
        shown.append();
        assertThat(shop.read("coding.csv")).startsWith(before).contains(words.toLowerCase(Locale.ROOT) + ",out");
        assertThat(Mivrel.codingAdditions(shop.folder.resolve("bank.yaml")).entries())
                .isEmpty();
        assertThat(shop.run("bank").report().clear().documents()).isEqualTo(2);
        copies.put("Uncoded", words, "account", "9999")
                .put("Uncoded", words, "words", "of shape")
                .save();
        String now = shop.read("coding.csv");
        assertThatThrownBy(() ->
                        Mivrel.codingAdditions(shop.folder.resolve("bank.yaml")).append())
                .hasMessageContaining("9999");
        assertThat(shop.read("coding.csv")).isEqualTo(now);
    }
}
