package io.mivrel.intake;

import io.mivrel.cells.DatePattern;
import java.util.List;
import java.util.Map;

/**
 * Where one field comes from.
 *
 * @param columns titles, or places written {@code #3} counted from 1; empty for a constant. Several are joined
 * @param between what stands between joined texts; left out where a text is blank
 * @param date the pattern of a date field; {@code null} for other types
 * @param values translation of the words in the file; empty to take them as they are
 * @param constant the value of every row; {@code null} when it comes from columns
 * @param ifBlank the value where the cell is blank; {@code null} for none
 */
public record FieldSource(
        List<String> columns,
        String between,
        DatePattern date,
        Map<String, String> values,
        String constant,
        String ifBlank) {

    public FieldSource {
        columns = List.copyOf(columns);
        values = Map.copyOf(values);
    }

    public static FieldSource column(String title) {
        return new FieldSource(List.of(title), " ", null, Map.of(), null, null);
    }

    public static FieldSource joined(String between, String... titles) {
        return new FieldSource(List.of(titles), between, null, Map.of(), null, null);
    }

    public static FieldSource date(String title, String pattern) {
        return new FieldSource(List.of(title), " ", DatePattern.of(pattern), Map.of(), null, null);
    }

    public static FieldSource constant(String value) {
        return new FieldSource(List.of(), " ", null, Map.of(), value, null);
    }

    /** The same, with the words of the file translated. */
    public FieldSource translating(Map<String, String> words) {
        return new FieldSource(columns, between, date, words, constant, ifBlank);
    }
}
