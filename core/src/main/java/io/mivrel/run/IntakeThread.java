package io.mivrel.run;

import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * Reads the inputs on a thread of its own and hands over batches in order, a few ahead of the stages that follow.
 */
final class IntakeThread implements AutoCloseable {
    /** A batch with the place of its file; a {@code null} batch ends the input or carries what failed. */
    private record Parcel(IntakeBlock batch, int fileOrdinal, Throwable failure) {}

    private final RunPlan plan;
    private final Set<String> heldFiles;
    private final Handover<Parcel> queue = new Handover<>();
    private final List<IntakeTally> tallies = new ArrayList<>();
    private final Thread thread;
    private int fileOrdinal;

    IntakeThread(RunPlan plan, Set<String> heldFiles) {
        this.plan = plan;
        this.heldFiles = heldFiles;
        this.thread = new Thread(this::readAll, "mivrel-reader");
        this.thread.setDaemon(true);
        this.thread.start();
    }

    /** The next batch, or {@code null} at the end of the last file. */
    IntakeBlock next() throws IOException {
        try {
            Parcel parcel = queue.take();
            Threads.rethrow(parcel.failure);
            fileOrdinal = parcel.fileOrdinal;
            return parcel.batch;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }

    /** The place of the last batch's file in the run, from 1. */
    int fileOrdinal() {
        return fileOrdinal;
    }

    /** The tallies of all files; once {@link #next} has answered {@code null}. */
    List<IntakeTally> tallies() {
        return tallies;
    }

    private void readAll() {
        try {
            int ordinal = 0;
            for (Input input : plan.inputs()) {
                read(input, ++ordinal);
            }
            queue.putLast(new Parcel(null, 0, null));
        } catch (InterruptedException stopped) {
            // Closed early: nobody waits for more.
        } catch (Throwable failure) {
            offerFailure(failure);
        }
    }

    private void offerFailure(Throwable failure) {
        try {
            queue.putLast(new Parcel(null, 0, failure));
        } catch (InterruptedException stopped) {
            // Closed early: nobody waits for it.
        }
    }

    private void read(Input input, int ordinal) throws IOException, InterruptedException {
        try (RowSource source = input.opener().open()) {
            Intake intake = new Intake(
                    input.layout(),
                    input.name(),
                    source,
                    plan.books().decimals(),
                    plan.books().account(input.layout().account()),
                    plan.books().currency().getCurrencyCode(),
                    plan.dates(),
                    heldFiles.contains(input.name()));
            tallies.add(intake.tally());
            boolean more = true;
            while (more) {
                IntakeBlock batch = intake.newBatch();
                more = intake.fill(batch);
                queue.put(new Parcel(batch, ordinal, null));
            }
        }
    }

    @Override
    public void close() {
        Threads.stop(thread);
    }
}
