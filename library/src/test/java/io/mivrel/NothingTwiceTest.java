package io.mivrel;

import static io.mivrel.Workshop.INVOICE_TITLES;
import static io.mivrel.Workshop.JOURNAL_TITLES;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.model.Finding;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.List;
import org.testng.SkipException;
import org.testng.annotations.Test;

/** What is there twice goes out once, whatever it is called: within a run and against the register. On real files. */
public class NothingTwiceTest {
    private static final String VOUCHER = "V1,01/03/2027,5010,tin,30.00,,,\nV1,01/03/2027,1200,tin,,30.00,,\n";

    private static String voucher(String reference, String date) {
        return VOUCHER.replace("V1", reference).replace("01/03/2027", date);
    }

    private static String bill(String number, String date) {
        return number + ",BILL,SUP-001," + date + ",,tin,1,50.00,50.00,STD,10.00,5010,60.00\n";
    }

    private static List<String> rules(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .map(finding -> finding.rule().id())
                .toList();
    }

    private static List<String> said(Outcome outcome) {
        return Workshop.told(outcome).stream().map(Finding::toString).toList();
    }

    @Test
    public void aVoucherTwiceInAFileIsHeldAndBothPlacesAreShown() throws Exception {
        for (String between : List.of("", voucher("V2", "02/03/2027").replace("30.00", "31.00"))) {
            Outcome outcome = new Workshop()
                    .put("journal.csv", JOURNAL_TITLES + VOUCHER + between + VOUCHER)
                    .run("journal");
            assertThat(rules(outcome)).contains("lines-repeated");
            int again = between.isEmpty() ? 4 : 6;
            assertThat(said(outcome).get(0))
                    .contains("row " + again, "rows 2, 3 and again rows " + again + ", " + (again + 1));
            assertThat(outcome.report().held().documents()).isEqualTo(1);
        }
    }

    @Test
    public void equalLinesOfAVoucherAreNoRepetition() throws Exception {
        String lines = "V1,01/03/2027,5010,tin,30.00,,,\nV1,01/03/2027,5010,tin,30.00,,,\n"
                + "V1,01/03/2027,1200,tin,,60.00,,\n";
        assertThat(rules(new Workshop()
                        .put("journal.csv", JOURNAL_TITLES + lines)
                        .run("journal")))
                .isEmpty();
    }

    @Test
    public void aHeldDuplicateStaysHeldWhenItsTwinWasDeliveredBefore() throws Exception {
        String both = INVOICE_TITLES + bill("TR-66", "01/03/2027") + bill("TR-066", "01/03/2027");
        Workshop workshop = new Workshop().put("invoice.csv", both);
        assertThat(rules(workshop.run("invoice"))).containsExactly("document-repeated");
        Outcome again = workshop.run("invoice");
        assertThat(again.report().clear().documents()).isZero();
        assertThat(rules(again)).contains("document-repeated");
        // The file with the held one alone, as a corrected copy has it.
        Outcome alone = workshop.put("invoice.csv", INVOICE_TITLES + bill("TR-066", "01/03/2027"))
                .run("invoice");
        assertThat(alone.report().clear().documents()).isZero();
        assertThat(said(alone).get(0))
                .contains("TR-66 of 2027-03-01", "row 2, delivered by 'invoice'", "written differently");
    }

    @Test
    public void theSameSomeDaysApartIsACaution() throws Exception {
        Workshop workshop = new Workshop()
                .put("invoice.csv", INVOICE_TITLES + bill("A-1", "01/03/2027") + bill("B-7", "04/03/2027"));
        Outcome outcome = workshop.run("invoice");
        assertThat(rules(outcome)).containsExactly("document-alike");
        assertThat(said(outcome).get(0)).contains("A-1 of 2027-03-01", "3 days apart");
        assertThat(outcome.report().clear().documents()).isEqualTo(2);
        Outcome later = workshop.put("invoice.csv", INVOICE_TITLES + bill("C-9", "06/03/2027"))
                .run("invoice");
        assertThat(said(later).get(0)).contains("B-7 of 2027-03-04", "2 days apart");
        // A month later it is the next bill.
        assertThat(rules(workshop.put("invoice.csv", INVOICE_TITLES + bill("D-1", "01/04/2027"))
                        .run("invoice")))
                .isEmpty();
    }

    @Test
    public void journalsWithTheSameFiguresOnOneDayAreACaution() throws Exception {
        Workshop workshop = new Workshop()
                .put(
                        "journal.csv",
                        JOURNAL_TITLES + VOUCHER + voucher("V2", "01/03/2027") + voucher("V3", "02/03/2027"));
        Outcome outcome = workshop.run("journal");
        assertThat(rules(outcome)).containsExactly("document-alike");
        assertThat(said(outcome).get(0)).contains("row 4", "journal.csv row 2");
        assertThat(outcome.report().clear().documents()).isEqualTo(3);
        Outcome respelled = workshop.put("journal.csv", JOURNAL_TITLES + voucher("V-001", "01/03/2027"))
                .run("journal");
        assertThat(rules(respelled)).containsExactly("document-repeated");
    }

    @Test
    public void oneNumberInTwoFilesIsTwoDocumentsAndTheSecondIsHeld() throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", "part-*.csv", Files.readString(new Workshop().folder.resolve("journal-layout.yaml")))
                .put("part-1.csv", JOURNAL_TITLES + VOUCHER)
                .put("part-2.csv", JOURNAL_TITLES + voucher("V1", "09/03/2027"));
        Outcome outcome = workshop.run("journal");
        assertThat(rules(outcome)).containsExactly("document-repeated");
        assertThat(said(outcome).get(0)).contains("part-2.csv row 2", "part-1.csv row 2");
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void oneNumberInTwoFilesIsOneDocumentWhenTheLayoutSaysSo() throws Exception {
        String[] lines = VOUCHER.split("(?<=\n)");
        String layout = Files.readString(new Workshop().folder.resolve("journal-layout.yaml"));
        Workshop workshop = new Workshop()
                .takes("journal", "part-*.csv", layout)
                .put("part-1.csv", JOURNAL_TITLES + lines[0])
                .put("part-2.csv", JOURNAL_TITLES + voucher("V0", "02/03/2027") + lines[1]);
        assertThat(workshop.run("journal").report().held().documents()).isEqualTo(2);
        workshop.put("journal-layout.yaml", layout + "documents: across files\n");
        Outcome joined = workshop.run("journal");
        assertThat(joined.report().clear().documents()).isEqualTo(1);
        assertThat(joined.report().before().documents()).isEqualTo(1);
        assertThat(said(joined)).anyMatch(line -> line.contains("from part-1.csv row 2 to part-2.csv row 4"));
        // What is held is handed back file by file, and joined again.
        workshop.put("part-1.csv", JOURNAL_TITLES + lines[0].replace("V1", "V7"))
                .put("part-2.csv", JOURNAL_TITLES + lines[1].replace("V1", "V7").replace("1200", "1299"));
        Outcome held = workshop.run("journal");
        assertThat(held.report().held().rows()).isEqualTo(2);
        for (String part : List.of("part-1.csv", "part-2.csv")) {
            workshop.put(
                    part,
                    Files.readString(java.util.Objects.requireNonNull(held.evidence())
                                    .resolve("held/" + part))
                            .replace("1299", "1200"));
        }
        assertThat(workshop.run("journal").report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void oneFileUnderTwoNamesIsRefused() throws Exception {
        Workshop workshop = new Workshop()
                .takes("journal", "part-*.csv", Files.readString(new Workshop().folder.resolve("journal-layout.yaml")))
                .put("part-1.csv", JOURNAL_TITLES + VOUCHER);
        Path link = workshop.folder.resolve("part-2.csv");
        try {
            Files.createSymbolicLink(link, workshop.folder.resolve("part-1.csv"));
        } catch (IOException | UnsupportedOperationException noLinks) {
            throw new SkipException("no symbolic links here");
        }
        assertThatThrownBy(() -> workshop.run("journal")).hasMessageContaining("part-2.csv is taken in twice");
        Files.delete(link);
        assertThat(workshop.run("journal").report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void aFileThatChangesWhileItIsReadIsRefused() throws Exception {
        for (String change : List.of("appended", "replaced", "rewritten with its old time")) {
            Workshop workshop = new Workshop().put("journal.csv", JOURNAL_TITLES + VOUCHER);
            Path file = workshop.folder.resolve("journal.csv");
            FileTime time = Files.getLastModifiedTime(file);
            Mivrel run = Mivrel.open(workshop.folder.resolve("journal.yaml")).check((document, findings) -> {
                try {
                    Thread.sleep(20);
                    switch (change) {
                        case "appended" ->
                            Files.writeString(file, JOURNAL_TITLES + VOUCHER + VOUCHER.replace("V1", "V2"));
                        case "replaced" -> {
                            Path other = workshop.folder.resolve("other");
                            Files.writeString(other, JOURNAL_TITLES + VOUCHER, StandardCharsets.UTF_8);
                            Files.move(other, file, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
                        }
                        default -> {
                            Files.writeString(file, JOURNAL_TITLES + VOUCHER.replace("30.00", "40.00"));
                            Files.setLastModifiedTime(file, time);
                        }
                    }
                } catch (IOException | InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            });
            assertThatThrownBy(run::run).as(change).hasMessageContaining("journal.csv was changed while it was read");
            assertThat(workshop.folder.resolve("out"))
                    .as(change)
                    .satisfiesAnyOf(
                            out -> assertThat(out).doesNotExist(),
                            out -> assertThat(out).isEmptyDirectory());
        }
    }
}
