package io.mivrel.practice;

import io.mivrel.ledger.PostingRegister;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.EntrySource;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.Poster;
import io.mivrel.posting.RetryPolicy;
import io.mivrel.posting.SourcedEntry;
import io.mivrel.posting.Standing;
import io.mivrel.practice.web.Misbehaviour;
import io.mivrel.practice.web.WebLedger;
import io.mivrel.practice.web.WebPlace;
import io.mivrel.testkit.LedgerPromises;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;

/** Posts some entries; as a process of its own, it is there to be killed. */
final class PosterProcess {
    static final RetryPolicy SHORT = new RetryPolicy(Duration.ofMillis(2), Duration.ofMillis(40), 12);
    static final String COMPANY = "Larkmoor Bell Foundry";
    static final String TOKEN = "a token for tests";

    private PosterProcess() {}

    /** Entries with keys from 1 on; each nineteenth is on a closed account, and so refused. */
    record Entries(int count) implements EntrySource {
        static boolean isRefused(int i) {
            return i % 19 == 0;
        }

        static Entry entry(int i) {
            String account = isRefused(i) ? "6215" : "5010";
            return Entry.of(
                    "K" + i,
                    "journals",
                    "TR-" + i,
                    LocalDate.of(2027, 3, 1 + i % 28),
                    Currency.getInstance("GBP"),
                    "",
                    List.of(
                            EntryLine.of(account, 100 + i, "tin " + i),
                            EntryLine.of("2900", i, ""),
                            EntryLine.of("1200", -100 - 2L * i, "")));
        }

        @Override
        public long size() {
            return count;
        }

        @Override
        public void entries(Target target) throws IOException {
            for (int i = 1; i <= count; i++) {
                target.take(new SourcedEntry(entry(i), "tin.csv", new long[] {i + 1}));
            }
        }
    }

    /** One attempt. */
    static void post(Ledger ledger, RegisterPlace register, int count, String attempt) throws IOException {
        try (PostingRegister log = PostingRegister.open(register, COMPANY, "practice")) {
            post(ledger, log, count, attempt);
        }
    }

    static void post(Ledger ledger, io.mivrel.posting.PostingLog log, int count, String attempt) throws IOException {
        Poster poster = new Poster(ledger, log, SHORT);
        poster.settleEarlier();
        Batch batch = new Batch("batch-" + attempt, "Batch " + attempt, LocalDate.of(2027, 3, 31), Standing.DRAFT);
        Poster.Order order = new Poster.Order(batch, "tin", PostMode.ADD, 0, Instant.now(), new ArrayList<>());
        poster.post(order, new Entries(count), (sent, all) -> {});
    }

    /** Arguments: a file of SQLite, an address of PostgreSQL or of a server; the register, the count, the attempt. */
    public static void main(String[] args) throws Exception {
        String where = args[0];
        RegisterPlace register = args[1].startsWith("jdbc:")
                ? RegisterPlace.server(args[1], "postgres", "postgres")
                : RegisterPlace.file(Path.of(args[1]));
        try (Ledger ledger = open(where)) {
            Ledger slow = new FaultyLedger(ledger, Misbehaviour.none(), () -> {});
            System.out.println("begun");
            System.out.flush();
            post(slow, register, Integer.parseInt(args[2]), args[3]);
        }
    }

    static Ledger open(String where) throws IOException {
        if (where.startsWith("http")) {
            return new WebLedger("practice", new WebPlace(where, TOKEN, null));
        }
        PracticePlace place = where.startsWith("jdbc:")
                ? PracticePlace.server(where, "postgres", "postgres")
                : PracticePlace.file(Path.of(where));
        return PracticeLedger.openOrCreate("practice", place, Promised.BOOKS);
    }

    /** The books of the test kit. */
    abstract static class Promised extends LedgerPromises {
        static final io.mivrel.books.Books BOOKS = books();
    }
}
