package io.mivrel.practice;

import io.mivrel.posting.Ledger;
import io.mivrel.practice.web.PracticeServer;
import io.mivrel.practice.web.WebLedger;
import io.mivrel.practice.web.WebPlace;
import io.mivrel.testkit.LedgerPromises;
import java.nio.file.Files;
import org.testng.annotations.AfterMethod;

/** The practice ledger over HTTP. */
public class WebPromisesTest extends LedgerPromises {
    private PracticeLedger books;
    private PracticeServer server;

    @Override
    protected Ledger open() throws Exception {
        PracticePlace place =
                PracticePlace.file(Files.createTempDirectory("mivrel practice").resolve("books.db"));
        books = PracticeLedger.openOrCreate("practice", place, books());
        server = PracticeServer.start(books, PracticeServer.Settings.local(0, "a token"));
        return new WebLedger("web", new WebPlace(server.address(), "a token", null));
    }

    @AfterMethod(alwaysRun = true)
    public void closeServer() {
        server.close();
        books.close();
    }
}
