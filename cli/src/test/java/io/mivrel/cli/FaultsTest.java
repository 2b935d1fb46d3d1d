package io.mivrel.cli;

import static io.mivrel.cli.ProcessTest.delivered;
import static io.mivrel.cli.ProcessTest.largeLedger;
import static io.mivrel.cli.ProcessTest.run;
import static io.mivrel.cli.ProcessTest.start;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.testng.SkipException;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/**
 * What accidents leave: after a kill, a full disk, other processes or a reader of the register, and one more run, each
 * voucher stands exactly once in each delivery, and the command has said in plain words what it could not do. A few rounds
 * of each; many with {@code -Dmivrel.kills=200 -Dmivrel.full=60}.
 */
public class FaultsTest {
    private static final int VOUCHERS = 12_000;
    private static final int KILLS = Integer.getInteger("mivrel.kills", 1);
    private static final int FULL = Integer.getInteger("mivrel.full", 3);

    private final Random random = new Random(Long.getLong("mivrel.seed", 11));
    private Path folder;
    private Path ledger;
    private String rows;
    private int round;

    private int vouchers = VOUCHERS;

    /** A ledger that goes out by two deliveries, one of them in many files, so that giving them their names takes a while. */
    @BeforeClass
    public void unpack() throws IOException {
        unpack(VOUCHERS);
    }

    private void unpack(int many) throws IOException {
        vouchers = many;
        folder = largeLedger(many);
        Path signed = folder.resolve("deliveries/journals-signed.yaml");
        Files.writeString(signed, Files.readString(signed).replaceAll("rows at most: \\d+", "rows at most: 400"));
        ledger = folder.resolve("inbox/ledger-2027-q1.csv");
        rows = Files.readString(ledger);
    }

    /** Other vouchers each time; answers what their numbers begin with. */
    private String newVouchers() throws IOException {
        String prefix = "K" + round++ + "-";
        Files.writeString(ledger, rows.replaceAll("(?m)^(\\d)", prefix + "$1"));
        return prefix;
    }

    /** Runs once more, undisturbed, and counts. */
    private void assertEachOnce(String prefix, String what) throws Exception {
        assertThat(run(folder, Map.of(), "run", "ledger.yaml")).as(what).isLessThanOrEqualTo(1);
        Map<String, Long> lines = new TreeMap<>();
        for (Path file : delivered(folder)) {
            long of = Files.readAllLines(file, StandardCharsets.ISO_8859_1).stream()
                    .filter(line -> line.contains(prefix))
                    .count();
            if (of > 0) {
                lines.merge(file.getFileName().toString().substring(0, 12), of, Long::sum);
                Files.delete(file);
            }
        }
        assertThat(lines.values()).as(what).hasSize(2).containsOnly(2L * vouchers);
    }

    private void assertNoStackTrace(String what) throws IOException {
        String said = Files.readString(folder.resolve("stdout.txt")) + Files.readString(folder.resolve("stderr.txt"));
        assertThat(said).as(what).doesNotContain("\tat ", "Exception", "Throwable");
    }

    @Test
    public void aKillWhileFilesGetTheirNamesDeliversNothingTwice() throws Exception {
        int cutShort = 0;
        for (int i = 0; i < KILLS; i++) {
            String prefix = newVouchers();
            int before = delivered(folder).size();
            Process process = start(folder, Map.of(), "run", "ledger.yaml");
            while (delivered(folder).size() == before && process.isAlive()) {
                Thread.onSpinWait();
            }
            // The first at once, while most names are still to be given; the others up to the end of the run.
            process.waitFor(i == 0 ? 0 : random.nextInt(150), TimeUnit.MILLISECONDS);
            cutShort += process.isAlive() ? 1 : 0;
            process.destroyForcibly().waitFor();
            assertEachOnce(prefix, "kill " + i + " while names are given");
        }
        assertThat(cutShort).as("runs that were cut short").isPositive();
    }

    @Test
    public void aKillAtAnyMomentDeliversNothingTwice() throws Exception {
        String whole = newVouchers();
        long begin = System.nanoTime();
        assertThat(run(folder, Map.of(), "run", "ledger.yaml")).isLessThanOrEqualTo(1);
        int takes = (int) TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - begin);
        assertEachOnce(whole, "no kill");
        for (int i = 0; i < KILLS; i++) {
            String prefix = newVouchers();
            Process process = start(folder, Map.of(), "run", "ledger.yaml");
            process.waitFor((long) takes * (i + 1) / (KILLS + 1), TimeUnit.MILLISECONDS);
            process.destroyForcibly().waitFor();
            assertEachOnce(prefix, "kill " + i + " spread over the run");
        }
    }

    /** A limit to the size of a file stands for the disk: whatever outgrows it cannot be written on. */
    @Test
    public void aDiskThatIsFullAtAnyStepLosesAndDoublesNothing() throws Exception {
        if (!Files.isExecutable(Path.of("/bin/sh"))) {
            throw new SkipException("no shell that limits the size of files");
        }
        for (int i = 0; i < FULL; i++) {
            String prefix = newVouchers();
            // From the first block to about the size of the largest file.
            long blocks = i == 0 ? 1 : (long) Math.pow(2, 14.0 * i / FULL + random.nextDouble());
            List<String> command = new ArrayList<>(List.of(
                    "/bin/sh",
                    "-c",
                    "ulimit -f " + blocks + "; exec \"$@\"",
                    "sh",
                    Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                    "-Xmx256m",
                    "-XX:-UsePerfData",
                    "-cp",
                    System.getProperty("java.class.path"),
                    Main.class.getName(),
                    "run",
                    "ledger.yaml"));
            Process process = new ProcessBuilder(command)
                    .directory(folder.toFile())
                    .redirectOutput(folder.resolve("stdout.txt").toFile())
                    .redirectError(folder.resolve("stderr.txt").toFile())
                    .start();
            assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
            String what = "files of " + blocks + " blocks at most";
            assertThat(process.exitValue()).as(what).isIn(0, 1, 3);
            assertNoStackTrace(what);
            assertEachOnce(prefix, what);
        }
    }

    @Test
    public void threeAtOnceDeliverOnce() throws Exception {
        String prefix = newVouchers();
        List<Process> all = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            Path elsewhere = Files.createDirectories(folder.resolve("elsewhere/" + i));
            all.add(start(elsewhere, Map.of(), "run", "../../ledger.yaml"));
        }
        for (Process process : all) {
            assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
            assertThat(process.exitValue()).isIn(0, 1, 3);
        }
        assertEachOnce(prefix, "three at once");
    }

    @Test
    public void aReaderOfTheRegisterDisturbsNothing() throws Exception {
        // More than the register's engine keeps in its cache before it would have the file to itself.
        unpack(5 * VOUCHERS);
        String first = newVouchers();
        assertEachOnce(first, "before the reader");
        String prefix = newVouchers();
        try (Connection reader = DriverManager.getConnection("jdbc:sqlite:" + register());
                Statement statement = reader.createStatement()) {
            reader.setAutoCommit(false);
            try (ResultSet tables = statement.executeQuery("select count(*) from sqlite_master")) {
                assertThat(tables.next()).isTrue();
                assertThat(run(folder, Map.of(), "run", "ledger.yaml")).isIn(0, 1, 3);
                assertNoStackTrace("a reader of the register");
            }
        }
        assertEachOnce(prefix, "a reader of the register");
        unpack(VOUCHERS);
    }

    private Path register() throws IOException {
        try (var files = Files.walk(folder)) {
            return files.filter(f -> f.getFileName().toString().endsWith(".db") && Files.isRegularFile(f))
                    .findFirst()
                    .orElseThrow();
        }
    }
}
