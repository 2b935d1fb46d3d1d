package io.mivrel.intake;

import io.mivrel.layout.Layout;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.Row;
import io.mivrel.text.Nearest;
import io.mivrel.text.Spans;
import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Finds the columns of a layout among the titles of one file, and says what does not fit. */
final class TitleBinding {
    /** A column that is named for the currency of each row, and that the layout does not use; -1 for none. */
    int currencyLeft = -1;

    /** Titles that Mivrel adds to the rows it hands back; they are never a surprise. */
    static final String OWN_TITLE_PREFIX = "Mivrel ";

    final Map<Field, int[]> places = new LinkedHashMap<>();
    final List<Finding> findings = new ArrayList<>();
    /** The column of each filter; -1 for any. */
    final int[] filters;

    final int[] expectations;

    /** The columns of each equation, those of its one side first. */
    final int[][] equations;

    final int width;
    private final @Nullable List<String> titles;
    /** Rows without titles may have been handed back, and nothing shows it. */
    private final boolean mayLackCells;

    private final Origin origin;

    /** Binds to the titles; {@code null} titles mean that the file has none and columns go by place. */
    TitleBinding(Layout layout, @Nullable List<String> titles, String file, long row, int width) {
        this.titles = titles;
        this.mayLackCells = titles == null || isHandedBack(titles);
        this.origin = Origin.of(file, row);
        this.width = width;
        Set<Integer> used = new HashSet<>();
        layout.fields().forEach((field, source) -> {
            List<String> columns = source.allColumns();
            int[] found = new int[columns.size()];
            for (int i = 0; i < found.length; i++) {
                String column = i == 0 ? present(columns.get(i), source.alternatives(), field.name()) : columns.get(i);
                found[i] = find(column, field.name());
                used.add(found[i]);
            }
            places.put(field, found);
        });
        expectations = new int[layout.expectations().size()];
        for (int i = 0; i < expectations.length; i++) {
            expectations[i] = find(layout.expectations().get(i).column(), "expect");
            used.add(expectations[i]);
        }
        equations = new int[layout.equations().size()][];
        for (int i = 0; i < equations.length; i++) {
            equations[i] = layout.equations().get(i).columns().stream()
                    .mapToInt(column -> find(column, "row sums"))
                    .peek(used::add)
                    .toArray();
        }
        if (layout.whose().numberColumn() != null && (titles == null || !titles.isEmpty())) {
            used.add(find(layout.whose().numberColumn(), "whose"));
        }
        filters = new int[layout.filters().size()];
        for (int i = 0; i < filters.length; i++) {
            String column = layout.filters().get(i).column();
            filters[i] =
                    column.isEmpty() ? -1 : find(column, layout.filters().get(i).word());
            used.add(filters[i]);
        }
        if (titles != null && !layout.format().kind().isStatement()) {
            reportUnexpected(layout, titles, used);
        }
    }

    boolean fits() {
        return findings.stream().noneMatch(Finding::blocks);
    }

    // Of several titles, the one that this file has.
    private String present(String column, List<String> alternatives, String purpose) {
        if (alternatives.isEmpty() || titles == null) {
            return column;
        }
        List<String> known = titles;
        List<String> all = new ArrayList<>(List.of(column));
        all.addAll(alternatives);
        List<String> here = all.stream().filter(known::contains).toList();
        if (here.size() > 1) {
            findings.add(new Finding(
                    Rule.COLUMN_TWICE,
                    origin,
                    here.get(0),
                    here.get(0),
                    "the layout takes '" + purpose + "' from any of " + String.join(", ", all) + ", and the file has "
                            + String.join(" and ", here),
                    "name the one that is meant"));
        }
        return here.isEmpty() ? column : here.get(0);
    }

    private int find(String column, String purpose) {
        if (column.startsWith("#")) {
            int place = Integer.parseInt(column.substring(1)) - 1;
            if (place >= width) {
                missing(column, purpose, "the file has only " + width + " columns", "");
                return -1;
            }
            return place;
        }
        if (titles == null) {
            missing(column, purpose, "the layout says that the file has no titles", "");
            return -1;
        }
        int found = titles.indexOf(column);
        if (found < 0) {
            String near = Nearest.one(column, titles);
            String why = "the titles are " + Finding.clip(String.join(", ", titles));
            missing(column, purpose, why, near == null ? "" : "was '" + near + "' meant?");
        } else if (titles.subList(found + 1, titles.size()).contains(column)) {
            findings.add(new Finding(
                    Rule.COLUMN_TWICE,
                    origin,
                    column,
                    column,
                    "stands over two columns",
                    "name it by its place: 'column: " + (found + 1) + "'"));
        }
        return found;
    }

    private void missing(String column, String purpose, String why, String suggestion) {
        findings.add(new Finding(
                Rule.COLUMN_MISSING,
                origin,
                column,
                column,
                "the layout takes '" + purpose + "' from it, but " + why,
                suggestion));
    }

    private boolean lacksColumn() {
        return findings.stream().anyMatch(finding -> finding.rule() == Rule.COLUMN_MISSING);
    }

    private void reportUnexpected(Layout layout, List<String> titles, Set<Integer> used) {
        for (int i = 0; i < titles.size(); i++) {
            String title = titles.get(i);
            if (!used.contains(i) && TradeWords.is("currency", title)) {
                currencyLeft = i;
            }
            boolean known = used.contains(i)
                    || layout.unused().contains(title)
                    || title.startsWith(OWN_TITLE_PREFIX)
                    || layout.shapes().stream().anyMatch(shape -> shape.needs().contains(title) || shape.adds(title));
            if (!known && !title.isEmpty()) {
                findings.add(new Finding(
                        Rule.COLUMN_UNEXPECTED,
                        origin,
                        title,
                        title,
                        "column " + (i + 1) + " is neither used nor named under 'unused'",
                        // Where a column that is needed is missing, this one may be it under another title.
                        lacksColumn() ? "" : "add '" + title + "' to 'unused' in the layout '" + layout.name() + "'"));
            }
        }
    }

    /** True when the file is one of Mivrel's own, with held rows that were corrected. */
    boolean isHandedBack() {
        return isHandedBack(titles);
    }

    /** True when a cell that the source did not have is still to be filled in. */
    boolean lacksCell(Row row) {
        if (!mayLackCells) {
            return false;
        }
        for (int i = 0; i < row.size(); i++) {
            if (row.trimmed(i).equals(Row.NO_CELL)) {
                return true;
            }
        }
        return false;
    }

    /** The same of titles that may be {@code null}. */
    static boolean isHandedBack(@Nullable List<String> titles) {
        return titles != null && titles.contains(OWN_TITLE_PREFIX + "row");
    }

    /** The title of a column; {@code null} when there are none. */
    @Nullable
    String title(int column) {
        return titles == null || column >= titles.size() ? null : titles.get(column);
    }

    /** True when the row repeats the titles. */
    boolean isRepeatedBy(Row row) {
        if (titles == null || row.size() != titles.size()) {
            return false;
        }
        byte[] bytes = row.bytes();
        for (int i = 0; i < titles.size(); i++) {
            int start = Spans.trimStart(bytes, row.start(i), row.end(i));
            if (!Spans.equal(bytes, start, Spans.trimEnd(bytes, start, row.end(i)), titles.get(i))) {
                return false;
            }
        }
        return true;
    }
}
