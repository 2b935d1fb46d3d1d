package io.mivrel;

import java.io.IOException;
import java.util.List;

/** Nothing was posted to a ledger under the name that was asked for. */
public final class NoBatchException extends IOException {
    private static final long serialVersionUID = 1L;

    private final transient List<String> batches;

    NoBatchException(String message, List<String> batches) {
        super(message + (batches.isEmpty() ? "" : "; there are, by --batch NAME:"));
        this.batches = batches;
    }

    /** The batches that there are, a line for each. */
    public List<String> batches() {
        return batches;
    }
}
