package io.mivrel.survey;

import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Layout;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.rows.FileKind;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Nearest;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is different in a new file from the one a layout was made for. Immutable.
 *
 * @param breaking differences under which the layout reads nothing, or reads wrongly
 * @param harmless differences that it lives with
 */
public record Comparison(List<String> breaking, List<String> harmless) {

    public Comparison {
        breaking = List.copyOf(breaking);
        harmless = List.copyOf(harmless);
    }

    /** True when the layout reads the file. */
    public boolean isLike() {
        return breaking.isEmpty();
    }

    public static Comparison of(Survey survey, Layout layout) {
        List<String> breaking = new ArrayList<>();
        List<String> harmless = new ArrayList<>();
        Facts facts = survey.facts();
        if (!layout.format().kind().takes(facts.kind())) {
            breaking.add("the file is " + facts.words() + ", but the layout says 'kind: "
                    + layout.format().kind().word() + "'");
            return new Comparison(breaking, harmless);
        }
        if (facts.kind() == FileKind.SEPARATED
                && facts.separator() != layout.format().separator()) {
            breaking.add("cells are divided by '" + facts.separator() + "', not by '"
                    + layout.format().separator() + "'");
        }
        if (survey.titlesRow() != layout.format().titlesRow() && !facts.kind().isStatement() && facts.print() == null) {
            breaking.add("the titles stand in row " + survey.titlesRow() + ", not in row "
                    + layout.format().titlesRow());
        }
        columns(survey, layout, breaking, harmless);
        patterns(survey, layout, breaking);
        return new Comparison(breaking, harmless);
    }

    private static void columns(Survey survey, Layout layout, List<String> breaking, List<String> harmless) {
        if (survey.titlesRow() == 0) {
            return;
        }
        List<String> found = survey.columns().stream().map(ColumnSurvey::title).toList();
        Set<String> used = new LinkedHashSet<>();
        layout.fields().values().forEach(source -> used.addAll(source.columns()));
        layout.shapes().forEach(shape -> used.addAll(shape.needs()));
        Set<String> known = new LinkedHashSet<>(used);
        known.addAll(layout.unused());
        known.addAll(layout.columnsInOrder());
        // What is named by its place, and what a shape adds, the file itself has not.
        known.removeIf(c -> c.startsWith("#") || layout.shapes().stream().anyMatch(shape -> shape.adds(c)));
        List<String> fresh = new ArrayList<>(
                found.stream().filter(t -> !t.isEmpty() && !known.contains(t)).toList());
        for (String column : known) {
            if (!found.contains(column)) {
                gone(column, survey, layout, found, fresh, used.contains(column) ? breaking : harmless);
            }
        }
        fresh.forEach(t -> harmless.add(
                "new: '" + t + "' is column " + (found.indexOf(t) + 1) + "; use it, or list it under 'unused'"));
        List<String> order = layout.columnsInOrder();
        for (String column : order) {
            if (found.contains(column) && found.indexOf(column) != order.indexOf(column)) {
                harmless.add("moved: '" + column + "' from column " + (order.indexOf(column) + 1) + " to column "
                        + (found.indexOf(column) + 1));
            }
        }
    }

    // A column that is gone while another came to its place, or with nearly its name, was probably renamed.
    private static void gone(
            String column,
            Survey survey,
            Layout layout,
            List<String> found,
            List<String> fresh,
            List<String> differences) {
        int place = layout.columnsInOrder().indexOf(column);
        String there = place >= 0 && place < found.size() ? found.get(place) : "";
        String renamed = fresh.contains(there) ? there : Nearest.one(column, fresh);
        if (renamed == null) {
            // The column that a survey would take for the same field.
            renamed = layout.fields().entrySet().stream()
                    .filter(e -> e.getValue().columns().contains(column))
                    .map(e -> survey.fields().get(e.getKey()))
                    .filter(c -> c != null && fresh.contains(c.title()))
                    .map(ColumnSurvey::title)
                    .findFirst()
                    .orElse(null);
        }
        if (renamed == null) {
            differences.add("gone: '" + column + "'");
        } else {
            fresh.remove(renamed);
            differences.add("renamed: '" + column + "' is probably '" + renamed + "' now");
        }
    }

    private static void patterns(Survey survey, Layout layout, List<String> breaking) {
        layout.fields().forEach((field, source) -> {
            ColumnSurvey column = column(survey, source);
            if (column != null && column.filled() > 0) {
                written(survey, layout, field, source, column, breaking);
            }
        });
    }

    private static @Nullable ColumnSurvey column(Survey survey, FieldSource source) {
        if (source.columns().size() != 1) {
            return null;
        }
        String name = source.columns().get(0);
        return survey.columns().stream()
                .filter(c -> name.startsWith("#")
                        ? ("#" + c.place()).equals(name)
                        : c.title().equals(name))
                .findFirst()
                .orElse(null);
    }

    private static void written(
            Survey survey, Layout layout, Field field, FieldSource source, ColumnSurvey column, List<String> breaking) {
        List<String> samples = column.samples();
        if (field.type() == FieldType.DATE
                && source.date() != null
                && samples.stream()
                        .noneMatch(s -> DatePattern.isDate(source.date().parse(s)))) {
            String now = column.patterns().isEmpty()
                    ? ""
                    : "; " + column.patterns().get(0).pattern() + " fits";
            breaking.add("changed: '" + column.title() + "' is written '" + samples.get(0) + "', not as "
                    + source.date().pattern() + now);
        }
        if (field.type() == FieldType.AMOUNT
                && samples.stream()
                        .noneMatch(s -> AmountFormat.isAmount(layout.numbers().parse(s)))) {
            breaking.add("changed: '" + column.title() + "' is written '" + samples.get(0)
                    + "', which the layout's 'numbers' do not read");
        }
        if (survey.question("date") == null
                && field.type() == FieldType.DATE
                && survey.pattern() != null
                && source.date() != null
                && survey.fields().get(field) == column
                && !sameOrder(survey.pattern(), source.date())
                && samples.stream()
                        .anyMatch(s -> DatePattern.isDate(source.date().parse(s)))) {
            breaking.add("changed: the dates of '" + column.title() + "' stand in the order "
                    + survey.pattern().pattern() + ", not " + source.date().pattern());
        }
    }

    private static boolean sameOrder(DatePattern one, DatePattern other) {
        return order(one).equals(order(other));
    }

    private static String order(DatePattern pattern) {
        return pattern.pattern().replaceAll("[^dMu]", "").replaceAll("(.)\\1+", "$1");
    }
}
