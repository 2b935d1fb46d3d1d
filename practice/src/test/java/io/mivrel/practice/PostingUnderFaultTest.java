package io.mivrel.practice;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.ledger.PostingRegister;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.Proof;
import io.mivrel.posting.Prover;
import io.mivrel.practice.PosterProcess.Entries;
import io.mivrel.practice.web.Misbehaviour;
import io.mivrel.practice.web.Misbehaviour.Fault;
import io.mivrel.practice.web.PracticeServer;
import io.mivrel.testkit.PostgresServer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Against every misbehaviour of a ledger, alone and mixed, with our own side killed in half of the rounds: nothing is lost,
 * nothing doubled, and every document is in a known state. {@code -Dmivrel.rounds=200} for the long form, {@code
 * -Dmivrel.seed=N} to repeat one, {@code -Dmivrel.reach=HTTP} for one way alone.
 */
public class PostingUnderFaultTest {
    private static final PostgresServer SERVER = new PostgresServer();
    private static final int ROUNDS = Integer.getInteger("mivrel.rounds", 5);
    private static final long SEED = Long.getLong("mivrel.seed", System.nanoTime());
    private static final int COUNT = 110;
    private static final int MOST_ATTEMPTS = 200;

    /** By what the ledger is reached. */
    private enum Reach {
        FILE,
        DATABASE_SERVER,
        HTTP
    }

    /** Our side is gone. */
    private static final class Killed extends Error {
        private static final long serialVersionUID = 1L;
    }

    @DataProvider
    public static Object[][] reaches() {
        String only = System.getProperty("mivrel.reach");
        return java.util.Arrays.stream(Reach.values())
                .filter(reach -> only == null || reach.name().equals(only))
                .map(reach -> new Object[] {reach})
                .toArray(Object[][]::new);
    }

    @Test(dataProvider = "reaches")
    public void nothingIsLostOrDoubled(Reach reach) throws Exception {
        System.out.println(reach + ": " + ROUNDS + " rounds, -Dmivrel.seed=" + SEED);
        Map<String, Integer> met = new HashMap<>();
        for (int round = 0; round < ROUNDS; round++) {
            Random random = new Random(SEED + 31L * round);
            Fault[] all = Fault.values();
            // One alone in turn, then mixtures.
            Set<Fault> faults = round % 2 == 0
                    ? EnumSet.of(all[round / 2 % all.length])
                    : EnumSet.copyOf(List.of(all).subList(random.nextInt(all.length - 1), all.length));
            boolean kills = round % 4 >= 2;
            new Round(reach, faults, kills, random, met).play();
        }
        System.out.println(reach + ": " + met);
    }

    // The register and the books share a database of the server.
    private static RegisterPlace register(Reach reach) throws Exception {
        return reach == Reach.DATABASE_SERVER
                ? RegisterPlace.server(SERVER.emptied(), PostgresServer.USER, PostgresServer.USER)
                : RegisterPlace.file(
                        Files.createTempDirectory("mivrel register").resolve("register.db"));
    }

    private static String ledger(Reach reach) throws Exception {
        return reach == Reach.DATABASE_SERVER
                ? SERVER.emptied()
                : Files.createTempDirectory("mivrel books").resolve("books.db").toString();
    }

    private static final class Round {
        private final Reach reach;
        private final Set<Fault> faults;
        private final boolean kills;
        private final Random random;
        private final Map<String, Integer> met;
        private final String books;
        private final RegisterPlace register;

        Round(Reach reach, Set<Fault> faults, boolean kills, Random random, Map<String, Integer> met) throws Exception {
            this.reach = reach;
            this.faults = faults;
            this.kills = kills;
            this.random = random;
            this.met = met;
            this.books = ledger(reach);
            this.register = register(reach);
        }

        void play() throws Exception {
            Misbehaviour misbehaviour = new Misbehaviour(faults, 30, random.nextLong());
            if (reach == Reach.HTTP) {
                PracticeServer.Settings settings =
                        PracticeServer.Settings.local(0, PosterProcess.TOKEN).misbehaving(misbehaviour);
                try (PracticeLedger behind = (PracticeLedger) PosterProcess.open(books);
                        PracticeServer server = PracticeServer.start(behind, settings)) {
                    untilDone(server.address(), Misbehaviour.none());
                    count("faults", server.faults());
                }
            } else {
                untilDone(books, misbehaviour);
            }
            verify();
        }

        private void count(String what, int more) {
            met.merge(what, more, Integer::sum);
        }

        private void untilDone(String where, Misbehaviour misbehaviour) throws Exception {
            for (int attempt = 0; attempt < MOST_ATTEMPTS; attempt++) {
                // After many kills it may end.
                int left = kills && attempt < 6 ? 1 + random.nextInt(18) : Integer.MAX_VALUE;
                int[] calls = {left};
                try (Ledger ledger = new FaultyLedger(PosterProcess.open(where), misbehaviour, () -> {
                    if (calls[0]-- == 0) {
                        throw new Killed();
                    }
                })) {
                    PosterProcess.post(ledger, register, COUNT, Integer.toString(attempt));
                    count("attempts", attempt + 1);
                    return;
                } catch (Killed gone) {
                    count("kills", 1);
                } catch (LedgerException givenUp) {
                    count("given up", 1);
                }
            }
            throw new AssertionError("no end after " + MOST_ATTEMPTS + " attempts with " + faults);
        }

        // Looked at in the books themselves, not through what misbehaves.
        private void verify() throws Exception {
            try (Ledger ledger = PosterProcess.open(books)) {
                verifyPosted(ledger, register, faults + (kills ? " with kills" : ""));
            }
            count("rounds", 1);
        }
    }

    static void verifyPosted(Ledger ledger, RegisterPlace register, String how) throws Exception {
        Map<String, List<PostedEntry>> there = new HashMap<>();
        ledger.entries(
                Ledger.Query.ALL,
                posted -> there.computeIfAbsent(posted.entry().key(), k -> new ArrayList<>())
                        .add(posted));
        try (PostingRegister log = PostingRegister.openToRead(register, PosterProcess.COMPANY, "practice")) {
            assertThat(log.unsettled()).as(how).isEmpty();
            for (int i = 1; i <= COUNT; i++) {
                PostingLog.State state =
                        log.latest(List.of("K" + i)).get("K" + i).state();
                if (Entries.isRefused(i)) {
                    assertThat(there).as(how).doesNotContainKey("K" + i);
                    assertThat(state).as(how).isEqualTo(PostingLog.State.REFUSED);
                } else {
                    assertThat(there.get("K" + i)).as(how + ": K" + i).hasSize(1);
                    assertThat(there.get("K" + i).get(0).entry().digest())
                            .isEqualTo(Entries.entry(i).digest());
                    assertThat(state).as(how + ": K" + i).isEqualTo(PostingLog.State.POSTED);
                }
            }
            assertThat(there).hasSize(COUNT - COUNT / 19);
            Map<PostingLog.State, Integer> posted = new EnumMap<>(PostingLog.State.class);
            for (PostingLog.Noted batch : log.batches()) {
                Proof proof = new Prover(ledger, log, PosterProcess.SHORT).prove(batch);
                assertThat(proof.differences())
                        .as(how + ": " + batch.batch().key())
                        .isEmpty();
                posted.merge(PostingLog.State.POSTED, (int) proof.references().there(), Integer::sum);
            }
        }
    }

    @Test(dataProvider = "reaches")
    public void aProcessMayBeKilledAtAnyMoment(Reach reach) throws Exception {
        Random random = new Random(SEED);
        int rounds = Math.max(1, ROUNDS / 8);
        for (int round = 0; round < rounds; round++) {
            String books = ledger(reach);
            RegisterPlace register = register(reach);
            PosterProcess.open(books).close();
            if (reach == Reach.HTTP) {
                Misbehaviour slow =
                        new Misbehaviour(EnumSet.of(Fault.SLOW, Fault.LOSE, Fault.RESTART), 30, random.nextLong());
                try (PracticeLedger behind = (PracticeLedger) PosterProcess.open(books);
                        PracticeServer server = PracticeServer.start(
                                behind,
                                PracticeServer.Settings.local(0, PosterProcess.TOKEN)
                                        .misbehaving(slow))) {
                    killAndEnd(server.address(), register, random);
                }
            } else {
                killAndEnd(books, register, random);
            }
            try (Ledger ledger = PosterProcess.open(books)) {
                verifyPosted(ledger, register, "killed process");
            }
        }
    }

    // Machines that share a register: one posts, the others see it.
    @Test(dataProvider = "reaches")
    public void severalProcessesPostOnce(Reach reach) throws Exception {
        String books = ledger(reach);
        RegisterPlace register = register(reach);
        PosterProcess.open(books).close();
        try (PracticeLedger behind = (PracticeLedger) PosterProcess.open(books);
                PracticeServer server =
                        PracticeServer.start(behind, PracticeServer.Settings.local(0, PosterProcess.TOKEN))) {
            String where = reach == Reach.HTTP ? server.address() : books;
            List<Process> processes = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                processes.add(start(where, register, "m" + i));
            }
            for (Process process : processes) {
                assertThat(process.waitFor()).isZero();
            }
        }
        try (Ledger ledger = PosterProcess.open(books)) {
            verifyPosted(ledger, register, "three processes");
        }
        try (PostingRegister log = PostingRegister.openToRead(register, PosterProcess.COMPANY, "practice")) {
            int added = 0;
            for (PostingLog.Noted batch : log.batches()) {
                List<PostingLog.Sent> posted = new ArrayList<>();
                log.documents(batch.batch().key(), sent -> {
                    if (sent.state() == PostingLog.State.POSTED) {
                        posted.add(sent);
                    }
                });
                added += posted.size();
            }
            assertThat(added).isEqualTo(COUNT - COUNT / 19);
        }
    }

    private static void killAndEnd(String where, RegisterPlace register, Random random) throws Exception {
        for (int attempt = 0; attempt < 60; attempt++) {
            Process process = start(where, register, "p" + attempt);
            process.getInputStream().read();
            if (attempt < 3 && !process.waitFor(random.nextInt(400), TimeUnit.MILLISECONDS)) {
                process.destroyForcibly().waitFor();
            } else if (process.waitFor() == 0) {
                return;
            }
        }
        throw new AssertionError("no process came to an end");
    }

    private static Process start(String where, RegisterPlace register, String attempt) throws Exception {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "--enable-native-access=ALL-UNNAMED",
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        System.getProperty("java.class.path"),
                        PosterProcess.class.getName(),
                        where,
                        register.file() == null
                                ? register.url()
                                : register.file().toString(),
                        Integer.toString(COUNT),
                        attempt)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
    }
}
