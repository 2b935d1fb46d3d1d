package io.mivrel.run;

import io.mivrel.coding.Coder;
import io.mivrel.coding.CodingEntry;
import io.mivrel.drafting.BankDrafter;
import io.mivrel.model.BankBatch;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.RecordBlock;
import java.util.ArrayList;
import java.util.List;

/** Takes bank lines by the batch: each once of all files that have it, coded, and then settled. */
final class BankLane {
    /** Lines that a file before had. */
    final DocumentCount takenOnce = new DocumentCount();

    private final RunPlan plan;
    private final DocumentSorter settler;
    private final Overlaps overlaps;
    private final Coder coder;
    private BankDrafter drafter;
    private int file;
    /** The account of the file, when several files belong to it. */
    private String watched;

    BankLane(RunPlan plan, DocumentSorter settler, Overlaps overlaps) {
        this.plan = plan;
        this.settler = settler;
        this.overlaps = overlaps;
        this.coder = plan.coding() == null ? null : new Coder(plan.coding());
    }

    /**
     * Takes a batch.
     *
     * @param fileOrdinal place of its file in the run, from 1
     */
    void take(RecordBlock records, int fileOrdinal) {
        if (fileOrdinal != file) {
            file = fileOrdinal;
            String account = plan.inputs().get(file - 1).layout().account();
            drafter = new BankDrafter(plan.books(), account, coder, plan.suspense(), file);
            watched = overlaps.watches(account) ? account : null;
        }
        boolean[] again = watched == null ? null : again(records);
        BankBatch lines = drafter.code(records);
        boolean[] decided = new boolean[lines.size()];
        for (int i = 0; i < decided.length; i++) {
            decided[i] = lines.coding(i) != null && (again == null || !again[i]);
        }
        settler.settle(lines, decided, i -> {
            List<Finding> noted = new ArrayList<>();
            Document line = lines.coding(i) != null ? lines.get(i) : drafter.draft(records.range(i, i + 1), noted::add);
            if (again != null && again[i]) {
                takenOnce.add(line);
            } else {
                settler.settle(line, noted);
            }
        });
    }

    private boolean[] again(RecordBlock records) {
        boolean[] again = new boolean[records.size()];
        for (int i = 0; i < again.length; i++) {
            again[i] = records.isValid(i) && overlaps.isTaken(watched, file, records, i);
        }
        return again;
    }

    /** Entries of the coding table that decided no line. */
    List<CodingEntry> unused() {
        return coder == null ? List.of() : coder.unused();
    }
}
