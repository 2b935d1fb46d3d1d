package io.mivrel;

import io.mivrel.model.Severity;
import io.mivrel.posting.PostingReport;
import io.mivrel.posting.Proof;
import io.mivrel.report.PostingJson;
import io.mivrel.report.PostingText;
import io.mivrel.report.SummaryText;
import io.mivrel.run.RunReport;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What came of posting.
 *
 * @param report the run that was posted: what was read, what is held, all findings, those of the ledger among them
 * @param posting what the ledger took and refused
 * @param proof the arithmetic of the batch; {@code null} when nothing was posted
 * @param ledger its name
 * @param details further facts for people
 * @param evidence {@code null} when nothing was posted
 * @param held the files with the rows to correct; empty for none
 * @param workbook the held rows as a workbook to correct; {@code null} for none
 */
public record PostOutcome(
        RunReport report,
        PostingReport posting,
        @Nullable Proof proof,
        String ledger,
        PostingText.Details details,
        @Nullable Path evidence,
        List<Path> held,
        @Nullable Path workbook) {

    /** 0 when all is posted, or would be, and proved; 1 when something is held or refused, or the proof does not hold. */
    public int status() {
        boolean proved = proof == null || proof.holds();
        boolean held =
                report.hasHeld() || posting.held() > 0 || report.findings().count(Severity.BLOCKER) > 0;
        return held || report.isEmpty() || !proved ? 1 : 0;
    }

    /** The figures, the proof, the problems worst first, and what to do next, for people. */
    public String summary(SummaryText.Style style) {
        return PostingText.of(
                report, posting, proof, ledger, details, Outcome.places(report, evidence, held, workbook, true), style);
    }

    /** Only the figures and the proof. */
    public String figures(SummaryText.Style style) {
        return PostingText.figures(report, posting, proof, ledger, details, style);
    }

    /** The same content for machines. */
    public String json() {
        return PostingJson.of(
                report, posting, proof, ledger, evidence == null ? null : Outcome.shown(evidence), status());
    }
}
