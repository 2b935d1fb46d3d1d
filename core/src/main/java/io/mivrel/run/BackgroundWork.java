package io.mivrel.run;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/** Work that goes on beside the run, each piece on a thread of its own; fails with the first failure. */
final class BackgroundWork implements AutoCloseable {
    private final ExecutorService pool = Executors.newCachedThreadPool(task -> {
        Thread thread = new Thread(task, "mivrel-proof");
        thread.setDaemon(true);
        return thread;
    });
    private final List<Future<Void>> begun = new ArrayList<>();

    void begin(Callable<Void> task) {
        begun.add(pool.submit(task));
    }

    /** Waits until all that was begun has ended. */
    void await() throws IOException {
        try {
            for (Future<Void> task : begun) {
                task.get();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        } catch (ExecutionException | CancellationException e) {
            Threads.rethrow(e.getCause());
            throw new IllegalStateException(e);
        }
    }

    /** Gives up what has not ended. */
    @Override
    public void close() {
        pool.shutdownNow();
    }
}
