package io.mivrel.run;

import io.mivrel.checking.Check;
import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntConsumer;

/** Decides the fate of each document of a pass: checks it, asks the memory, counts it, and has the clear ones written. */
final class DocumentSorter {
    final DocumentCount clear = new DocumentCount();
    final DocumentCount held = new DocumentCount();
    /** Documents that an earlier run delivered. */
    final DocumentCount before = new DocumentCount();
    /** Documents beyond the pilot. */
    final DocumentCount beyond = new DocumentCount();

    final FindingLog findings = new FindingLog();
    final Map<String, HeldRows> heldRows = new HashMap<>();

    private final RunPlan plan;
    private final List<Check> checks;
    private final WriterThread writerThread;

    /**
     * @param writers write the clear documents; none in a run that only checks
     */
    DocumentSorter(RunPlan plan, List<Check> checks, List<DeliveryWriter> writers) {
        this.plan = plan;
        this.checks = checks;
        this.writerThread = writers.isEmpty() ? null : new WriterThread(writers);
    }

    /**
     * Settles a document.
     *
     * @param noted what is known of it already; findings are added
     */
    void settle(Document document, List<Finding> noted) {
        Fingerprint fingerprint = null;
        if (document.isValid() && !isBlocked(noted)) {
            fingerprint = Fingerprint.of(document);
            DocumentHistory.Verdict verdict = plan.memory().judge(fingerprint.identity(), fingerprint.content());
            if (verdict == DocumentHistory.Verdict.DELIVERED) {
                before.add(document);
                return;
            }
            if (verdict == DocumentHistory.Verdict.CHANGED || !passes(document)) {
                lookClosely(document, verdict, noted);
            }
        }
        for (Finding finding : noted) {
            findings.add(finding);
        }
        if (!document.isValid() || isBlocked(noted)) {
            held.add(document);
            heldRowsOf(document.origin().file())
                    .add(document, noted.stream().filter(Finding::blocks).toList());
        } else if (plan.first() > 0 && clear.documents() >= plan.first()) {
            beyond.add(document);
        } else {
            clear.add(document);
            deliver(document, fingerprint);
        }
    }

    /**
     * Settles the documents of a batch in their order, those that are clear at a quick look without making an object of
     * each.
     *
     * @param decided those that can be looked at so; changed here
     * @param other settles a document of any other kind
     */
    void settle(DocumentBlock batch, boolean[] decided, IntConsumer other) {
        if (plan.first() > 0) {
            Arrays.fill(decided, false);
        }
        for (Check check : checks) {
            check.passes(batch, decided);
        }
        for (int i = settleClear(batch, decided, 0); i < batch.size(); i = settleClear(batch, decided, i + 1)) {
            other.accept(i);
        }
    }

    // From a place on, up to the first that is not clear at a quick look; answers the place of that one, or the end.
    private int settleClear(DocumentBlock batch, boolean[] passed, int from) {
        DocumentHistory memory = plan.memory();
        int start = from;
        int i = from;
        try {
            for (; i < batch.size() && passed[i]; i++) {
                long identity = Fingerprint.identity(batch, i);
                long content = Fingerprint.content(batch, i, identity);
                DocumentHistory.Verdict verdict = memory.judge(identity, content);
                if (verdict == DocumentHistory.Verdict.NEW) {
                    memory.remember(identity, content);
                    clear.add(batch, i);
                } else {
                    write(batch, start, i);
                    start = i + 1;
                    if (verdict == DocumentHistory.Verdict.CHANGED) {
                        // Only a document with a name can be so, and it can be judged once more.
                        return i;
                    }
                    before.add(batch, i);
                }
            }
            write(batch, start, i);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return i;
    }

    private void write(DocumentBlock batch, int from, int to) throws IOException {
        if (writerThread != null && from < to) {
            writerThread.write(batch, from, to);
        }
    }

    private boolean passes(Document document) {
        for (Check check : checks) {
            if (!check.passes(document)) {
                return false;
            }
        }
        return true;
    }

    // Kept apart from the quick look, so that what runs for every document stays small.
    private void lookClosely(Document document, DocumentHistory.Verdict verdict, List<Finding> noted) {
        if (verdict == DocumentHistory.Verdict.CHANGED) {
            noted.add(changed(document));
        }
        for (Check check : checks) {
            // Two deliveries may refuse the same text for the same reason.
            check.check(document, finding -> {
                if (!noted.contains(finding)) {
                    noted.add(finding);
                }
            });
        }
    }

    private static boolean isBlocked(List<Finding> noted) {
        for (Finding finding : noted) {
            if (finding.blocks()) {
                return true;
            }
        }
        return false;
    }

    private static Finding changed(Document document) {
        return new Finding(
                Rule.CHANGED_SINCE_DELIVERED,
                document.origin(),
                "reference",
                document.reference(),
                "was delivered before with other figures",
                "post the difference under a number of its own; or give the run another name if numbers begin anew");
    }

    private void deliver(Document document, Fingerprint fingerprint) {
        try {
            if (writerThread != null) {
                writerThread.write(document);
            }
            plan.memory().remember(fingerprint.identity(), fingerprint.content());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    HeldRows heldRowsOf(String file) {
        return heldRows.computeIfAbsent(file, f -> new HeldRows());
    }

    /** Waits until all is written. */
    void finish() throws IOException {
        if (writerThread != null) {
            writerThread.finish();
        }
    }

    /** Stops writing. */
    void close() {
        if (writerThread != null) {
            writerThread.close();
        }
    }
}
