package io.mivrel.run;

import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/**
 * Renders and writes clear documents on a thread of its own, in the order they were cleared. What fails there comes out of the next call here.
 */
final class WriterThread implements AutoCloseable {
    private static final int SIZE = 256;

    private interface Work {
        void writeBy(DeliveryWriter writer) throws IOException;
    }

    private static final Work END = writer -> {};

    private final List<DeliveryWriter> writers;
    private final Handover<Work> queue = new Handover<>();
    private final Thread thread;
    private List<Document> batch = new ArrayList<>(SIZE);
    private volatile Throwable failure;

    WriterThread(List<DeliveryWriter> writers) {
        this.writers = writers;
        this.thread = new Thread(this::writeAll, "mivrel-writer");
        this.thread.setDaemon(true);
        this.thread.start();
    }

    void write(Document document) throws IOException {
        batch.add(document);
        if (batch.size() == SIZE) {
            handDocuments();
        }
    }

    /** Writes documents of a batch, from one up to another. */
    void write(DocumentBlock some, int from, int to) throws IOException {
        handDocuments();
        hand(writer -> writer.write(some, from, to));
    }

    private void handDocuments() throws IOException {
        if (!batch.isEmpty()) {
            List<Document> documents = batch;
            batch = new ArrayList<>(SIZE);
            hand(writer -> writer.write(documents));
        }
    }

    /** Writes the rest and waits until all is written. */
    void finish() throws IOException {
        handDocuments();
        hand(END);
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
        Threads.rethrow(failure);
    }

    private void hand(Work work) throws IOException {
        Threads.rethrow(failure);
        try {
            if (work == END) {
                queue.putLast(work);
            } else {
                queue.put(work);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }

    private void writeAll() {
        try {
            for (Work next = queue.take(); next != END; next = queue.take()) {
                // After a failure the rest is only taken away, so that nobody waits for room.
                if (failure == null) {
                    write(next);
                }
            }
        } catch (InterruptedException stopped) {
            // Closed early: the pass is thrown away.
        }
    }

    private void write(Work work) {
        try {
            for (DeliveryWriter writer : writers) {
                work.writeBy(writer);
            }
        } catch (Throwable thrown) {
            failure = thrown;
        }
    }

    @Override
    public void close() {
        Threads.stop(thread);
    }
}
