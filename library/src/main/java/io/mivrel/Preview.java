package io.mivrel;

import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.shape.FanOut;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.Survey;
import io.mivrel.text.Printable;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Shows rows side by side: on the left each cell as it stands in the file, on the right the field that it is read as. */
final class Preview {
    private static final int NAME = 16;
    private static final int VALUE = 46;

    /** Opens the rows. */
    interface Rows {
        RowSource open() throws IOException;
    }

    private final Survey survey;
    private final Layout layout;
    private final StringBuilder out = new StringBuilder();

    private Preview(Survey survey, Layout layout) {
        this.survey = survey;
        this.layout = layout;
    }

    /** The first records, at most so many. */
    static String of(Survey survey, Layout layout, Rows source, int most) throws IOException {
        Preview preview = new Preview(survey, layout);
        try (RowSource rows = source.open();
                RowSource again = source.open()) {
            Intake intake = new Intake(
                    layout, SourceFile.of(survey.file(), survey.facts().currency()), again);
            IntakeBlock block = intake.newBlock();
            intake.fill(block);
            for (int i = 0; i < Math.min(most, block.records().size()); i++) {
                SourceRecord record = block.records().get(i);
                Row row = rows.next();
                while (row != null && (row.number() < record.row() || row.ended() != null)) {
                    row = rows.next();
                }
                if (row != null) {
                    preview.out.append(i == 0 ? "" : "\n");
                    preview.row(row, preview.titles(row, rows), record);
                }
            }
        }
        return preview.out.toString();
    }

    private List<String> titles(Row row, RowSource rows) {
        List<String> titles = new ArrayList<>();
        for (int i = 0; i < row.size(); i++) {
            List<ColumnSurvey> columns = survey.columns();
            String title = rows.titles() != null && i < rows.titles().size()
                    ? rows.titles().get(i)
                    : i < columns.size() ? columns.get(i).title() : "";
            titles.add(title);
        }
        return titles;
    }

    private void row(Row row, List<String> titles, SourceRecord record) {
        line("row " + row.number(), "as it stands in the file", "as it is read", "");
        Map<Field, String> left = values(record);
        // The last cell of fixed-width text is the line as a whole, which says nothing more.
        int whole = survey.facts().print() == null
                ? -1
                : survey.facts().print().slices().size();
        for (int i = 0; i < row.size(); i++) {
            String title = titles.get(i).isEmpty() ? "column " + (i + 1) : titles.get(i);
            String cell = row.trimmed(i);
            boolean said = cell.isEmpty() || i == whole || isMade(titles.get(i));
            for (Map.Entry<Field, FieldSource> field : layout.fields().entrySet()) {
                if (isFrom(field.getValue(), titles.get(i), i) && left.containsKey(field.getKey())) {
                    line(said ? "" : title, said ? "" : cell, field.getKey().name(), left.remove(field.getKey()));
                    said = true;
                }
            }
            if (!said) {
                line(title, cell, "-", "");
            }
        }
        left.forEach((field, value) -> line("", "", field.name(), value));
    }

    // What fanning out has made stands nowhere in the file.
    private boolean isMade(String title) {
        return layout.shapes().stream().anyMatch(shape -> shape instanceof FanOut && shape.adds(title));
    }

    private static boolean isFrom(FieldSource source, String title, int place) {
        return !source.columns().isEmpty()
                && (source.columns().get(0).equals(title)
                        || source.columns().get(0).equals("#" + (place + 1)));
    }

    private void line(String title, String cell, String field, String value) {
        out.append(String.format(
                        Locale.ROOT,
                        "  %-" + NAME + "s %-" + VALUE + "s  %-" + NAME + "s %s",
                        cut(title, NAME),
                        cut(cell, VALUE),
                        cut(field, NAME),
                        cut(value, VALUE))
                .stripTrailing());
        out.append('\n');
    }

    // One cell, one line, also on a narrow screen.
    private static String cut(String text, int most) {
        String clean = Printable.of(text);
        return clean.length() <= most ? clean : clean.substring(0, most - 1) + "~";
    }

    private static Map<Field, String> values(SourceRecord record) {
        Map<Field, String> values = new LinkedHashMap<>();
        for (Field field : record.table().fields()) {
            if (!field.derived() && record.has(field)) {
                values.put(field, value(record, field));
            }
        }
        return values;
    }

    private static @Nullable String value(SourceRecord record, Field field) {
        return field.type() == FieldType.AMOUNT
                ? Money.show(record.number(field), record.block().currency())
                : field.type() == FieldType.DATE
                        ? LocalDate.ofEpochDay(record.number(field)).toString()
                        : field.type() == FieldType.DECIMAL
                                ? record.decimal(field).toPlainString()
                                : record.text(field);
    }
}
