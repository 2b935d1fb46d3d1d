package io.mivrel.layout;

import com.google.re2j.Pattern;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Where one field comes from.
 *
 * @param columns titles, or places written {@code #3} counted from 1; empty for a constant. Several are joined
 * @param between what stands between joined texts; left out where a text is blank
 * @param date the pattern of a date field; {@code null} for other types
 * @param values translation of the words in the file; empty to take them as they are
 * @param constant the value of every row; {@code null} when it comes from columns
 * @param ifBlank the value where the cell is blank; {@code null} for none
 * @param extract what is taken out of a text: the first group of this pattern, or all that it matches, and nothing where
 *     it does not match; {@code null} to take the text whole
 * @param side the column that says on which side an amount is; {@code null} when the amount itself does
 * @param less the column of amounts that are taken off, as where charges and credits stand side by side; {@code null} for
 *     none
 * @param alternatives other titles of its column, of which a file has one only; empty for none
 */
public record FieldSource(
        List<String> columns,
        String between,
        @Nullable DatePattern date,
        Map<String, String> values,
        @Nullable String constant,
        @Nullable String ifBlank,
        @Nullable Pattern extract,
        @Nullable Side side,
        @Nullable String less,
        List<String> alternatives) {

    /**
     * A column that says on which side the amount of its row is.
     *
     * @param column its title or place
     * @param plus the words for plus
     * @param minus the words for minus
     */
    public record Side(String column, List<String> plus, List<String> minus) {
        public Side {
            plus = List.copyOf(plus);
            minus = List.copyOf(minus);
        }
    }

    /** Takes texts whole and amounts as they are signed. */
    public FieldSource(
            List<String> columns,
            String between,
            @Nullable DatePattern date,
            Map<String, String> values,
            @Nullable String constant,
            @Nullable String ifBlank) {
        this(columns, between, date, values, constant, ifBlank, null, null, null, List.of());
    }

    public FieldSource {
        columns = List.copyOf(columns);
        values = Map.copyOf(values);
        alternatives = List.copyOf(alternatives);
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
        return new FieldSource(columns, between, date, words, constant, ifBlank, extract, side, less, alternatives);
    }

    /** The same, with only what the pattern matches. A linear-time pattern, so that no text makes it hang. */
    public FieldSource extracting(@Nullable String pattern) {
        return new FieldSource(
                columns, between, date, values, constant, ifBlank, Pattern.compile(pattern), side, less, alternatives);
    }

    /** The same, with the sign said by another column. */
    public FieldSource withSide(Side other) {
        return new FieldSource(columns, between, date, values, constant, ifBlank, extract, other, less, alternatives);
    }

    /** The same, with the amounts of another column taken off. */
    public FieldSource less(String column) {
        return new FieldSource(columns, between, date, values, constant, ifBlank, extract, side, column, alternatives);
    }

    /** The same, from a column that some files call otherwise. */
    public FieldSource or(String... titles) {
        return new FieldSource(columns, between, date, values, constant, ifBlank, extract, side, less, List.of(titles));
    }

    /** Every column it needs, that of its side or of what is taken off as the last. */
    public List<String> allColumns() {
        List<String> all = new ArrayList<>(columns);
        if (side != null) {
            all.add(side.column());
        }
        if (less != null) {
            all.add(less);
        }
        return all;
    }
}
