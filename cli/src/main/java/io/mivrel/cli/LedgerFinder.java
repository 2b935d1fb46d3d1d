package io.mivrel.cli;

import java.nio.file.Path;

/** Where ledgers are looked for. */
final class LedgerFinder {
    private LedgerFinder() {}

    /** The folder of a run sheet. */
    static Path folder(Path runSheet) {
        Path parent = runSheet.toAbsolutePath().getParent();
        return parent == null ? Path.of("") : parent;
    }
}
