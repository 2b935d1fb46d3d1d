package io.mivrel;

import io.mivrel.files.TextSniffer;
import io.mivrel.files.settings.ProposalFile;
import io.mivrel.intake.Batch;
import io.mivrel.intake.DateWindow;
import io.mivrel.intake.Intake;
import io.mivrel.intake.Row;
import io.mivrel.intake.RowSource;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Money;
import io.mivrel.model.Record;
import io.mivrel.report.SurveyText;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Surveyor;
import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/** A look at an unknown file: what it is, what its reading is proved by, and a layout that reads it. */
public final class FileSurvey {
    private final Path file;
    private final Survey survey;

    private FileSurvey(Path file, Survey survey) {
        this.file = file;
        this.survey = survey;
    }

    /** Surveys a file of separated text. */
    public static FileSurvey of(Path file) throws IOException {
        Survey.TextFacts facts = TextSniffer.sniff(file);
        String name = file.getFileName().toString();
        return new FileSurvey(file, new Surveyor(name, facts, () -> TextSniffer.open(file, facts)).survey());
    }

    public Survey survey() {
        return survey;
    }

    /** True when nothing is asked and everything that was tried by arithmetic holds. */
    public boolean isSettled() {
        return survey.questions().isEmpty()
                && !survey.proofs().isEmpty()
                && survey.proofs().stream().allMatch(Survey.Proof::holds);
    }

    /** The survey on one screen. */
    public String text() {
        return SurveyText.of(survey);
    }

    /** The proposed layout as YAML; what the file does not tell is a question in it. */
    public String layout() {
        return ProposalFile.text(survey);
    }

    /** The first records: each row as it stands in the file, and below it as the proposed layout reads it. */
    public String preview(int most) throws IOException {
        if (survey.gives() == null || survey.pattern() == null) {
            return "  no preview: the survey could not tell which column is what\n";
        }
        StringBuilder out = new StringBuilder();
        Map<Long, String> raw = new HashMap<>();
        try (RowSource rows = TextSniffer.open(file, survey.text());
                RowSource again = TextSniffer.open(file, survey.text())) {
            Intake intake = new Intake(Proposal.layout(survey), survey.file(), again, 2, DateWindow.ALL, false);
            Batch batch = intake.newBatch();
            intake.fill(batch);
            for (int i = 0; i < Math.min(most, batch.records().size()); i++) {
                Record record = batch.records().get(i);
                for (Row row = rows.next(); row != null; row = rows.next()) {
                    raw.put(row.number(), cells(row));
                    if (row.number() >= record.row()) {
                        break;
                    }
                }
                out.append(String.format(
                        "  row %-5d %s%n            %s%n",
                        record.row(), Finding.clean(raw.get(record.row())), Finding.clean(read(record))));
                raw.clear();
            }
        }
        return out.toString();
    }

    private static String cells(Row row) {
        StringBuilder cells = new StringBuilder();
        for (int i = 0; i < row.size(); i++) {
            cells.append(i == 0 ? "" : " | ").append(row.text(i));
        }
        return cells.toString();
    }

    private static String read(Record record) {
        StringBuilder values = new StringBuilder();
        for (Field field : record.table().fields()) {
            if (!field.derived() && record.has(field)) {
                String value = field.type() == FieldType.AMOUNT
                        ? Money.show(record.number(field), 2)
                        : field.type() == FieldType.DATE
                                ? record.date(field).toString()
                                : field.type() == FieldType.DECIMAL
                                        ? record.decimal(field).toPlainString()
                                        : record.text(field);
                values.append(values.isEmpty() ? "" : ", ")
                        .append(field.name())
                        .append(' ')
                        .append(value);
            }
        }
        return values.toString();
    }
}
