package io.mivrel.run;

import io.mivrel.model.Finding;
import io.mivrel.model.SourceRecord;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Which rows of one file are held, and why: a bit a row, and the reasons of the first {@value #REASONS} rows. Rows
 * beyond {@link Integer#MAX_VALUE} share the last bit. For one thread.
 */
public final class HeldRows {
    /** Most rows whose reasons are kept. */
    public static final int REASONS = 20_000;

    private final BitSet rows = new BitSet();
    private final Map<Long, List<Finding>> reasons = new HashMap<>();

    /** Adds a row of a held document. */
    void add(SourceRecord record) {
        add(record.row());
    }

    /** Adds a row, by its first physical line. */
    public void add(long row) {
        rows.set((int) Math.min(row, Integer.MAX_VALUE));
    }

    /** Adds a reason to the row that it names. */
    public void explain(Finding finding) {
        List<Finding> known = reasons.get(finding.origin().row());
        if (known != null) {
            known.add(finding);
        } else if (reasons.size() < REASONS) {
            List<Finding> first = new ArrayList<>(1);
            first.add(finding);
            reasons.put(finding.origin().row(), first);
        }
    }

    /** The held rows by their first physical line. */
    public BitSet rows() {
        return rows;
    }

    /** The findings of a row; empty when its document is held for another row, or there were too many. */
    public List<Finding> reasons(long row) {
        return reasons.getOrDefault(row, List.of());
    }
}
