package io.mivrel;

import io.mivrel.files.FolderOutlet;
import io.mivrel.intake.Input;
import io.mivrel.ledger.PostingRegister;
import io.mivrel.report.EvidenceFolder;
import io.mivrel.report.HeldCopies;
import io.mivrel.report.PostingText;
import io.mivrel.report.SummaryText;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;

/** Keeps what came of posting in an evidence folder. */
final class PostingEvidence {
    private PostingEvidence() {}

    /** The same outcome, with the places of its evidence. */
    static PostOutcome keep(Mivrel run, PostOutcome outcome, PostingRegister log, List<Input> inputs)
            throws IOException {
        Path home = Objects.requireNonNull(run.home());
        EvidenceFolder folder = EvidenceFolder.stage(
                FolderOutlet.makePrivate(home.resolve("evidence")), run.slug() + "-posted-" + run.today());
        boolean revealed = false;
        try {
            HeldCopies held = folder.writeHeld(
                    outcome.report(), inputs, run.books(), List.of(), outcome.summary(SummaryText.Style.PLAIN));
            folder.writeDecisions(outcome.report());
            folder.writeFindings(outcome.report());
            folder.copySettings(run.settings());
            String batch = outcome.posting().batch().key();
            PostingText.documents(folder.staged().resolve("posted.csv"), log, batch);
            PostOutcome kept = new PostOutcome(
                    outcome.report(),
                    outcome.posting(),
                    outcome.proof(),
                    outcome.ledger(),
                    outcome.details(),
                    folder.folder(),
                    held.texts(),
                    held.workbook() == null
                            ? null
                            : home.resolve(Mivrel.CORRECTIONS)
                                    .resolve(folder.folder().getFileName() + ".xlsx"));
            folder.write(kept.summary(SummaryText.Style.PLAIN), kept.json(), Session.digests(run));
            folder.reveal();
            revealed = true;
            CorrectionsFolder.handOut(held.workbook(), home, folder.folder(), run.slug());
            return kept;
        } finally {
            if (!revealed) {
                folder.discard();
            }
        }
    }
}
