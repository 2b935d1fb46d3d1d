package io.mivrel.examples;

import io.mivrel.posting.Ledger;
import io.mivrel.testkit.LedgerPromises;

/** The ledger of one's own keeps the promises, as the test kit tells. */
public class OwnLedgerTest extends LedgerPromises {
    @Override
    protected Ledger open() {
        return new OwnLedgerExample(books());
    }
}
