package io.mivrel.run;

import io.mivrel.coding.Coder;
import io.mivrel.coding.CodingEntry;
import io.mivrel.drafting.Grouping;
import io.mivrel.history.Overlaps;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Drafter;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Posting;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import io.mivrel.model.SourceRecord;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Codes, groups and drafts the records of one kind, and hands the documents to the sorter: what is plain in blocks, all else
 * document by document.
 */
final class DocumentLane implements Grouping.Target {
    /** Lines that a file before had. */
    final DocumentCount takenOnce;

    /** In place of an entry of the coding table: a person has chosen the account of this line. */
    private static final String CHOSEN = "chosen";

    private final RunPlan plan;
    private final Kind kind;
    private final Drafter drafter;
    private final @Nullable Coder coder;
    private final Overlaps overlaps;
    private final DocumentSorter sorter;
    /** {@code null} when each record is a document. */
    private final @Nullable Grouping grouping;
    /** Fields that all records of a plain document must agree on. */
    private final Field[] headings;

    DocumentLane(
            RunPlan plan, Drafter drafter, DocumentSorter sorter, Overlaps overlaps, @Nullable DocumentLane earlier) {
        this.plan = plan;
        this.kind = plan.kind();
        this.drafter = drafter;
        this.sorter = sorter;
        this.overlaps = overlaps;
        this.coder = plan.coding() == null ? null : new Coder(plan.coding(), kind);
        this.takenOnce = new DocumentCount(kind, plan.currency());
        this.grouping = kind.key() == null
                ? null
                : earlier == null || earlier.grouping == null
                        ? firstGrouping(plan, kind.key())
                        : earlier.grouping.nextPass(this);
        this.headings = kind.table().fields().stream()
                .filter(f -> f.level().depth() == 0 && !f.derived() && f != kind.key())
                .toArray(Field[]::new);
    }

    private Grouping firstGrouping(RunPlan plan, Field key) {
        Grouping first = new Grouping(kind.table(), key, this).within(kind.apart());
        return plan.joinsFiles() ? first.acrossFiles() : first;
    }

    /** Takes the next records in the order of the input. */
    void take(RecordBlock records) {
        if (grouping != null) {
            grouping.accept(records);
            return;
        }
        boolean[] again = overlaps.again(records);
        Coding[] codings = coder == null ? null : code(records, coder);
        if (coder != null && plan.corrections().chooses()) {
            chosen(records, Objects.requireNonNull(codings));
        }
        DocumentBlock documents = new DocumentBlock(kind, records, null, records.size(), codings, drafter);
        boolean[] decided = new boolean[records.size()];
        for (int i = 0; i < decided.length; i++) {
            decided[i] = kind.isColumnar()
                    && records.isValid(i)
                    && !overlaps.isDoubtful(records.range(i, i + 1))
                    && (again == null || !again[i])
                    && (codings == null && !isCodedTransfer(records, i)
                            || codings != null
                                    && codings[i] != null
                                    && !codings[i].isSplit()
                                    && !sorter.isTransferTo(codings[i].posting().account()));
        }
        sorter.sort(documents, decided, (i, noted) -> {
            Document document = drafter.draft(documents.range(i), documents.coding(i), noted::add);
            if (again != null && again[i]) {
                takenOnce.add(document);
                sorter.tell(document, SortedDocument.Disposition.TAKEN_ONCE, noted);
            } else {
                if (overlaps.isDoubtful(records.range(i, i + 1))) {
                    noted.add(plan.corrections().judge(atSeam(document)));
                }
                sorter.sort(document, sorter.led(document, documents.coding(i), drafter), noted);
            }
        });
    }

    // A line that comes coded to an own account.
    private boolean isCodedTransfer(RecordBlock records, int at) {
        Field account = kind.account();
        return kind.isOfAccount()
                && account != null
                && !records.lacks(account)
                && sorter.isTransferTo(records.text(account, at));
    }

    private static Finding atSeam(Document document) {
        return new Finding(
                Rule.LINES_TAKEN_ONCE_BY_CONTENT,
                Severity.BLOCKER,
                document.origin(),
                "",
                "",
                "an equal line stands in another file of this account, and nothing tells whether it is the same payment",
                Rule.LINES_TAKEN_ONCE_BY_CONTENT.remedy());
    }

    // What a person chose for one line goes before the table.
    private void chosen(RecordBlock records, Coding[] codings) {
        for (int i = 0; i < codings.length; i++) {
            SourceRecord line = records.get(i);
            String account = plan.corrections().account(line.file(), line.row());
            if (account != null) {
                codings[i] = new Coding(CHOSEN, null, List.of(Posting.whole(account, null, null)));
            }
        }
    }

    // A line that is held for another reason has met its entry all the same.
    private Coding[] code(RecordBlock records, Coder coder) {
        Coding[] codings = new Coding[records.size()];
        for (int i = 0; i < codings.length; i++) {
            if (records.number(kind.amount(), i) != SourceRecord.ABSENT) {
                codings[i] = coder.decide(records, i);
            }
        }
        return codings;
    }

    @Override
    public void groups(RecordBlock records, int[] bounds, int count) {
        DocumentBlock documents = new DocumentBlock(kind, records, bounds, count, null, drafter);
        boolean[] decided = new boolean[count];
        for (int i = 0; kind.isColumnar() && i < count; i++) {
            decided[i] = areValid(records, bounds[i], bounds[i + 1]) && agree(documents.range(i));
        }
        sorter.sort(documents, decided, (i, noted) -> draft(documents.range(i), Grouping.Stand.TOGETHER, noted));
    }

    private static boolean areValid(RecordBlock records, int from, int to) {
        for (int i = from; i < to; i++) {
            if (!records.isValid(i)) {
                return false;
            }
        }
        return true;
    }

    private boolean agree(RecordRange records) {
        for (Field field : headings) {
            // What no record of the block has cannot differ.
            if (!records.block().lacks(field) && !records.agreesOn(field)) {
                return false;
            }
        }
        return true;
    }

    @Override
    public void group(RecordRange records, Grouping.Stand stand) {
        draft(records, stand, new ArrayList<>());
    }

    private void draft(RecordRange records, Grouping.Stand stand, List<Finding> noted) {
        Document document = drafter.draft(records, null, noted::add);
        if (stand != Grouping.Stand.TOGETHER) {
            noted.add(stand == Grouping.Stand.APART ? standApart(records) : tooMany(records.get(0)));
        }
        sorter.sort(document, noted);
    }

    private Finding tooMany(SourceRecord first) {
        return new Finding(
                Rule.DOCUMENT_TOO_LARGE,
                first.origin(),
                "reference",
                String.valueOf(first.text(Objects.requireNonNull(kind.key()))),
                "more than " + Grouping.MOST_LINES + " lines have this reference",
                "is the reference taken from the right column?");
    }

    private Finding standApart(RecordRange records) {
        SourceRecord first = records.get(0);
        SourceRecord last = records.get(records.size() - 1);
        return new Finding(
                Rule.REFERENCE_RETURNS,
                first.origin(),
                "reference",
                String.valueOf(first.text(Objects.requireNonNull(kind.key()))),
                "its " + records.size() + " lines stand apart, from "
                        + (first.file().equals(last.file())
                                ? "row " + first.row() + " to row " + last.row()
                                : first.origin() + " to " + last.origin()),
                "");
    }

    /** Ends the input. */
    void finish() throws IOException {
        if (grouping != null) {
            grouping.finish();
            // Records that waited on disk are confidential, so none may stay there.
            grouping.close();
        }
    }

    /** True when lines of a document stand apart that were not known to. */
    boolean mustStartOver() {
        return grouping != null && grouping.mustStartOver();
    }

    /** Entries of the coding table that decided no line. */
    List<CodingEntry> unused() {
        return coder == null ? List.of() : coder.unused();
    }

    /** Removes what waits on disk. */
    void close() {
        try {
            if (grouping != null) {
                grouping.close();
            }
        } catch (IOException temporaryFolder) {
            // A leftover in the temporary folder harms nothing.
        }
    }
}
