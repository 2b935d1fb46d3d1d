package io.mivrel.layout;

import java.util.ArrayList;
import java.util.List;

/**
 * Columns of amounts of which one sum equals another in every row that has all of them, such as gross = net + fee. Immutable.
 *
 * @param plus titles or places of the columns on the one side
 * @param minus those on the other
 */
public record RowEquation(List<String> plus, List<String> minus) {
    public RowEquation {
        plus = List.copyOf(plus);
        minus = List.copyOf(minus);
    }

    /** All columns, those of {@code plus} first. */
    public List<String> columns() {
        List<String> all = new ArrayList<>(plus);
        all.addAll(minus);
        return all;
    }

    /** As people write it. */
    public String words() {
        return String.join(" + ", plus) + " = " + String.join(" + ", minus);
    }
}
