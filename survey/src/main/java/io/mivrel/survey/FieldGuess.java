package io.mivrel.survey;

import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Which field a column is, by the words of its title and by what its cells are. */
final class FieldGuess {
    private FieldGuess() {}

    /** The fields of a kind that columns give by their titles. */
    static Map<Field, ColumnSurvey> fields(Kind kind, List<ColumnSurvey> columns) {
        Map<Field, ColumnSurvey> found = new LinkedHashMap<>();
        List<ColumnSurvey> free = new ArrayList<>(columns);
        kind.titles().forEach((field, words) -> {
            ColumnSurvey column = best(field, words, free);
            if (column != null) {
                found.put(field, column);
                free.remove(column);
            }
        });
        boolean sides = found.containsKey(kind.plusSide()) || found.containsKey(kind.minusSide());
        if (sides && found.containsKey(kind.currency()) && found.containsKey(kind.amount())) {
            // Beside two sides in home money, an amount with a currency is the foreign one.
            kind.foreignAmounts().stream().limit(1).forEach(foreign -> found.put(foreign, found.remove(kind.amount())));
        }
        return found;
    }

    private static @Nullable ColumnSurvey best(Field field, List<String> words, List<ColumnSurvey> free) {
        for (String word : words) {
            for (ColumnSurvey column : free) {
                // A column of a linked file has the name of the link before its title.
                String own = column.title().substring(column.title().lastIndexOf('.') + 1);
                boolean is =
                        ColumnTitles.is(word, column.title()) || !word.startsWith("@") && ColumnTitles.is(word, own);
                if (is && suits(field.type(), column)) {
                    return column;
                }
            }
        }
        return null;
    }

    private static boolean suits(FieldType type, ColumnSurvey column) {
        return switch (type) {
            case DATE -> column.type() == FieldType.DATE;
            case AMOUNT -> column.type() == FieldType.AMOUNT || column.couldBeAmounts() || column.filled() == 0;
            case DECIMAL -> column.couldBeAmounts();
            case TEXT, CODE -> column.type() != FieldType.DATE;
        };
    }

    /** What the rows are: by the fields that tell a kind, of which the later one is the more special. {@code null} for none. */
    static @Nullable Kind kind(List<Kind> kinds, List<ColumnSurvey> columns) {
        for (int i = kinds.size() - 1; i >= 0; i--) {
            if (isOf(kinds.get(i), kinds, columns)) {
                return kinds.get(i);
            }
        }
        return null;
    }

    private static boolean isOf(Kind kind, List<Kind> kinds, List<ColumnSurvey> columns) {
        Map<Field, ColumnSurvey> found = fields(kind, columns);
        boolean told = !kind.toldBy().isEmpty()
                && kind.toldBy().stream().allMatch(some -> some.stream().anyMatch(found::containsKey));
        return told && (!kind.isJournal() || isOfSeveral(found.get(kind.account())) && !hasBalance(kinds, columns));
    }

    // A statement may name accounts too, but has a balance.
    private static boolean hasBalance(List<Kind> kinds, List<ColumnSurvey> columns) {
        return kinds.stream()
                .filter(kind -> kind.balance() != null)
                .anyMatch(kind -> fields(kind, columns).containsKey(kind.balance()));
    }

    // A ledger has several accounts; a statement may name its own in every row.
    private static boolean isOfSeveral(@Nullable ColumnSurvey accounts) {
        return accounts != null && accounts.fewValues().size() != 1;
    }

    // The first dates and the longest texts, where no title told.
    static void byShape(Kind kind, List<ColumnSurvey> columns, Map<Field, ColumnSurvey> fields) {
        Field text = kind.narrative();
        columns.stream()
                .filter(c -> !fields.containsValue(c) && c.type() == FieldType.DATE)
                .findFirst()
                .ifPresent(c -> fields.putIfAbsent(kind.date(), c));
        columns.stream()
                .filter(c -> text != null && !fields.containsValue(c) && c.type() == FieldType.TEXT)
                .max(Comparator.comparingInt(ColumnSurvey::longest))
                .ifPresent(c -> fields.putIfAbsent(text, c));
    }
}
