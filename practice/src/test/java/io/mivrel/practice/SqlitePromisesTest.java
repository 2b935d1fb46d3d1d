package io.mivrel.practice;

import io.mivrel.posting.Ledger;
import io.mivrel.testkit.LedgerPromises;
import java.nio.file.Files;

/** The practice ledger in a file. */
public class SqlitePromisesTest extends LedgerPromises {
    @Override
    protected Ledger open() throws Exception {
        PracticePlace place =
                PracticePlace.file(Files.createTempDirectory("mivrel practice").resolve("books.db"));
        return PracticeLedger.openOrCreate("practice", place, books());
    }
}
