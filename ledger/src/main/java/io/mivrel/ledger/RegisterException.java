package io.mivrel.ledger;

import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** The register cannot be used: it is busy, damaged, or written by a newer Mivrel. */
public final class RegisterException extends IOException {
    private static final long serialVersionUID = 1L;

    RegisterException(String message, @Nullable Throwable cause) {
        super(message, cause);
    }
}
