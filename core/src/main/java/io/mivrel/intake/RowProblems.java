package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Overrides;
import io.mivrel.model.Rule;
import java.util.ArrayList;
import java.util.List;

/** The findings of the row that is being read, until they go on with its record. For one thread. */
final class RowProblems {
    private final String file;
    private Overrides overrides = Overrides.NONE;
    private final List<Finding> found = new ArrayList<>();
    private final List<Field> unreadable = new ArrayList<>(2);
    private boolean blocked;
    private boolean none = true;
    private long row;

    RowProblems(String file) {
        this.file = file;
    }

    void overrides(Overrides said) {
        overrides = said;
    }

    void begin(long physicalRow) {
        row = physicalRow;
        if (!none) {
            found.clear();
            unreadable.clear();
            blocked = false;
            none = true;
        }
    }

    /** Remembers that the cell of a field holds something that could not be read, as against nothing. */
    void unreadable(Field field) {
        none = false;
        unreadable.add(field);
    }

    boolean isUnreadable(Field field) {
        return !none && unreadable.contains(field);
    }

    void add(Rule rule, String field, String value, String reason, String suggestion) {
        Finding finding = overrides.judge(new Finding(rule, Origin.of(file, row), field, value, reason, suggestion));
        none = false;
        blocked |= finding.blocks();
        found.add(finding);
    }

    /** Replaces the suggestion of the last finding of a rule, when a better one turns up. */
    void suggestInstead(Rule rule, String suggestion) {
        for (int i = found.size() - 1; i >= 0; i--) {
            Finding f = found.get(i);
            if (f.rule() == rule) {
                found.set(i, new Finding(rule, f.origin(), f.field(), f.value(), f.reason(), suggestion));
                return;
            }
        }
    }

    /** What was found so far. */
    List<Finding> known() {
        return List.copyOf(found);
    }

    /** Forgets what was found beside these. */
    void only(List<Finding> known) {
        found.retainAll(known);
    }

    boolean isBlocked() {
        return blocked;
    }

    void moveTo(List<Finding> target) {
        if (!none) {
            target.addAll(found);
            found.clear();
        }
    }
}
