package io.mivrel.run;

import java.io.IOException;

/** What the threads of a run have in common: how one is stopped, and how its failure comes out on another. */
final class Threads {
    private static final long PATIENCE_MILLIS = 10_000;

    private Threads() {}

    /** Throws what failed on another thread, if anything did. */
    static void rethrow(Throwable failure) throws IOException {
        if (failure instanceof IOException failed) {
            throw failed;
        }
        if (failure instanceof RuntimeException failed) {
            throw failed;
        }
        if (failure instanceof Error failed) {
            throw failed;
        }
    }

    /** Interrupts a thread and waits for its end, though not for ever. */
    static void stop(Thread thread) {
        thread.interrupt();
        try {
            thread.join(PATIENCE_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
