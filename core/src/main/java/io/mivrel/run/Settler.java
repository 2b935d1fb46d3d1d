package io.mivrel.run;

import io.mivrel.checking.Check;
import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.model.BankBatch;
import io.mivrel.model.BankLines;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.RecordBatch;
import io.mivrel.model.Rule;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Decides the fate of each document of a pass: checks it, asks the memory, counts it, and has the clear ones written. */
final class Settler {
    final Fate clear = new Fate();
    final Fate held = new Fate();
    /** Documents that an earlier run delivered. */
    final Fate before = new Fate();
    /** Documents beyond the pilot. */
    final Fate beyond = new Fate();

    final FindingLog findings = new FindingLog();
    final Map<String, HeldRows> heldRows = new HashMap<>();

    private final RunPlan plan;
    private final List<Check> checks;
    private final WriterThread writerThread;
    private boolean[] marked = new boolean[0];

    /**
     * @param writers write the clear documents; none in a run that only checks
     */
    Settler(RunPlan plan, List<Check> checks, List<DeliveryWriter> writers) {
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
        if (document.isSound() && !isBlocked(noted)) {
            fingerprint = Fingerprint.of(document);
            Memory.Verdict verdict = plan.memory().judge(fingerprint.identity(), fingerprint.content());
            if (verdict == Memory.Verdict.DELIVERED) {
                before.add(document);
                return;
            }
            if (verdict == Memory.Verdict.CHANGED || !passes(document)) {
                lookClosely(document, verdict, noted);
            }
        }
        for (Finding finding : noted) {
            findings.add(finding);
        }
        if (!document.isSound() || isBlocked(noted)) {
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
     * Looks quickly at the bank lines of a batch, for {@link #settleClear}.
     *
     * @param aside lines that are not to be settled; {@code null} for none
     */
    void look(BankBatch lines, boolean[] aside) {
        marked = new boolean[lines.size()];
        if (plan.first() > 0) {
            return;
        }
        for (int i = 0; i < marked.length; i++) {
            marked[i] = lines.coding(i) != null && (aside == null || !aside[i]);
        }
        for (Check check : checks) {
            check.passes(lines, marked);
        }
    }

    /**
     * Settles the bank lines of a batch from a place on without making documents of them, up to the first that is not
     * clear at a quick look. Answers the place of that one, or the size of the batch.
     */
    int settleClear(BankBatch lines, int from) {
        RecordBatch records = lines.records();
        Memory memory = plan.memory();
        int start = from;
        int i = from;
        try {
            for (; i < marked.length && marked[i]; i++) {
                long hash = Fingerprint.ofBankLine(lines.bankAccount(), records, i);
                Fate fate = clear;
                if (memory.judge(hash, hash) == Memory.Verdict.DELIVERED) {
                    write(lines, start, i);
                    start = i + 1;
                    fate = before;
                } else {
                    memory.remember(hash, hash);
                }
                fate.add(records.number(BankLines.DATE, i), records.number(BankLines.AMOUNT, i));
            }
            write(lines, start, i);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return i;
    }

    private void write(BankBatch lines, int from, int to) throws IOException {
        if (writerThread != null && from < to) {
            writerThread.write(lines, from, to);
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
    private void lookClosely(Document document, Memory.Verdict verdict, List<Finding> noted) {
        if (verdict == Memory.Verdict.CHANGED) {
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
