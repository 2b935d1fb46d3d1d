package io.mivrel.examples;

import static io.mivrel.kinds.BankLines.*;
import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.FileSurvey;
import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The demo's files in several formats give the same records, and all of its run sheets run. */
public class DemoFormatsTest {
    private Path demo;

    // A machine in a bare locale, or one that is not installed, cannot name a folder with an umlaut.
    static Path newFolder() throws IOException {
        try {
            return Files.createTempDirectory("mivrel demo ä");
        } catch (InvalidPathException plainNamesOnly) {
            return Files.createTempDirectory("mivrel demo");
        }
    }

    @BeforeMethod
    public void unpack() throws Exception {
        demo = newFolder();
        DemoData.unpack(demo);
    }

    @AfterMethod
    public void remove() throws Exception {
        try (Stream<Path> files = Files.walk(demo)) {
            files.sorted(Comparator.reverseOrder()).map(Path::toFile).forEach(File::delete);
        }
    }

    /** The records of the first source of a run sheet, each as a list of the wanted fields. */
    private List<List<String>> records(String runSheet, Field... wanted) throws Exception {
        RunSheet.Source source = RunSheet.read(demo.resolve(runSheet)).sources().get(0);
        List<List<String>> records = new ArrayList<>();
        try (RowSource rows =
                SourceFiles.open(source.path(), source.shown(), source.layouts().get(0))) {
            Intake intake = new Intake(
                    source.layouts().get(0), SourceFile.of(source.shown(), Currency.getInstance("GBP")), rows);
            boolean more = true;
            while (more) {
                IntakeBlock batch = intake.newBlock();
                more = intake.fill(batch);
                for (int i = 0; i < batch.records().size(); i++) {
                    SourceRecord record = batch.records().get(i);
                    List<String> values = new ArrayList<>();
                    for (Field field : wanted) {
                        values.add(value(record, field));
                    }
                    records.add(values);
                }
            }
        }
        return records;
    }

    private static String value(SourceRecord record, Field field) {
        return !record.has(field)
                ? ""
                : field.type() == FieldType.AMOUNT
                        ? Long.toString(record.number(field))
                        : field.type() == FieldType.DATE ? record.date(field).toString() : record.text(field);
    }

    @Test
    public void theCurrentAccountIsTheSameAsTextAndAsOfx() throws Exception {
        Field[] fields = {DATE, AMOUNT, NARRATIVE, REFERENCE};
        List<List<String>> text = records("bank.yaml", fields);
        List<List<String>> ofx = records("bank-ofx.yaml", fields);
        assertThat(ofx).hasSize(151);
        assertThat(text).hasSize(151);
        int mistyped = 0;
        for (int i = 0; i < text.size(); i++) {
            List<String> expected = new ArrayList<>(ofx.get(i));
            if (text.get(i).get(0).isEmpty()) {
                // The two days that are mistyped in the text.
                mistyped++;
                expected.set(0, "");
            }
            assertThat(text.get(i)).isEqualTo(expected);
        }
        assertThat(mistyped).isEqualTo(2);
    }

    @Test
    public void theEuroAccountIsTheSameAsCamtAndAsMt940() throws Exception {
        Field[] fields = {DATE, VALUE_DATE, AMOUNT, PAYEE, NARRATIVE, REFERENCE, BANK_REFERENCE};
        List<List<String>> camt = records("euro.yaml", fields);
        Path sheet = demo.resolve("euro.yaml");
        Files.writeString(
                demo.resolve("euro-mt940.yaml"), Files.readString(sheet).replace("2027-03.xml\"", "2027-03.sta\""));
        assertThat(records("euro-mt940.yaml", fields)).isEqualTo(camt).hasSize(12);
        Outcome outcome = Mivrel.open(demo.resolve("euro-mt940.yaml")).check();
        assertThat(outcome.report().files().get(0).proof().orElseThrow().holds())
                .isTrue();
        assertThat(outcome.report().findings().worstFirst()).isEmpty();
        assertThat(outcome.json()).contains("\"opening\" : \"18250.75\"", "\"to\" : \"2027-03-31\"");
        assertThat(Mivrel.open(demo.resolve("payroll.yaml")).check().json()).contains("\"rowsFannedOut\" : 77");
    }

    @Test
    public void whatWasDeliveredFromOneFormatIsKnownInTheOther() throws Exception {
        Mivrel.open(demo.resolve("euro.yaml")).run();
        Path sheet = demo.resolve("euro.yaml");
        Files.writeString(sheet, Files.readString(sheet).replace("2027-03.xml\"", "2027-03.sta\""));
        Outcome again = Mivrel.open(sheet).run();
        assertThat(again.report().before().documents()).isEqualTo(12);
        assertThat(again.report().clear().documents()).isZero();
    }

    @Test
    public void theOldLedgerIsTheSameAsTextAndAsPrintFile() throws Exception {
        Field[] fields = {
            JournalLines.REFERENCE,
            JournalLines.DATE,
            JournalLines.ACCOUNT,
            JournalLines.NARRATIVE,
            JournalLines.AMOUNT,
            JournalLines.DEPARTMENT
        };
        List<List<String>> text = records("ledger.yaml", fields);
        List<List<String>> print = records("ledger-print.yaml", fields);
        assertThat(print).hasSize(503).containsExactlyInAnyOrderElementsOf(text);
        Outcome fromText = Mivrel.open(demo.resolve("ledger.yaml")).check();
        Outcome fromPrint = Mivrel.open(demo.resolve("ledger-print.yaml")).check();
        assertThat(fromPrint.report().clear().documents())
                .isEqualTo(fromText.report().clear().documents());
        assertThat(fromPrint.report().clear().totals().toString())
                .isEqualTo(fromText.report().clear().totals().toString());
    }

    @Test
    public void whatASurveyProposesForThePayrollReadsItOnceTheAccountsAreSaid() throws Exception {
        String proposed =
                FileSurvey.of(demo.resolve("inbox/payroll-2027-03.xlsx")).layout();
        String[][] accounts = {
            {"Gross wages' is a debit", "6010"},
            {"Gross salaries' is a debit", "6020"},
            {"Employer tax' is a debit", "6030"},
            {"Employer tax' is a credit", "2210"},
            {"Employer pension' is a debit", "6040"},
            {"Employer pension' is a credit", "2220"},
            {"Tax deducted' is a credit", "2210"},
            {"Pension deducted' is a credit", "2220"},
            {"Net pay' is a credit", "2230"},
        };
        for (String[] answer : accounts) {
            proposed = proposed.replaceAll("account: \"[^\"]*" + answer[0] + "[^\"]*\"", "account: " + answer[1]);
        }
        proposed = proposed.replaceAll("signs: \"[^\"]*\"", "signs: as written")
                .replaceAll("constant: \"[^\"]*\"", "constant: PAY-2027-03");
        Field[] fields = {JournalLines.REFERENCE, JournalLines.DATE, JournalLines.ACCOUNT, JournalLines.AMOUNT};
        List<List<String>> own = records("payroll.yaml", fields);
        Files.writeString(demo.resolve("layouts/payroll.yaml"), proposed);
        assertThat(records("payroll.yaml", fields)).isEqualTo(own).hasSize(88);
    }

    @Test
    public void whatASurveyProposesForTheLinkedFilesReadsThemOnceTheirKindIsSaid() throws Exception {
        List<FileSurvey> surveys = new ArrayList<>();
        for (String name : List.of("customers", "heads", "lines")) {
            surveys.add(FileSurvey.of(demo.resolve("inbox/orders-" + name + ".csv")));
        }
        String proposed = FileSurvey.together(surveys, Progress.NONE).layout();
        assertThat(proposed.split("\"\\? ")).hasSize(2);
        Field[] fields = InvoiceLines.TABLE.fields().stream()
                .filter(f -> !f.derived() && f != InvoiceLines.TAX_CODE && f.type() != FieldType.DECIMAL)
                .toArray(Field[]::new);
        List<List<String>> own = records("orders.yaml", fields);
        Files.writeString(
                demo.resolve("layouts/orders.yaml"), proposed.replaceAll("constant: \"[^\"]*\"", "constant: invoice"));
        assertThat(records("orders.yaml", fields)).isEqualTo(own).hasSize(7);
    }

    @DataProvider
    public static Object[][] runSheets() {
        return new Object[][] {
            {"bank-ofx.yaml", 151, 0},
            {"card.yaml", 34, 0},
            {"euro.yaml", 12, 0},
            {"ledger-print.yaml", 490, 13},
            {"payroll.yaml", 88, 0},
            {"orders.yaml", 7, 0},
        };
    }

    @Test(dataProvider = "runSheets")
    public void everyOtherRunSheetRuns(String runSheet, int clear, int held) throws Exception {
        Outcome outcome = Mivrel.open(demo.resolve(runSheet)).run();
        assertThat(outcome.report().clear().rows()).isEqualTo(clear);
        assertThat(outcome.report().held().rows()).isEqualTo(held);
        assertThat(outcome.report().deliveries()).isNotEmpty();
    }

    @Test
    public void theCardIsProvedByWhatIsOwed() throws Exception {
        Outcome outcome = Mivrel.open(demo.resolve("card.yaml")).check();
        var proof = outcome.report().files().get(0).proof().orElseThrow();
        assertThat(proof.holds()).isTrue();
        assertThat(proof.opening()).isEqualTo(-61_240);
    }
}
