package io.mivrel.practice;

import io.mivrel.ledger.RegisterPlace;
import io.mivrel.ledger.ServerForTests;
import io.mivrel.posting.Ledger;
import io.mivrel.testkit.LedgerPromises;

/** The practice ledger on a real PostgreSQL server. */
public class ServerPromisesTest extends LedgerPromises {
    private static final ServerForTests SERVER = new ServerForTests();

    static PracticePlace newDatabase() throws Exception {
        RegisterPlace place = SERVER.emptied();
        return PracticePlace.server(place.url(), place.user(), place.password());
    }

    @Override
    protected Ledger open() throws Exception {
        return PracticeLedger.openOrCreate("practice", newDatabase(), books());
    }
}
