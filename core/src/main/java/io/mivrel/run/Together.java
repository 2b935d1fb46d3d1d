package io.mivrel.run;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/** Does independent pieces of work at the same time, and fails with the first failure. */
final class Together {
    private Together() {}

    static void run(List<Callable<Void>> tasks) throws IOException {
        if (tasks.isEmpty()) {
            return;
        }
        ExecutorService pool = Executors.newFixedThreadPool(
                Math.min(tasks.size(), Math.max(2, Runtime.getRuntime().availableProcessors())), task -> {
                    Thread thread = new Thread(task, "mivrel-proof");
                    thread.setDaemon(true);
                    return thread;
                });
        try {
            List<Future<Void>> futures = new ArrayList<>();
            tasks.forEach(task -> futures.add(pool.submit(task)));
            for (Future<Void> future : futures) {
                future.get();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof IOException failed) {
                throw failed;
            }
            if (e.getCause() instanceof RuntimeException failed) {
                throw failed;
            }
            throw new IllegalStateException(e.getCause());
        } finally {
            pool.shutdownNow();
        }
    }
}
