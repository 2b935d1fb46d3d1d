package io.mivrel.practice;

import io.mivrel.posting.Ledger;
import io.mivrel.testkit.LedgerPromises;
import io.mivrel.testkit.PostgresServer;

/** The practice ledger on a real PostgreSQL server. */
public class ServerPromisesTest extends LedgerPromises {
    private static final PostgresServer SERVER = new PostgresServer();

    static PracticePlace newDatabase() throws Exception {
        return PracticePlace.server(SERVER.emptied(), PostgresServer.USER, PostgresServer.USER);
    }

    @Override
    protected Ledger open() throws Exception {
        return PracticeLedger.openOrCreate("practice", newDatabase(), books());
    }
}
