package io.mivrel.run;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** The threads of a run: whatever goes on beside its main thread is begun here, and ends with it. */
public final class Workers implements AutoCloseable {
    private static final long PATIENCE_SECONDS = 10;

    private final ExecutorService pool = Executors.newCachedThreadPool(task -> {
        @Nullable Thread thread = new Thread(task, "mivrel");
        thread.setDaemon(true);
        return thread;
    });

    /** Begins a piece of work on a thread of its own. */
    public <T> Task<T> begin(Callable<T> work) {
        Task<T> task = new Task<>(work);
        pool.execute(task);
        return task;
    }

    /** Begins work without a result. */
    public Task<Void> begin(Work work) {
        return begin(() -> {
            work.go();
            return null;
        });
    }

    /** Work without a result that may fail with a file. */
    @FunctionalInterface
    public interface Work {
        void go() throws IOException, InterruptedException;
    }

    /** Gives up what has not ended. */
    @Override
    public void close() {
        pool.shutdownNow();
    }

    /** A piece of work that was begun. */
    public static final class Task<T> implements Runnable {
        private final Callable<T> work;
        private final CountDownLatch ended = new CountDownLatch(1);
        private @Nullable Thread thread;
        private @Nullable T result;
        private @Nullable Throwable failure;

        private Task(Callable<T> work) {
            this.work = work;
        }

        @Override
        public void run() {
            synchronized (this) {
                thread = Thread.currentThread();
            }
            try {
                result = work.call();
            } catch (Throwable thrown) {
                failure = thrown;
            } finally {
                synchronized (this) {
                    thread = null;
                }
                ended.countDown();
            }
        }

        /** Waits for the result; throws here what failed there. */
        @SuppressWarnings("NullAway") // The result is null only where T may be.
        public T get() throws IOException {
            try {
                ended.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException("interrupted", e);
            }
            rethrow(failure);
            return result;
        }

        /** Interrupts it and waits for its end, though not for ever. */
        public void stop() {
            synchronized (this) {
                if (thread != null) {
                    thread.interrupt();
                }
            }
            try {
                if (!ended.await(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                    return;
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }

    /** Throws what failed on another thread, if anything did. */
    static void rethrow(@Nullable Throwable failure) throws IOException {
        if (failure instanceof IOException failed) {
            throw failed;
        }
        if (failure instanceof UncheckedIOException failed) {
            throw failed.getCause();
        }
        if (failure instanceof RuntimeException failed) {
            throw failed;
        }
        if (failure instanceof Error failed) {
            throw failed;
        }
        if (failure != null) {
            throw new IOException("interrupted", failure);
        }
    }
}
