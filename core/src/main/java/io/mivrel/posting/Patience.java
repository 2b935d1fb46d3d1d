package io.mivrel.posting;

import java.time.Duration;

/**
 * How long a ledger that fails is asked again.
 *
 * @param first the pause after the first failure; each further one is twice as long
 * @param longest the longest pause, unless the ledger wants a longer one
 * @param tries how often a call is made at most before the ledger is given up
 */
public record Patience(Duration first, Duration longest, int tries) {
    /** About two minutes. */
    public static final Patience USUAL = new Patience(Duration.ofMillis(250), Duration.ofSeconds(15), 12);

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
        long doubled = first.toMillis() << Math.min(tried - 1, 20);
        long pause =
                Math.max(Math.min(doubled, longest.toMillis()), failed.pause().toMillis());
        try {
            Thread.sleep(pause);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LedgerException(failed.kind(), "interrupted while waiting for the ledger", e);
        }
    }
}
