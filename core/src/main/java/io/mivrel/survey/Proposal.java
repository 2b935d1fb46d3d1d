package io.mivrel.survey;

import io.mivrel.intake.FieldSource;
import io.mivrel.intake.FileForm;
import io.mivrel.intake.Layout;
import io.mivrel.intake.Signs;
import io.mivrel.model.FieldType;
import java.util.List;
import java.util.Map;

/** Makes the layout that a survey proposes. */
public final class Proposal {
    private Proposal() {}

    /** The layout as if every question were answered by its first choice; to look at data, not to run with. */
    public static Layout layout(Survey survey) {
        Layout.Builder layout = Layout.named("proposed", survey.gives())
                .form(new FileForm(
                        survey.text().separator(),
                        survey.text().encoding(),
                        survey.titlesRow(),
                        survey.titlesRow() > 0 ? survey.titlesRow() + 1 : (int) survey.above() + 1,
                        survey.until(),
                        survey.newestFirst()))
                .signs(survey.signsReversed() ? Signs.REVERSED : Signs.AS_WRITTEN)
                .numbers(survey.numbers());
        survey.fields().forEach((field, column) -> {
            String name = column(column);
            if (field.type() == FieldType.DATE) {
                layout.field(field, new FieldSource(List.of(name), " ", survey.pattern(), Map.of(), null, null));
            } else {
                layout.field(field, name);
            }
        });
        survey.columns().stream()
                .filter(c -> !survey.fields().containsValue(c) && !c.title().isEmpty())
                .forEach(c -> layout.unused(c.title()));
        return layout.buildUnchecked();
    }

    /** How a layout names the column: by its title, or by its place when it has none or another has the same. */
    public static String column(ColumnSurvey column) {
        // A title that looks like a place would be taken for one.
        boolean usable = !column.title().isEmpty() && !column.title().matches("#.*|[0-9]+");
        return usable ? column.title() : "#" + column.place();
    }
}
