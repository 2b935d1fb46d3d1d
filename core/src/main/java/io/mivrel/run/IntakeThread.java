package io.mivrel.run;

import io.mivrel.books.Account;
import io.mivrel.intake.Input;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Reads the inputs on a thread of its own and hands over blocks in order, a few ahead of the stages that follow. */
final class IntakeThread implements AutoCloseable {
    /** A {@code null} block ends the input or carries what failed. */
    private record Parcel(
            @Nullable IntakeBlock block, @Nullable Throwable failure) {}

    private final RunPlan plan;
    private final Set<String> heldFiles;
    private final List<IntakeTally> earlier;
    private final Handover<Parcel> queue = new Handover<>();
    private final List<IntakeTally> tallies = new ArrayList<>();
    private final Workers.Task<Void> task;

    /**
     * @param heldFiles those that an earlier pass found a blocker for as a whole
     * @param earlier the tallies of an earlier pass, in the order of the inputs; empty in the first
     */
    IntakeThread(RunPlan plan, Set<String> heldFiles, List<IntakeTally> earlier, Workers workers) {
        this.plan = plan;
        this.earlier = earlier;
        this.heldFiles = heldFiles;
        this.task = workers.begin(this::readAll);
    }

    /** The next block, or {@code null} at the end of the last file. */
    @Nullable
    IntakeBlock next() throws IOException {
        try {
            Parcel parcel = queue.take();
            Workers.rethrow(parcel.failure);
            return parcel.block;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }

    /** The tallies of all files; once {@link #next} has answered {@code null}. */
    List<IntakeTally> tallies() {
        return tallies;
    }

    private void readAll() throws InterruptedException {
        try {
            int ordinal = 0;
            for (Input input : plan.inputs()) {
                read(input, ++ordinal);
            }
            queue.putLast(new Parcel(null, null));
        } catch (InterruptedException stopped) {
            throw stopped;
        } catch (Throwable failure) {
            queue.putLast(new Parcel(null, failure));
        }
    }

    private void read(Input input, int ordinal) throws IOException, InterruptedException {
        Account account = plan.books().account(input.layout().account());
        SourceFile file =
                new SourceFile(input.name(), "", ordinal, input.layout().account(), plan.currency(input));
        try (RowSource source = input.opener().open()) {
            Intake intake = new Intake(input.layout(), file, source)
                    .against(account)
                    .dates(plan.dates())
                    .overrides(plan.corrections());
            if (heldFiles.contains(input.name())) {
                intake.holdAll();
            }
            if (!earlier.isEmpty()) {
                intake.holdFoundLate(earlier.get(ordinal - 1));
            }
            tallies.add(intake.tally());
            boolean more = true;
            while (more) {
                IntakeBlock block = intake.newBlock();
                more = intake.fill(block);
                queue.put(new Parcel(block, null));
            }
        }
    }

    @Override
    public void close() {
        task.stop();
    }
}
