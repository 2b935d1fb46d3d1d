package io.mivrel.posting;

import java.time.Duration;

/**
 * How long a ledger that fails is asked again.
 *
 * @param first the pause after the first failure; each further one is twice as long
 * @param longest the longest pause, unless the ledger wants a longer one
 * @param tries how often a call is made at most before the ledger is given up
 * @param waiting hears of each pause
 */
public record RetryPolicy(Duration first, Duration longest, int tries, Waiting waiting) {
    /** About two minutes. */
    public static final RetryPolicy USUAL = new RetryPolicy(Duration.ofMillis(250), Duration.ofSeconds(15), 12);

    /** A ledger that wants to be left alone for longer is given up: a person knows better when to come again. */
    private static final Duration LONGEST_WANTED = Duration.ofMinutes(10);

    /** With nobody to hear of pauses. */
    public RetryPolicy(Duration first, Duration longest, int tries) {
        this(first, longest, tries, (failed, pause) -> {});
    }

    /** The same, and who hears of each pause. */
    public RetryPolicy telling(Waiting other) {
        return new RetryPolicy(first, longest, tries, other);
    }

    /** Hears that a call is made again after a pause. */
    public interface Waiting {
        void waits(LedgerException failed, Duration pause);
    }

    /** A call to a ledger. */
    public interface Call<T> {
        T call() throws LedgerException;
    }

    /** Makes a call that may be repeated, until it is answered or refused. */
    public <T> T repeat(Call<T> call) throws LedgerException {
        for (int tried = 1; ; tried++) {
            try {
                return call.call();
            } catch (LedgerException e) {
                giveUpOrPause(e, tried);
            }
        }
    }

    /** Waits before the next try; throws when there is to be none. */
    void giveUpOrPause(LedgerException failed, int tried) throws LedgerException {
        if (failed.kind() == LedgerException.Kind.REFUSED || tried >= tries) {
            throw failed;
        }
        if (failed.pause().compareTo(LONGEST_WANTED) > 0) {
            throw new LedgerException(
                    failed.kind(),
                    failed.getMessage() + ", for " + failed.pause().toMinutes()
                            + " minutes; give the same command again then",
                    failed);
        }
        long doubled = first.toMillis() << Math.min(tried - 1, 20);
        long pause =
                Math.max(Math.min(doubled, longest.toMillis()), failed.pause().toMillis());
        waiting.waits(failed, Duration.ofMillis(pause));
        try {
            Thread.sleep(pause);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LedgerException(failed.kind(), "interrupted while waiting for the ledger", e);
        }
    }
}
