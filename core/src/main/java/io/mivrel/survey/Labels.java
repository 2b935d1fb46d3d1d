package io.mivrel.survey;

import java.util.Collection;
import java.util.Currency;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What rows beside the data say with a label: {@code label: value} in one cell, or the value in the next filled cell. */
final class Labels {
    private final Collection<Sample.Kept> rows;

    Labels(Collection<Sample.Kept> rows) {
        this.rows = rows;
    }

    /**
     * A labelled text.
     *
     * @param label the label as it stands
     * @param value what it says
     */
    record Labelled(String label, String value) {}

    /** The first text under a label of this meaning; {@code null} when there is none. */
    @Nullable
    Labelled find(String meaning) {
        for (Sample.Kept row : rows) {
            List<String> cells = row.cells();
            for (int i = 0; i < cells.size(); i++) {
                String cell = cells.get(i);
                int colon = cell.indexOf(':');
                if (colon > 0 && colon < cell.length() - 1 && Words.is(meaning, cell.substring(0, colon))) {
                    return new Labelled(
                            cell.substring(0, colon), cell.substring(colon + 1).strip());
                }
                String label = colon == cell.length() - 1 && colon > 0 ? cell.substring(0, colon) : cell;
                if (Words.is(meaning, label)) {
                    String next = nextFilled(cells, i + 1);
                    if (next != null) {
                        return new Labelled(label, next);
                    }
                }
            }
        }
        return null;
    }

    private static @Nullable String nextFilled(List<String> cells, int from) {
        for (int i = from; i < cells.size(); i++) {
            if (!cells.get(i).isEmpty()) {
                return cells.get(i);
            }
        }
        return null;
    }

    /** The currency under a label; {@code null} when there is none. */
    @Nullable
    Currency currency() {
        Currency behind = unmarked();
        Labelled found = behind != null ? null : find("currency-label");
        return found == null ? behind : currency(found.value());
    }

    // A code directly behind its label, as in the heading of a page.
    private @Nullable Currency unmarked() {
        for (Sample.Kept row : rows) {
            for (String cell : row.cells()) {
                int blank = cell.lastIndexOf(' ');
                if (blank > 0 && Words.is("currency-label", cell.substring(0, blank))) {
                    return currency(cell.substring(blank + 1));
                }
            }
        }
        return null;
    }

    /** The currency of a code; {@code null} when it is none. */
    static @Nullable Currency currency(String code) {
        try {
            return code.strip().length() == 3 ? Currency.getInstance(code.strip()) : null;
        } catch (IllegalArgumentException none) {
            return null;
        }
    }
}
