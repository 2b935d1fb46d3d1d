package io.mivrel.run;

import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * All findings of a run: every one is counted, and the first {@value #KEPT} of each rule are kept, so that memory stays
 * bounded on a file that is wrong in every row. For one thread.
 */
public final class FindingLog {
    /** Most findings kept of one rule. */
    public static final int KEPT = 2000;

    /** Mivrel's rules in the order of their page, then those of a program by their names. */
    private static final Comparator<FindingRule> BY_PLACE = Comparator.<FindingRule>comparingInt(
                    rule -> rule instanceof Rule own ? own.ordinal() : Integer.MAX_VALUE)
            .thenComparing(FindingRule::id);

    private final List<Finding> kept = new ArrayList<>();
    private final Map<FindingRule, Long> counts = new TreeMap<>(BY_PLACE);
    private final Map<Severity, Long> ofSeverity = new EnumMap<>(Severity.class);

    /** Counts a finding, and keeps it while there is room. */
    public void add(Finding finding) {
        ofSeverity.merge(finding.severity(), 1L, Long::sum);
        if (counts.merge(finding.rule(), 1L, Long::sum) <= KEPT) {
            kept.add(finding);
        }
    }

    /** The kept findings, worst first, and in the order of the files within a severity. */
    public List<Finding> worstFirst() {
        return kept.stream()
                .sorted(Comparator.comparing(Finding::severity)
                        .thenComparing(finding -> finding.rule() != Rule.ROWS_NOT_PROVED))
                .toList();
    }

    /** How many findings of each rule, all of them counted. */
    public Map<FindingRule, Long> counts() {
        return counts;
    }

    public long count(Severity severity) {
        return ofSeverity.getOrDefault(severity, 0L);
    }

    /** Findings that were counted but not kept. */
    public long dropped() {
        return counts.values().stream().mapToLong(c -> Math.max(0, c - KEPT)).sum();
    }
}
