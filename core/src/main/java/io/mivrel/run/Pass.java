package io.mivrel.run;

import io.mivrel.checking.Check;
import io.mivrel.checking.StandardChecks;
import io.mivrel.coding.CodingEntry;
import io.mivrel.delivery.DeliveredFile;
import io.mivrel.delivery.DeliveryCheck;
import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.drafting.Grouping;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.model.BankLines;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * One reading of all inputs, with everything that comes of it. A pass may find out that it lacked knowledge: that the
 * lines of a document stand apart, or that a file fails as a whole. Then it is thrown away, and {@link #next} reads once
 * more with that knowledge; nothing of a thrown-away pass is ever seen.
 */
final class Pass {
    private final RunPlan plan;
    private final Progress progress;
    private final Set<String> heldFiles;
    private final IntakeThread reader;
    private final Overlaps overlaps;
    /** What an earlier pass found between the files, when this one holds some of them and cannot find it again. */
    private final Continuity known;

    private final Continuity continuity;
    private final List<DeliveryWriter> writers = new ArrayList<>();
    private final BackgroundWork proofs = new BackgroundWork();
    private final DocumentSorter settler;
    /** For bank lines; {@code null} for others. */
    private final BankLane bankLane;
    /** For lines of journals and invoices; {@code null} for bank lines. */
    private final Grouping grouping;

    private List<IntakeTally> tallies;

    /** A first pass. */
    static Pass first(RunPlan plan, Progress progress) {
        return begin(plan, progress, Set.of(), null, null);
    }

    // The first rows are read while the stages behind them are made.
    private static Pass begin(
            RunPlan plan, Progress progress, Set<String> heldFiles, Grouping earlier, Continuity known) {
        IntakeThread reader = new IntakeThread(plan, heldFiles);
        boolean begun = false;
        try {
            Pass pass = new Pass(plan, progress, heldFiles, reader, earlier, known);
            begun = true;
            return pass;
        } finally {
            if (!begun) {
                reader.close();
            }
        }
    }

    private Pass(
            RunPlan plan,
            Progress progress,
            Set<String> heldFiles,
            IntakeThread reader,
            Grouping earlier,
            Continuity known) {
        this.known = known;
        this.reader = reader;
        this.plan = plan;
        this.progress = progress;
        this.heldFiles = heldFiles;
        this.overlaps = new Overlaps(plan.inputs());
        this.continuity = new Continuity(plan, overlaps);
        List<Check> checks = new ArrayList<>(StandardChecks.of(plan.books()));
        checks.addAll(plan.ownChecks());
        for (DeliveryTarget order : plan.orders()) {
            checks.add(new DeliveryCheck(order.delivery(), plan.books().decimals()));
            if (plan.deliver()) {
                writers.add(new DeliveryWriter(
                        order.delivery(),
                        plan.books().decimals(),
                        order.outlet().get()));
            }
        }
        this.settler = new DocumentSorter(plan, checks, writers);
        boolean bank = plan.records() == BankLines.TABLE;
        this.bankLane = bank ? new BankLane(plan, settler, overlaps) : null;
        this.grouping = bank ? null : grouping(new GroupLane(plan, settler), earlier);
        for (DeliveryWriter writer : writers) {
            proofs.begin(() -> {
                writer.prove();
                return null;
            });
        }
    }

    private Grouping grouping(GroupLane lane, Grouping earlier) {
        return earlier == null ? new Grouping(plan.records(), lane.key(), lane) : earlier.nextPass(lane);
    }

    /** Reads everything once. */
    void read() throws IOException {
        try (reader) {
            long rows = 0;
            for (IntakeBlock batch = reader.next(); batch != null; batch = reader.next()) {
                take(batch, reader.fileOrdinal());
                rows += batch.records().size();
                progress.at("read", rows);
            }
            if (grouping != null) {
                grouping.finish();
                // What waited on disk is somebody's books, and nothing of it stays there.
                grouping.close();
            }
            tallies = reader.tallies();
            continuity.compare(tallies);
            between().findings().forEach(settler.findings::add);
            finish();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private void take(IntakeBlock batch, int fileOrdinal) {
        for (Finding finding : batch.findings()) {
            settler.findings.add(finding);
            if (finding.blocks() && finding.origin().row() > 0) {
                settler.heldRowsOf(finding.origin().file()).explain(finding);
            }
        }
        if (grouping != null) {
            grouping.accept(batch.records());
        } else {
            bankLane.take(batch.records(), fileOrdinal);
        }
    }

    private void finish() throws IOException {
        settler.finish();
        for (DeliveryWriter writer : writers) {
            writer.finish();
        }
        DocumentCount before = settler.before;
        if (before.documents() > 0) {
            settler.findings.add(new Finding(
                    Rule.DELIVERED_BEFORE,
                    Origin.of(plan.inputs().get(0).name(), 0),
                    "",
                    "",
                    before.documents() + (before.documents() == 1 ? " document was" : " documents were")
                            + " delivered by an earlier run '" + plan.name() + "' and left out now",
                    ""));
        }
        for (IntakeTally tally : tallies) {
            settler.held.addUnreadRows(tally.unreadable());
        }
        if (bankLane != null && settler.clear.documents() + settler.held.documents() > 0) {
            for (CodingEntry entry : bankLane.unused()) {
                settler.findings.add(new Finding(
                        Rule.CODING_ENTRY_UNUSED,
                        Origin.of(plan.coding().name(), 0),
                        "entry",
                        entry.name(),
                        "decided no line of this run",
                        ""));
            }
        }
    }

    private Continuity between() {
        return known != null ? known : continuity;
    }

    private Set<String> failedFiles() {
        Set<String> failed = new HashSet<>(heldFiles);
        for (IntakeTally tally : tallies) {
            boolean fails = tally.failed() || between().failed().contains(tally.file());
            if (fails && tally.records() > 0) {
                failed.add(tally.file());
            }
        }
        return failed;
    }

    /** True when this pass lacked knowledge and must be thrown away. */
    boolean mustStartOver() {
        return grouping != null && grouping.mustStartOver() || !failedFiles().equals(heldFiles);
    }

    /** A pass with the knowledge that this one lacked. */
    Pass next() {
        return begin(plan, progress, failedFiles(), grouping, between());
    }

    /** Proves and publishes, or with a blocker and 'hold everything' throws the deliveries away. */
    RunReport complete() throws IOException {
        boolean stop = plan.holdEverything()
                && (settler.held.rows() > 0 || tallies.stream().anyMatch(IntakeTally::failed));
        if (stop) {
            settler.held.addAll(settler.clear);
        }
        DocumentCount cleared = stop ? new DocumentCount() : settler.clear;
        List<DeliveredFile> delivered = new ArrayList<>();
        RunReport report = new RunReport(
                plan.name(),
                plan.books().company(),
                plan.books().decimals(),
                plan.records(),
                !plan.deliver(),
                tallies,
                cleared,
                settler.held,
                settler.before,
                settler.beyond,
                bankLane == null ? new DocumentCount() : bankLane.takenOnce,
                delivered,
                settler.findings,
                settler.heldRows);
        Accounting.assertCloses(report);
        if (stop) {
            discard();
            return report;
        }
        progress.at("written, now proved", cleared.rows());
        proofs.await();
        for (DeliveryWriter writer : writers) {
            proofs.begin(() -> {
                writer.digest();
                return null;
            });
        }
        proofs.await();
        for (DeliveryWriter writer : writers) {
            delivered.add(writer.publish());
        }
        proofs.close();
        return report;
    }

    /** Removes all that was written. */
    void discard() {
        reader.close();
        proofs.close();
        settler.close();
        writers.forEach(DeliveryWriter::discard);
        try {
            if (grouping != null) {
                grouping.close();
            }
        } catch (IOException temporaryFolder) {
            // A leftover in the temporary folder harms nothing.
        }
    }
}
