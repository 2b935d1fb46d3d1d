package io.mivrel.likeness;

import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.rows.FileKind;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.Survey;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Nearest;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is different in a new file from the one a layout was made for. Immutable.
 *
 * @param breaking differences under which the layout reads nothing, or reads wrongly
 * @param harmless differences that it lives with
 * @param renamed the titles that columns have now, by those that the layout knows
 * @param fresh titles that the layout does not know
 */
public record Comparison(
        List<String> breaking, List<String> harmless, Map<String, String> renamed, List<String> fresh) {

    private static final String RENAMED = "renamed: ";

    public Comparison {
        breaking = List.copyOf(breaking);
        harmless = List.copyOf(harmless);
        renamed = Map.copyOf(renamed);
        fresh = List.copyOf(fresh);
    }

    /** True when the layout reads the file. */
    public boolean isLike() {
        return breaking.isEmpty();
    }

    /** True when other titles of a few columns are all that keeps the layout from reading the file. */
    public boolean onlyTitles(Survey survey) {
        return !breaking.isEmpty()
                && breaking.stream().allMatch(difference -> difference.startsWith(RENAMED))
                && 2 * breaking.size() <= survey.columns().size();
    }

    public static Comparison of(Survey survey, Layout layout) {
        List<String> breaking = new ArrayList<>();
        List<String> harmless = new ArrayList<>();
        FileProfile facts = survey.facts();
        if (!layout.format().kind().takes(facts.kind())) {
            breaking.add("the file is " + facts.words() + ", but the layout says 'kind: "
                    + layout.format().kind().word() + "'");
            return new Comparison(breaking, harmless, Map.of(), List.of());
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
        Map<String, String> renamed = new LinkedHashMap<>();
        List<String> fresh = columns(survey, layout, breaking, harmless, renamed);
        patterns(survey, layout, breaking);
        return new Comparison(breaking, harmless, renamed, fresh);
    }

    // Answers the titles that the layout does not know.
    private static List<String> columns(
            Survey survey, Layout layout, List<String> breaking, List<String> harmless, Map<String, String> renamed) {
        if (survey.titlesRow() == 0) {
            return List.of();
        }
        List<String> found = survey.columns().stream().map(ColumnSurvey::title).toList();
        Set<String> used = new LinkedHashSet<>();
        layout.fields().values().forEach(source -> {
            // Of several titles for a column a file has one.
            source.columns().stream()
                    .filter(c -> source.alternatives().stream().noneMatch(found::contains))
                    .forEach(used::add);
            source.alternatives().stream().filter(found::contains).forEach(used::add);
        });
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
                gone(column, survey, layout, found, fresh, renamed, used.contains(column) ? breaking : harmless);
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
        return fresh;
    }

    // A column that is gone was probably renamed when a new one holds what its field needs: the one that a survey takes
    // for
    // the field, the one at its place, or the one with nearly its name.
    private static void gone(
            String column,
            Survey survey,
            Layout layout,
            List<String> found,
            List<String> fresh,
            Map<String, String> renames,
            List<String> differences) {
        Field field = layout.fields().entrySet().stream()
                .filter(e -> e.getValue().columns().contains(column))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(null);
        List<String> fitting = fresh.stream()
                .filter(t -> field == null || holds(survey.columns().get(found.indexOf(t)), field))
                .toList();
        ColumnSurvey taken = field == null ? null : survey.fields().get(field);
        int place = layout.columnsInOrder().indexOf(column);
        String there = place >= 0 && place < found.size() ? found.get(place) : "";
        String renamed = taken != null && fitting.contains(taken.title())
                ? taken.title()
                : fitting.contains(there) ? there : Nearest.one(column, fitting);
        if (renamed == null) {
            differences.add("gone: '" + column + "'");
        } else {
            fresh.remove(renamed);
            renames.put(column, renamed);
            differences.add(RENAMED + "'" + column + "' is probably '" + renamed + "' now");
        }
    }

    // True when the cells of a column can be those of a field.
    private static boolean holds(ColumnSurvey column, Field field) {
        return switch (field.type()) {
            case DATE -> column.type() == FieldType.DATE || column.filled() == 0;
            case AMOUNT -> column.couldBeAmounts() || column.filled() == 0;
            case TEXT -> column.type() == FieldType.TEXT || column.type() == FieldType.CODE && !isCode(column);
            default -> column.type() != FieldType.DATE;
        };
    }

    // Codes have figures in them, and no blanks.
    private static boolean isCode(ColumnSurvey column) {
        List<String> samples = column.samples();
        return !samples.isEmpty()
                && samples.stream()
                        .allMatch(s -> s.indexOf(' ') < 0 && s.chars().anyMatch(Character::isDigit));
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
                && !survey.pattern().order().equals(source.date().order())
                && samples.stream()
                        .anyMatch(s -> DatePattern.isDate(source.date().parse(s)))) {
            breaking.add("changed: the dates of '" + column.title() + "' stand in the order "
                    + survey.pattern().pattern() + ", not " + source.date().pattern());
        }
    }
}
