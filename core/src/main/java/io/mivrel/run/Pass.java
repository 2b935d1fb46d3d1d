package io.mivrel.run;

import io.mivrel.checking.Check;
import io.mivrel.checking.StandardChecks;
import io.mivrel.coding.CodingEntry;
import io.mivrel.delivery.DeliveredFile;
import io.mivrel.delivery.DeliveryCheck;
import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.history.Continuity;
import io.mivrel.history.Overlaps;
import io.mivrel.intake.Input;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.model.Drafter;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * One reading of all inputs, with everything that comes of it. A pass may find out that it lacked knowledge: that the
 * lines of a document stand apart, or that a file fails as a whole. Then it is thrown away, and {@link #next} reads once
 * more with that knowledge; nothing of a thrown-away pass is ever seen.
 */
final class Pass {
    private final RunPlan plan;
    private final Progress progress;
    private final Set<String> heldFiles;
    private final boolean firstPass;
    private final Workers workers = new Workers();
    private final IntakeThread reader;
    private final Overlaps overlaps;
    /** What an earlier pass found between the files, when this one holds some of them and cannot find it again. */
    private final @Nullable Continuity known;

    private final Continuity continuity;
    private final List<DeliveryWriter> writers = new ArrayList<>();
    private final List<Workers.Task<Void>> proofs = new ArrayList<>();
    private final DocumentSorter sorter;
    private final DocumentLane lane;
    private final List<DeliveredFile> delivered = new ArrayList<>();
    private List<IntakeTally> tallies = List.of();

    /** A first pass. */
    static Pass first(RunPlan plan, Progress progress) {
        return new Pass(plan, progress, Set.of(), List.of(), null, null, Set.of());
    }

    private Pass(
            RunPlan plan,
            Progress progress,
            Set<String> heldFiles,
            List<IntakeTally> read,
            @Nullable DocumentLane earlier,
            @Nullable Continuity known,
            Set<Long> doubtful) {
        this.plan = plan;
        this.progress = progress;
        this.heldFiles = heldFiles;
        this.known = known;
        this.firstPass = read.isEmpty();
        // The first rows are read while the stages behind them are made.
        this.reader = new IntakeThread(plan, heldFiles, read, workers);
        boolean begun = false;
        try {
            this.overlaps = new Overlaps(plan.kind(), plan.inputs(), doubtful);
            this.continuity =
                    new Continuity(plan.inputs(), plan.history(), plan.corrections(), plan.currency(), overlaps);
            Drafter drafter = plan.drafter();
            this.sorter = new DocumentSorter(plan, checks(drafter), writers(), workers);
            this.lane = new DocumentLane(plan, drafter, sorter, overlaps, earlier);
            for (DeliveryWriter writer : writers) {
                writer.proofs().forEach(proof -> proofs.add(workers.begin(proof::prove)));
            }
            begun = true;
        } finally {
            if (!begun) {
                reader.close();
                workers.close();
            }
        }
    }

    private List<Check> checks(Drafter drafter) {
        List<Check> checks = new ArrayList<>(StandardChecks.of(
                plan.books(),
                plan.inputs().stream()
                        .filter(input -> input.layout().terms().partiesMissing())
                        .map(Input::name)
                        .collect(Collectors.toSet())));
        Drafter.OwnCheck ofKind = drafter.ownCheck();
        if (ofKind != null) {
            checks.add(ofKind::check);
        }
        checks.addAll(plan.ownChecks());
        for (DeliveryTarget target : plan.targets()) {
            checks.add(new DeliveryCheck(target.delivery(), plan.currency()));
        }
        return checks;
    }

    // Those of each currency, in the order of the plan; none where nothing is delivered.
    private Map<Currency, List<DeliveryWriter>> writers() {
        Map<Currency, List<DeliveryWriter>> byCurrency = new LinkedHashMap<>();
        for (Currency currency : plan.checksOnly() ? List.<Currency>of() : plan.currencies()) {
            Currency other = currency.equals(plan.currency()) ? null : currency;
            List<DeliveryWriter> own = plan.targets().stream()
                    .map(target -> new DeliveryWriter(
                            target.delivery(),
                            currency,
                            sheet -> target.outlets().open(sheet, other)))
                    .toList();
            writers.addAll(own);
            if (!own.isEmpty()) {
                byCurrency.put(currency, own);
            }
        }
        return byCurrency;
    }

    /** Reads everything once. */
    void read() throws IOException {
        try (reader) {
            long rows = 0;
            for (IntakeBlock block = reader.next(); block != null; block = reader.next()) {
                take(block);
                rows += block.records().size();
                progress.at("read", rows);
            }
            lane.finish();
            tallies = reader.tallies();
            continuity.compare(tallies);
            between().findings().forEach(sorter.findings::add);
            finish();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private void take(IntakeBlock block) {
        for (Finding finding : block.findings()) {
            sorter.findings.add(finding);
            if (finding.blocks() && finding.origin().row() > 0) {
                sorter.heldRowsOf(finding.origin().file()).explain(finding);
            }
        }
        lane.take(block.records());
    }

    private void finish() throws IOException {
        sorter.finish();
        for (DeliveryWriter writer : writers) {
            writer.finish();
        }
        tellBefore();
        tellNothingClear();
        plan.corrections().unused().forEach(sorter.findings::add);
        for (IntakeTally tally : tallies) {
            sorter.held.addUnreadRows(tally.unreadable());
        }
        // Of use when the table is looked through; in a run it would be told month after month.
        if (plan.checksOnly()
                && plan.clearTo() == null
                && plan.coding() != null
                && sorter.clear.documents() + sorter.held.documents() > 0) {
            List<CodingEntry> unused = lane.unused();
            if (!unused.isEmpty()) {
                note(
                        Rule.CODING_ENTRY_UNUSED,
                        plan.coding().name(),
                        "entry",
                        unused.get(0).name(),
                        unused.size() == 1
                                ? "decided no line of this run"
                                : "and " + (unused.size() - 1) + " more decided no line of this run");
            }
        }
    }

    private void tellBefore() throws IOException {
        // Of several files, which of them the documents stand in is not kept.
        String first = plan.inputs().size() == 1 ? plan.inputs().get(0).name() : "the files of this run";
        long before = sorter.before.documents();
        if (before > 0) {
            String were = before == 1 ? " document was" : " documents were";
            note(Rule.DELIVERED_BEFORE, first, "", "", before + were + " delivered by an earlier run and left out now");
        }
        Finding coded = sorter.codedOtherwise();
        if (coded != null) {
            sorter.findings.add(coded);
        }
        long byAmount = plan.history().matchedByAmount();
        if (byAmount > 0) {
            note(
                    Rule.DELIVERED_IN_ANOTHER_FORM,
                    first,
                    "",
                    "",
                    byAmount + (byAmount == 1 ? " line has" : " lines have")
                            + " the date and amount of a line that was delivered before from a file in another form, and "
                            + (byAmount == 1 ? "was" : "were") + " left out");
        }
        for (int i = 0; i < sorter.lacking.length; i++) {
            long lacking = sorter.lacking[i];
            if (lacking > 0) {
                sorter.findings.add(new Finding(
                        Rule.DELIVERED_OTHERWISE,
                        Origin.of(first, 0),
                        "",
                        "",
                        lacking + (lacking == 1 ? " document" : " documents") + " went out by another delivery before,"
                                + " and not by '"
                                + plan.targets().get(i).delivery().name() + "'",
                        "to deliver them so too, say 'earlier: deliver too' where this delivery is named"));
            }
        }
    }

    // Rows were read, and nothing came of them that could be delivered or is held.
    private void tellNothingClear() {
        boolean others = sorter.clear.documents() + sorter.held.documents() + sorter.before.documents() > 0
                || lane.takenOnce.documents() > 0
                || sorter.beyond.documents() > 0;
        if (others || tallies.stream().anyMatch(t -> t.failed() || t.rows() == 0 || isQuiet(t))) {
            return;
        }
        Map<LeftOut, Long> leftOut = new EnumMap<>(LeftOut.class);
        tallies.forEach(t -> t.leftOut().forEach((cause, count) -> leftOut.merge(cause, count, Long::sum)));
        String causes = leftOut.entrySet().stream()
                .map(entry -> entry.getValue() + " " + entry.getKey().words())
                .collect(Collectors.joining(", "));
        note(
                Rule.NOTHING_CLEAR,
                plan.inputs().get(0).name(),
                "",
                "",
                "no row is a document" + (causes.isEmpty() ? "" : ": " + causes));
    }

    // A statement of days without a movement.
    private static boolean isQuiet(IntakeTally tally) {
        return !tally.spans().isEmpty()
                && tally.leftOut().keySet().stream()
                        .noneMatch(cause -> cause == LeftOut.OUTSIDE_DATES || cause == LeftOut.BY_LAYOUT);
    }

    private void note(Rule rule, String file, String field, String value, String reason) {
        sorter.findings.add(new Finding(rule, Origin.of(file, 0), field, value, reason, ""));
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
    boolean mustStartOver() throws IOException {
        boolean whole = !tallies.stream().allMatch(IntakeTally::isHandedBack);
        return whole && plan.history().foundChangedDays()
                || lane.mustStartOver()
                || !failedFiles().equals(heldFiles)
                || firstPass && !overlaps.doubtful().isEmpty()
                || firstPass && tallies.stream().anyMatch(IntakeTally::foundLate);
    }

    /** Has those that were told of documents forget them. */
    void startOver() throws IOException {
        forgetClear();
        if (plan.heldTo() != null) {
            plan.heldTo().startOver();
        }
    }

    // What is held stays so when everything is.
    private void forgetClear() throws IOException {
        plan.history().startOver();
        ClearDocuments target = plan.clearTo();
        if (target != null) {
            target.startOver();
        }
    }

    /** A pass with the knowledge that this one lacked. */
    Pass next() {
        // What was found between the files counts lines that are in doubt now, and is found anew.
        boolean doubts = firstPass && !overlaps.doubtful().isEmpty();
        return new Pass(plan, progress, failedFiles(), tallies, lane, doubts ? known : between(), overlaps.doubtful());
    }

    /** True when a blocker stops the whole delivery. */
    private boolean isStopped() {
        return plan.holdsEverything()
                && (sorter.held.rows() > 0 || tallies.stream().anyMatch(IntakeTally::failed));
    }

    /** Proves what was written and makes it safe under hidden names; with 'hold everything' and a blocker, nothing. */
    RunReport prepare() throws IOException {
        boolean stop = isStopped();
        if (stop) {
            sorter.held.addAll(sorter.clear);
        }
        RunReport report = new RunReport(
                plan.name(),
                plan.books().company(),
                plan.currency(),
                plan.kind(),
                plan.checksOnly(),
                tallies,
                stop ? new DocumentCount(plan.kind(), plan.currency()) : sorter.clear,
                sorter.held,
                sorter.before,
                sorter.beyond,
                lane.takenOnce,
                delivered,
                sorter.findings,
                plan.corrections().used(),
                sorter.heldRows,
                stop ? sorter.sorted.stream().map(SortedDocument::stopped).toList() : List.copyOf(sorter.sorted));
        Accounting.assertCloses(report);
        if (stop) {
            discard();
            forgetClear();
            return report;
        }
        progress.at("written, now proved", report.clear().rows());
        for (Workers.Task<Void> proof : proofs) {
            proof.get();
        }
        // Each waits for the disk, so all wait together.
        List<Workers.Task<Void>> forced = new ArrayList<>();
        for (DeliveryWriter writer : writers) {
            forced.add(workers.begin(writer::prepare));
        }
        for (Workers.Task<Void> task : forced) {
            task.get();
        }
        writers.forEach(writer -> delivered.addAll(writer.delivered()));
        return report;
    }

    /** Gives the files their names; only after {@link #prepare}. */
    void publish() throws IOException {
        if (isStopped()) {
            return;
        }
        for (DeliveryWriter writer : writers) {
            writer.publish();
        }
        delivered.clear();
        writers.forEach(writer -> delivered.addAll(writer.delivered()));
    }

    /** Removes the hidden names of what is published, and ends all threads. */
    void release() {
        writers.forEach(DeliveryWriter::release);
        end();
    }

    /** Ends all threads and leaves what was written where it is. */
    void end() {
        reader.close();
        sorter.close();
        workers.close();
        lane.close();
    }

    /** Removes all that was written. */
    void discard() {
        end();
        writers.forEach(DeliveryWriter::discard);
    }
}
