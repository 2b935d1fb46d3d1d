package io.mivrel.run;

import io.mivrel.delivery.DeliveryWriter;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.RecordBlock;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Renders and writes clear documents on a thread of its own, in the order they were cleared. What fails there comes out of
 * the next call here.
 */
final class WriterThread implements AutoCloseable {
    private static final int SIZE = 256;

    private interface Work {
        void write() throws IOException;
    }

    private static final Work END = () -> {};

    private final Map<Currency, List<DeliveryWriter>> writers;
    private final Handover<Work> queue = new Handover<>();
    private final Workers.Task<Void> task;
    private List<Document> waiting = new ArrayList<>(SIZE);
    private volatile @Nullable Throwable failure;

    WriterThread(Map<Currency, List<DeliveryWriter>> writers, Workers workers) {
        this.writers = writers;
        this.task = workers.begin(this::writeAll);
    }

    /** Writes a document by those of the deliveries whose bit is set. */
    void write(Document document, long deliveries) throws IOException {
        if (deliveries != -1) {
            handDocuments();
            hand(() -> {
                List<DeliveryWriter> own = of(document.records().block());
                for (int i = 0; i < own.size(); i++) {
                    if ((deliveries & 1L << i) != 0) {
                        own.get(i).write(document);
                    }
                }
            });
            return;
        }
        waiting.add(document);
        if (waiting.size() == SIZE) {
            handDocuments();
        }
    }

    /** Writes documents of a block, from one up to another. */
    void write(DocumentBlock documents, int from, int to) throws IOException {
        handDocuments();
        hand(() -> {
            for (DeliveryWriter writer : of(documents.records())) {
                writer.write(documents, from, to);
            }
        });
    }

    private List<DeliveryWriter> of(RecordBlock records) {
        return Objects.requireNonNull(writers.get(records.currency()));
    }

    private void handDocuments() throws IOException {
        if (!waiting.isEmpty()) {
            List<Document> documents = waiting;
            waiting = new ArrayList<>(SIZE);
            hand(() -> {
                for (Document document : documents) {
                    for (DeliveryWriter writer : of(document.records().block())) {
                        writer.write(document);
                    }
                }
            });
        }
    }

    /** Writes the rest and waits until all is written. */
    void finish() throws IOException {
        handDocuments();
        hand(END);
        task.get();
        Workers.rethrow(failure);
    }

    private void hand(Work work) throws IOException {
        Workers.rethrow(failure);
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

    private void writeAll() throws InterruptedException {
        for (Work next = queue.take(); next != END; next = queue.take()) {
            // After a failure the rest is only taken away, so that nobody waits for room.
            if (failure == null) {
                write(next);
            }
        }
    }

    private void write(Work work) {
        try {
            work.write();
        } catch (Throwable thrown) {
            failure = thrown;
        }
    }

    @Override
    public void close() {
        task.stop();
    }
}
