package io.mivrel.posting;

import java.io.IOException;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** A call to a ledger that did not come to an answer. */
public final class LedgerException extends IOException {
    private static final long serialVersionUID = 1L;

    /** What is known. */
    public enum Kind {
        /** Nothing was done, and the same call would fail again. */
        REFUSED,
        /** Nothing was done; it may work later, after {@link LedgerException#pause}. */
        BUSY,
        /** The answer was lost: it may have been done, in part or in full, or may be done yet. The ledger must be asked. */
        UNSURE
    }

    private final Kind kind;
    private final Duration pause;

    public LedgerException(Kind kind, String message, @Nullable Throwable cause) {
        this(kind, message, Duration.ZERO, cause);
    }

    public LedgerException(Kind kind, String message, Duration pause, @Nullable Throwable cause) {
        super(message, cause);
        this.kind = kind;
        this.pause = pause;
    }

    public Kind kind() {
        return kind;
    }

    /** How long the ledger wants to be left alone; nil when it does not say. */
    public Duration pause() {
        return pause;
    }
}
