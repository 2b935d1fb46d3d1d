package io.mivrel.examples;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.FileSurvey;
import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.run.RunReport;
import io.mivrel.survey.Survey;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** What a survey proposes for the demo's files reads them as their own layouts do. */
public class DemoSurveyTest {
    /** The questions of the demo's files have these answers. */
    private static String answered(FileSurvey survey) {
        return survey.layout()
                .replaceAll("account: \"\\?[^\"]*\"", "account: 1200")
                .replaceAll("values: \"\\?[^\"]*\"", "values: {INV: invoice, CRN: credit note, BILL: bill}");
    }

    @Test
    public void theDemosFilesAreReadByWhatTheSurveyProposes() throws Exception {
        Path demo = DemoFormatsTest.newFolder();
        DemoData.unpack(demo);
        String[][] kinds = {
            {"bank", "current-2027-03.csv", "wexcombe-current.yaml", "account"},
            {"ledger", "ledger-2027-q1.csv", "old-ledger.yaml", ""},
            {"invoices", "invoices-2027-03.csv", "invoice-list.yaml", "kind"},
        };
        for (String[] kind : kinds) {
            FileSurvey survey = FileSurvey.of(demo.resolve("inbox").resolve(kind[1]));
            assertThat(survey.survey().questions())
                    .as(survey.text())
                    .extracting(Survey.Question::about)
                    .isEqualTo(kind[3].isEmpty() ? List.of() : List.of(kind[3]));
            Path sheet = demo.resolve(kind[0] + ".yaml");
            Outcome own = Mivrel.open(sheet).check();
            Path layout = demo.resolve("layouts").resolve(kind[2]);
            Files.writeString(layout, answered(survey));
            Outcome proposed = Mivrel.open(sheet).check();
            assertThat(figures(proposed)).as(survey.layout()).isEqualTo(figures(own));
        }
        try (Stream<Path> files = Files.walk(demo)) {
            files.sorted(Comparator.reverseOrder()).map(Path::toFile).forEach(File::delete);
        }
    }

    private static String figures(Outcome outcome) {
        RunReport report = outcome.report();
        return report.rowsRead() + " rows; clear " + report.clear().documents() + " "
                + report.clear().totals()
                + "; held " + report.held().documents() + " " + report.held().totals() + "; "
                + report.files().get(0).proof();
    }
}
