package io.mivrel.run;

import io.mivrel.checking.Check;
import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.history.DocumentHistory;
import io.mivrel.history.DocumentHistory.Earlier;
import io.mivrel.history.DocumentHistory.Verdict;
import io.mivrel.history.RepeatFinding;
import io.mivrel.history.RepeatedDocuments;
import io.mivrel.history.Transfers;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.Drafter;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import io.mivrel.run.SortedDocument.Disposition;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Sorts the documents of a pass: checks each, asks the history, counts it, and has the clear ones written. */
final class DocumentSorter {
    /** Every delivery of the run. */
    private static final long ALL = -1;

    final DocumentCount clear;
    final DocumentCount held;
    /** Documents that an earlier run delivered. */
    final DocumentCount before;
    /** Documents beyond the pilot. */
    final DocumentCount beyond;
    /** Of those delivered before, how many each delivery of the run lacks. */
    final long[] lacking;

    /** The first documents, as many as are wanted. */
    final List<SortedDocument> sorted = new ArrayList<>();

    final FindingLog findings = new FindingLog();
    final Map<String, HeldRows> heldRows = new HashMap<>();

    private final RunPlan plan;
    private final DocumentIdentity identities;
    private final DocumentHistory history;
    private final List<Check> checks;
    /** Those without a columnar form. */
    private final List<Check> objectChecks;

    private long codedOtherwise;
    private @Nullable Origin codedOtherwiseFirst;
    private final RepeatedDocuments repeats;
    private final Transfers transfers;
    private final @Nullable WriterThread writerThread;
    /** The deliveries that get what went out by others before, a bit for each. */
    private final long takeEarlier;

    /** Drafts and sorts a document that does not go by its block; {@code noted} is what is known of it already. */
    interface ByObject {
        void sort(int document, List<Finding> noted);
    }

    /**
     * @param writers write the clear documents of each currency, in the order of the plan; none in a run that only checks
     */
    DocumentSorter(RunPlan plan, List<Check> checks, Map<Currency, List<DeliveryWriter>> writers, Workers workers) {
        Kind kind = plan.kind();
        this.plan = plan;
        this.identities = kind.identity();
        this.repeats = new RepeatedDocuments(kind, plan.inputs(), plan.joinsFiles());
        this.history = plan.history();
        this.transfers = new Transfers(plan.books(), history, plan.inputs());
        this.checks = checks;
        this.objectChecks = checks.stream().filter(c -> c.columns() == null).toList();
        this.writerThread = writers.isEmpty() ? null : new WriterThread(writers, workers);
        this.clear = new DocumentCount(kind, plan.currency());
        this.held = new DocumentCount(kind, plan.currency());
        this.before = new DocumentCount(kind, plan.currency());
        this.beyond = new DocumentCount(kind, plan.currency());
        this.lacking = new long[plan.targets().size()];
        long take = 0;
        for (int i = 0; i < plan.targets().size(); i++) {
            take |= plan.targets().get(i).earlier() == DeliveryTarget.Earlier.DELIVERED_TOO ? 1L << i : 0;
        }
        this.takeEarlier = take;
    }

    /** The same of a document that goes out as it is judged. */
    void sort(Document document, List<Finding> noted) {
        sort(document, document, noted);
    }

    /** What goes out in the place of a document that was coded: that of a transfer is led through its account. */
    Document led(Document document, @Nullable Coding coding, Drafter drafter) {
        return transfers.led(document, coding, drafter);
    }

    /**
     * Sorts one document.
     *
     * @param led goes out in its place
     * @param noted what is known of it already; findings are added
     */
    void sort(Document document, Document led, List<Finding> noted) {
        noted.replaceAll(plan.corrections()::judge);
        RecordRange records = document.records();
        if (!document.isValid() || isBlocked(noted)) {
            settle(document, noted, 0, 0, 0, 0);
            return;
        }
        long identity = identities.identity(records);
        long figures = identities.figures(records);
        long content = identities.content(records, identity, figures);
        long to = ALL;
        Verdict verdict = judge(document.kind(), records, identity, content);
        if (verdict == Verdict.DELIVERED) {
            to = missed();
            if (to == 0) {
                awaitOtherEnd(document);
                compareCoding(coded(led), records);
                before.add(document);
                meet(records, identity, figures);
                tell(document, Disposition.DELIVERED_BEFORE, noted);
                return;
            }
        }
        if (verdict != Verdict.NEW && verdict != Verdict.DELIVERED) {
            noted.add(said(document, verdict, earlier(identity)));
        } else if (verdict == Verdict.NEW) {
            Finding repeated = repeated(records, identity, figures);
            if (repeated != null) {
                noted.add(repeated);
            }
        }
        checks.forEach(check -> check(check, document, noted));
        if (verdict != Verdict.DELIVERED && !isBlocked(noted)) {
            transfer(document, noted);
        }
        noted.replaceAll(plan.corrections()::judge);
        settle(led, noted, to, identity, figures, content);
    }

    private void transfer(Document document, List<Finding> noted) {
        try {
            Finding booked = transfers.judge(document);
            if (booked != null) {
                noted.add(booked);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static long coded(DocumentBlock documents, int i) {
        Coding coding = documents.coding(documents.from(i));
        return coding == null ? 0 : coding.figure();
    }

    // How a bank line is coded, in a figure; 0 for documents that have a name of their own.
    private static long coded(Document document) {
        long coded = document.kind().isOfAccount() ? 1 : 0;
        for (Line line : document.kind().isOfAccount() ? document.lines() : List.<Line>of()) {
            coded = Coding.figure(coded, line.account(), line.taxCode(), line.party());
        }
        return coded;
    }

    private void compareCoding(long coded, RecordRange records) {
        long then = history.coded();
        if (then != 0 && coded != 0 && then != coded && codedOtherwise++ == 0) {
            codedOtherwiseFirst = records.get(0).origin();
        }
    }

    /** What is to be said of lines that went out before and are coded otherwise now; {@code null} for nothing. */
    @Nullable
    Finding codedOtherwise() {
        return codedOtherwiseFirst == null
                ? null
                : new Finding(
                        Rule.CODED_OTHERWISE,
                        codedOtherwiseFirst,
                        "",
                        "",
                        codedOtherwise == 1
                                ? "this line went out before, coded otherwise than now"
                                : codedOtherwise + " lines went out before, coded otherwise than now, this one first",
                        Rule.CODED_OTHERWISE.remedy());
    }

    // Of a transfer that went out before, the other end may still be missing.
    private void awaitOtherEnd(Document document) {
        List<Finding> noted = new ArrayList<>();
        transfer(document, noted);
        noted.stream()
                .filter(found -> found.rule() == Rule.TRANSFER_OPEN)
                .forEach(found -> findings.add(asCaution(found)));
    }

    private static Finding asCaution(Finding found) {
        return new Finding(
                found.rule(),
                Severity.CAUTION,
                found.origin(),
                found.field(),
                found.value(),
                found.reason(),
                found.suggestion());
    }

    /** True where lines coded to this account are ends of transfers, each of which is looked at by itself. */
    boolean isTransferTo(@Nullable String account) {
        return transfers.isOwn(account);
    }

    private void meet(RecordRange records, long identity, long figures) {
        if (figures != 0) {
            repeats.add(identity, figures, records);
        }
    }

    // What is wrong with a document that another one seems to be already; null when none does.
    private @Nullable Finding repeated(RecordRange records, long identity, long figures) {
        if (figures == 0) {
            return null;
        }
        try {
            Earlier named = repeats.named(identity, records);
            if (named != null) {
                return RepeatFinding.ofName(plan.kind(), records, named);
            }
            RepeatedDocuments.Alike alike = repeats.alike(figures, records);
            Finding found = alike == null ? null : RepeatFinding.ofFigures(plan.kind(), records, alike);
            if (found != null && found.blocks()) {
                return found;
            }
            long day = records.block().number(plan.kind().date(), records.from());
            Earlier delivered = history.alike(identity, figures, day);
            return delivered == null || !RepeatFinding.isNear(plan.kind(), delivered, records)
                    ? found
                    : RepeatFinding.ofFigures(plan.kind(), records, new RepeatedDocuments.Alike(delivered, true));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private @Nullable Earlier earlier(long identity) {
        try {
            return history.named(identity);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Keeps what became of a document, where that is wanted. */
    void tell(Document document, Disposition disposition, List<Finding> noted) {
        if (sorted.size() < plan.documentsKept()) {
            sorted.add(SortedDocument.of(document, disposition, noted));
        }
    }

    // What is found is found: counts the document as held or clear, and has it written when it is.
    private void settle(Document document, List<Finding> noted, long to, long identity, long figures, long content) {
        for (Finding finding : noted) {
            findings.add(finding);
        }
        if (!document.isValid() || isBlocked(noted)) {
            held.add(document);
            tell(document, Disposition.HELD, noted);
            if (plan.heldTo() != null && document.isValid()) {
                plan.heldTo().take(document, noted);
            }
            document.records().forEach(record -> heldRowsOf(record.file()).add(record));
            noted.stream()
                    .filter(Finding::blocks)
                    .forEach(finding -> heldRowsOf(finding.origin().file()).explain(finding));
        } else if (plan.first() > 0 && clear.documents() >= plan.first()) {
            beyond.add(document);
            tell(document, Disposition.BEYOND_PILOT, noted);
        } else {
            clear.add(document);
            tell(document, Disposition.CLEAR, noted);
            meet(document.records(), identity, figures);
            deliver(document, to, identity, figures, content);
        }
    }

    /**
     * Sorts the documents of a block in their order, those that are clear without making an object of each.
     *
     * @param decided those that can be looked at so; changed here
     * @param byObject sorts any other
     */
    void sort(DocumentBlock documents, boolean[] decided, ByObject byObject) {
        if (plan.first() > 0 || plan.documentsKept() > 0 || plan.clearTo() != null) {
            Arrays.fill(decided, false);
        }
        for (Check check : checks) {
            if (check.columns() != null) {
                check.columns().unmark(documents, decided);
            }
        }
        for (int i = deliverClear(documents, decided, 0); i < documents.size(); ) {
            byObject.sort(i, new ArrayList<>());
            i = deliverClear(documents, decided, i + 1);
        }
    }

    // From a place on, up to the first that is not clear by its columns; answers the place of that one, or the end.
    private int deliverClear(DocumentBlock documents, boolean[] marked, int from) {
        int start = from;
        int i = from;
        try {
            for (; i < documents.size() && marked[i]; i++) {
                RecordRange records = documents.range(i);
                long identity = identities.identity(records);
                long figures = identities.figures(records);
                long content = identities.content(records, identity, figures);
                Verdict verdict = history.judge(documents.kind(), records, identity, content);
                if (verdict == Verdict.NEW && repeated(records, identity, figures) != null) {
                    write(documents, start, i);
                    return i;
                }
                List<Finding> found = verdict == Verdict.NEW ? ask(documents, i) : List.of();
                if (verdict == Verdict.NEW && found.isEmpty()) {
                    meet(records, identity, figures);
                    history.remember(
                            documents.kind(),
                            records,
                            identity,
                            figures != 0 ? figures : coded(documents, i),
                            content,
                            ALL);
                    clear.add(documents, i);
                    continue;
                }
                write(documents, start, i);
                start = i + 1;
                if (verdict != Verdict.NEW && verdict != Verdict.DELIVERED) {
                    // Such a verdict uses nothing up, so the document can be judged once more.
                    return i;
                }
                if (verdict == Verdict.NEW) {
                    settle(documents.get(i), found, ALL, identity, figures, content);
                } else {
                    before(documents, i, identity, figures, content);
                }
            }
            write(documents, start, i);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return i;
    }

    // What checks without a columnar form say of a document that all others let pass.
    private List<Finding> ask(DocumentBlock documents, int i) {
        if (objectChecks.isEmpty()) {
            return List.of();
        }
        Document document = documents.get(i);
        List<Finding> found = new ArrayList<>(0);
        objectChecks.forEach(check -> check(check, document, found));
        found.replaceAll(plan.corrections()::judge);
        return found;
    }

    private void before(DocumentBlock documents, int i, long identity, long figures, long content) {
        long to = missed();
        if (to == 0) {
            compareCoding(coded(documents, i), documents.range(i));
            before.add(documents, i);
            meet(documents.range(i), identity, figures);
        } else {
            List<Finding> found = new ArrayList<>(ask(documents, i));
            settle(documents.get(i), found, to, identity, figures, content);
        }
    }

    // Of a document that was delivered before, the deliveries that get it now all the same; the others are counted.
    private long missed() {
        long missing = history.lacking();
        for (int t = 0; t < lacking.length; t++) {
            if ((missing & ~takeEarlier & 1L << t) != 0) {
                lacking[t]++;
            }
        }
        return missing & takeEarlier;
    }

    private Verdict judge(Kind kind, RecordRange records, long identity, long content) {
        try {
            return history.judge(kind, records, identity, content);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void write(DocumentBlock documents, int from, int to) throws IOException {
        if (writerThread != null && from < to) {
            writerThread.write(documents, from, to);
        }
    }

    private static void check(Check check, Document document, List<Finding> noted) {
        // Two deliveries may refuse the same text for the same reason.
        check.check(document, finding -> {
            if (!noted.contains(finding)) {
                noted.add(finding);
            }
        });
    }

    private static boolean isBlocked(List<Finding> noted) {
        for (Finding finding : noted) {
            if (finding.blocks()) {
                return true;
            }
        }
        return false;
    }

    private static Finding said(Document document, Verdict verdict, @Nullable Earlier earlier) {
        String as = earlier == null ? "" : ": " + earlier;
        Rule rule;
        String reason;
        String suggestion;
        switch (verdict) {
            case CHANGED -> {
                rule = Rule.CHANGED_SINCE_DELIVERED;
                reason = "was delivered before with other figures" + as;
                suggestion = "post the difference under a number of its own, or withdraw the first one at the receiver";
            }
            case AMENDED -> {
                rule = Rule.LINE_AMENDED;
                reason = earlier != null
                        ? "this line was delivered before with another date, and is not in this file as it was" + as
                        : "this day was delivered before, and lines of it that were delivered are not in this file as they were";
                suggestion = "compare the day with what was delivered: was a line, a balance or a text changed?";
            }
            case NUMBER_RETURNS -> {
                rule = Rule.NUMBER_RETURNS;
                reason = "was delivered before with other figures, and dated more than half a year apart" + as;
                suggestion = "check whether numbers have started again; otherwise the date is wrong";
            }
            default -> {
                rule = Rule.DAYS_DELIVERED_BEFORE;
                reason =
                        "this day was delivered before from a file in another form, where no line has this date and amount";
                suggestion = "take the line from the form that was delivered before, or enter it by hand";
            }
        }
        String value = document.kind().key() == null ? "" : document.reference();
        return new Finding(rule, document.origin(), value.isEmpty() ? "" : "reference", value, reason, suggestion);
    }

    private void deliver(Document document, long to, long identity, long figures, long content) {
        try {
            if (writerThread != null) {
                writerThread.write(document, to);
            }
            ClearDocuments target = plan.clearTo();
            if (target != null) {
                target.take(document, identity);
            }
            long known = figures != 0 ? figures : coded(document);
            history.remember(document.kind(), document.records(), identity, known, content, to);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    HeldRows heldRowsOf(String file) {
        return heldRows.computeIfAbsent(file, f -> new HeldRows());
    }

    /** Waits until all is written. */
    void finish() throws IOException {
        transfers.open().forEach(findings::add);
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
