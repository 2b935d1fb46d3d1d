package io.mivrel;

import io.mivrel.files.SourceFiles;
import io.mivrel.files.SurveyedFile;
import io.mivrel.files.settings.LayoutReader;
import io.mivrel.files.settings.ProposalFile;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.intake.Batch;
import io.mivrel.intake.DateWindow;
import io.mivrel.intake.Intake;
import io.mivrel.intake.Layout;
import io.mivrel.intake.Row;
import io.mivrel.intake.RowSource;
import io.mivrel.intake.UnreadableFileException;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Money;
import io.mivrel.model.Record;
import io.mivrel.report.SurveyText;
import io.mivrel.run.Progress;
import io.mivrel.survey.Comparison;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Surveyor;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A look at an unknown file: what it is, what its reading is proved by, and a layout that reads it. */
public final class FileSurvey {
    private static final int PREVIEW_WIDTH = 140;

    private final SurveyedFile file;
    private final Survey survey;

    private FileSurvey(SurveyedFile file, Survey survey) {
        this.file = file;
        this.survey = survey;
    }

    /** Surveys a file of any kind that is read. */
    public static FileSurvey of(Path file) throws IOException {
        return of(file, file.getFileName().toString(), "", Progress.NONE);
    }

    /**
     * The same.
     *
     * @param name how the file is called
     * @param sheet the sheet of a workbook, by name or place ({@code #2}); empty for the longest
     * @param progress hears how many rows were read
     */
    public static FileSurvey of(Path file, String name, String sheet, Progress progress) throws IOException {
        SurveyedFile surveyed = new SurveyedFile(file, sheet);
        try {
            return new FileSurvey(surveyed, new Surveyor(name, surveyed, progress).survey());
        } catch (UnreadableFileException e) {
            throw new IOException(name + ": " + e.getMessage(), e);
        }
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
        Layout proposed = Proposal.layout(survey);
        return survey.fanOut().isEmpty()
                ? preview(most, proposed, () -> file.open(survey.facts()))
                : preview(most, proposed, () -> SourceFiles.open(file.file(), survey.file(), proposed));
    }

    /** What a comparison with a layout says. */
    public record Likeness(boolean isLike, String text) {}

    /**
     * Compares the file with a layout that was made for an earlier one; throws with the problems of the layout when it
     * cannot be used.
     *
     * @param layout the layout's file
     * @param preview how many rows to show before and after, as the layout reads them
     */
    public Likeness like(Path layout, int preview) throws IOException, SettingsException {
        Layout read = LayoutReader.read(layout);
        Comparison comparison = Comparison.of(survey, read);
        String rows = preview == 0
                ? ""
                : "\n" + preview(preview, read, () -> SourceFiles.open(file.file(), survey.file(), read));
        return new Likeness(comparison.isLike(), SurveyText.likeness(survey, read, comparison) + rows);
    }

    private interface Rows {
        RowSource open() throws IOException;
    }

    private String preview(int most, Layout layout, Rows source) throws IOException {
        StringBuilder out = new StringBuilder();
        Map<Long, String> raw = new HashMap<>();
        try (RowSource rows = source.open();
                RowSource again = source.open()) {
            Intake intake = new Intake(layout, survey.file(), again, 2, DateWindow.ALL, false);
            Batch batch = intake.newBatch();
            intake.fill(batch);
            for (int i = 0; i < Math.min(most, batch.records().size()); i++) {
                Record record = batch.records().get(i);
                for (Row row = rows.next(); row != null; row = rows.next()) {
                    raw.put(row.number(), cells(row));
                    if (row.number() >= record.row() && row.ended() == null) {
                        break;
                    }
                }
                out.append(String.format(
                        "  row %-5d %s%n  %s%n",
                        record.row(), cut(raw.getOrDefault(record.row(), "")), cut("       -> " + read(record))));
                raw.keySet().removeIf(row -> row != record.row());
            }
        }
        return out.toString();
    }

    // One row, one line, also on a narrow screen.
    private static String cut(String text) {
        String clean = Finding.clean(text);
        return clean.length() <= PREVIEW_WIDTH ? clean : clean.substring(0, PREVIEW_WIDTH - 1) + "~";
    }

    private String cells(Row row) {
        // The last cell of fixed-width text is the line as a whole, which says nothing more.
        int line = survey.facts().print() == null
                ? -1
                : survey.facts().print().slices().size();
        StringBuilder cells = new StringBuilder();
        for (int i = 0; i < row.size(); i++) {
            if (i != line) {
                cells.append(i == 0 ? "" : " | ").append(row.trimmed(i));
            }
        }
        return cells.toString();
    }

    private static String read(Record record) {
        StringBuilder values = new StringBuilder();
        // Dates and amounts first: they are what may be read wrongly.
        List<Field> fields = new ArrayList<>(record.table().fields());
        fields.sort(Comparator.comparing(f -> f.type() != FieldType.DATE && f.type() != FieldType.AMOUNT));
        for (Field field : fields) {
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
