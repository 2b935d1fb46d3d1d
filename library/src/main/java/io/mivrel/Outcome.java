package io.mivrel;

import io.mivrel.model.Finding;
import io.mivrel.report.EvidenceFolder;
import io.mivrel.report.HeldCopies;
import io.mivrel.report.OutcomeJson;
import io.mivrel.report.SummaryText;
import io.mivrel.run.HeldRows;
import io.mivrel.run.RunReport;
import io.mivrel.run.SortedDocument;
import io.mivrel.run.UncodedGroups;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What came of a run.
 *
 * @param report all figures and findings
 * @param evidence the evidence folder; {@code null} when none was asked for or nothing but a check was made
 * @param held text copies of the held rows of each file, in the evidence; empty when none are held or nothing is kept
 * @param workbook the held rows as a workbook to correct; {@code null} when none are held, nothing is kept or the library
 *     for workbooks is not there
 * @param uncoded the held bank lines that no entry of the coding table decides, in groups, the largest first
 */
public record Outcome(
        RunReport report,
        @Nullable Path evidence,
        List<Path> held,
        @Nullable Path workbook,
        List<UncodedGroups.Group> uncoded) {

    /** The exit status of the command: 0 when all is clear, 1 when something is held or no row is a document. */
    public int status() {
        return report.hasHeld() || report.isEmpty() ? 1 : 0;
    }

    /** What became of the first documents, as many as {@link Mivrel#keepDocuments} asked for; else none. */
    public List<SortedDocument> documents() {
        return report.documents();
    }

    /** What was noticed, worst first; of a rule that finds thousands, the first ones. */
    public List<Finding> findings() {
        return report.findings().worstFirst();
    }

    /** The first words of {@link #summary}. */
    @Override
    public String toString() {
        return summary(SummaryText.Style.PLAIN)
                .lines()
                .filter(line -> !line.isBlank())
                .findFirst()
                .orElse("");
    }

    /** True when nothing is held. */
    public boolean isAllClear() {
        return status() == 0;
    }

    /** The figures, the problems worst first, and where the files are, for people. */
    public String summary(SummaryText.Style style) {
        return SummaryText.of(report, places(), style);
    }

    /** The figures alone, with how many blockers there are of each rule. */
    public String brief(SummaryText.Style style) {
        return SummaryText.brief(report, style);
    }

    private List<String> places() {
        return places(report, evidence, held, workbook, false);
    }

    /** What to say of the evidence folder and of the files with held rows. */
    static List<String> places(
            RunReport report, @Nullable Path evidence, List<Path> held, @Nullable Path workbook, boolean posted) {
        if (evidence == null) {
            return List.of();
        }
        List<String> places = new ArrayList<>();
        if (workbook != null) {
            places.add("held rows, with what is wrong beside them: " + shown(workbook));
            long all = 0;
            long beyond = 0;
            for (HeldRows rows : report.heldRows().values()) {
                all += rows.rows().cardinality();
                beyond += Math.max(0, rows.rows().cardinality() - HeldCopies.MOST_IN_WORKBOOK);
            }
            if (beyond > 0) {
                places.add(String.format(
                        Locale.ROOT,
                        "the workbook has %,d of %,d held rows; all of them are in %s",
                        all - beyond,
                        all,
                        shown(evidence.resolve("held"))));
            }
        } else {
            held.forEach(file -> places.add("held rows, with what is wrong beside them: " + shown(file)));
        }
        if (!held.isEmpty()) {
            places.add("correct them "
                    + (workbook != null
                            ? "there or at the source, and "
                            : "at the source, or in a copy in the folder " + Mivrel.CORRECTIONS + ", and ")
                    + (posted
                            ? "post again: what was posted is not sent again"
                            : "run again: what was delivered is left out"));
        }
        places.add("evidence: " + shown(evidence));
        Path kept = evidence.toAbsolutePath().getParent();
        try {
            if (kept != null && EvidenceFolder.isOpenToOthers(kept)) {
                places.add("others on this machine can look into " + shown(kept) + "; if they should not: chmod 700 "
                        + shown(kept));
            }
        } catch (IOException unknown) {
            // Nothing can be said of it.
        }
        return places;
    }

    /** The same content for machines. */
    public String json() {
        return OutcomeJson.of(
                report,
                evidence == null ? null : shown(evidence),
                workbook == null ? null : shown(workbook),
                uncoded,
                status());
    }

    static String shown(Path path) {
        Path here = Path.of("").toAbsolutePath();
        Path absolute = path.toAbsolutePath().normalize();
        return absolute.startsWith(here) ? here.relativize(absolute).toString() : absolute.toString();
    }
}
