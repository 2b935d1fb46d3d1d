package io.mivrel.cli;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.examples.DemoData;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** The command as a process of its own: killed in the middle, in another place of the world. */
public class ProcessTest {
    private static final int VOUCHERS = 60_000;

    static Process start(Path folder, Map<String, String> environment, String... args) throws IOException {
        return start(folder, System.getProperty("java.class.path"), environment, args);
    }

    static Process start(Path folder, String classPath, Map<String, String> environment, String... args)
            throws IOException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx256m",
                "-cp",
                classPath,
                Main.class.getName()));
        command.addAll(List.of(args));
        ProcessBuilder builder = new ProcessBuilder(command).directory(folder.toFile());
        builder.environment().putAll(environment);
        builder.redirectOutput(folder.resolve("stdout.txt").toFile());
        builder.redirectError(folder.resolve("stderr.txt").toFile());
        return builder.start();
    }

    static int run(Path folder, Map<String, String> environment, String... args) throws Exception {
        Process process = start(folder, environment, args);
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).as("ends in time").isTrue();
        return process.exitValue();
    }

    // A machine in a bare locale, or one that is not installed, cannot name a folder with an umlaut.
    private static Path newFolder() throws IOException {
        try {
            return Files.createTempDirectory("mivrel größe");
        } catch (InvalidPathException plainNamesOnly) {
            return Files.createTempDirectory("mivrel");
        }
    }

    static Path demo() throws IOException {
        Path folder = newFolder().resolve("larkmoor");
        DemoData.unpack(folder);
        return folder;
    }

    static Path largeLedger(int vouchers) throws IOException {
        Path folder = demo();
        StringBuilder file = new StringBuilder("voucher,posted,account,narrative,debit,credit,dept\n");
        for (int v = 0; v < vouchers; v++) {
            String amount = (v % 900 + 1) + ".25";
            file.append(v).append(",05/02/2027,5010,tin,").append(amount).append(",,CAST\n");
            file.append(v).append(",05/02/2027,2100,tin,,").append(amount).append(",\n");
        }
        Files.writeString(folder.resolve("inbox/ledger-2027-q1.csv"), file);
        return folder;
    }

    static List<Path> delivered(Path folder) throws IOException {
        if (!Files.isDirectory(folder.resolve("out"))) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder.resolve("out"))) {
            return files.filter(f -> !f.getFileName().toString().startsWith("."))
                    .toList();
        }
    }

    static long rows(Path file) throws IOException {
        try (Stream<String> lines = Files.lines(file, StandardCharsets.ISO_8859_1)) {
            return lines.count() - 1;
        }
    }

    @Test
    public void aKillAtAnyMomentLeavesWholeFilesOrNone() throws Exception {
        Path folder = largeLedger(VOUCHERS);
        // One delivery, not divided, so that a file is whole exactly when it has all rows.
        Path sheet = folder.resolve("ledger.yaml");
        Files.writeString(
                sheet, Files.readString(sheet).replace("  - {as: deliveries/journals-signed.yaml, to: out}\n", ""));
        Random random = new Random(4);
        for (int round = 0; round < 6; round++) {
            Process process = start(folder, Map.of(), "run", "ledger.yaml");
            if (!process.waitFor(300 + random.nextInt(1500), TimeUnit.MILLISECONDS)) {
                process.destroyForcibly().waitFor();
            }
            for (Path file : delivered(folder)) {
                assertThat(rows(file)).isEqualTo(2L * VOUCHERS);
            }
        }
        int status = run(folder, Map.of(), "run", "ledger.yaml");
        assertThat(status).isZero();
        assertThat(delivered(folder))
                .isNotEmpty()
                .allSatisfy(f -> assertThat(rows(f)).isEqualTo(2L * VOUCHERS));
    }

    @Test
    public void anotherLocaleZoneAndEncodingChangeNothing() throws Exception {
        Path here = demo();
        Path there = demo();
        assertThat(run(here, Map.of("LC_ALL", "C.UTF-8"), "run", "bank.yaml")).isEqualTo(1);
        Map<String, String> far = Map.of(
                "LC_ALL",
                "C.UTF-8",
                "TZ",
                "Pacific/Auckland",
                "JAVA_TOOL_OPTIONS",
                "-Duser.language=ar -Duser.country=EG");
        assertThat(run(there, far, "run", "bank.yaml")).isEqualTo(1);
        List<String> names = List.of("bank-march-bank-", "journals-signed-march-bank-");
        for (String name : names) {
            Path mine = delivered(here).stream()
                    .filter(f -> f.getFileName().toString().startsWith(name))
                    .findFirst()
                    .orElseThrow();
            // The name has the day of that place, which may be tomorrow here.
            Path theirs = delivered(there).stream()
                    .filter(f -> f.getFileName().toString().startsWith(name))
                    .findFirst()
                    .orElseThrow();
            assertThat(theirs).hasSameBinaryContentAs(mine);
        }
        assertThat(Files.readString(here.resolve("stdout.txt")))
                .contains("accounted   158 rows = 144 clear + 7 held + 7 left out");
    }

    @Test
    public void theDatabaseEngineIsKeptWhereTold() throws Exception {
        Path folder = demo();
        // Without a temporary folder it could not be unpacked each time anew.
        Map<String, String> kept =
                Map.of("JAVA_TOOL_OPTIONS", "-Dmivrel.engine=new/engine -Djava.io.tmpdir=no-such-folder");
        assertThat(run(folder, kept, "run", "bank.yaml")).isEqualTo(1);
        assertThat(delivered(folder)).isNotEmpty();
        List<Path> engine;
        try (Stream<Path> files = Files.list(folder.resolve("new/engine"))) {
            engine = files.toList();
        }
        assertThat(engine).hasSize(1);
        FileTime first = Files.getLastModifiedTime(engine.get(0));
        assertThat(run(folder, kept, "run", "bank.yaml")).isEqualTo(1);
        assertThat(Files.getLastModifiedTime(engine.get(0))).isEqualTo(first);

        Files.writeString(engine.get(0), "not an engine");
        Map<String, String> damaged = Map.of("JAVA_TOOL_OPTIONS", "-Dmivrel.engine=new/engine");
        assertThat(run(folder, damaged, "run", "invoices.yaml")).isEqualTo(1);
        Map<String, String> aFile = Map.of("JAVA_TOOL_OPTIONS", "-Dmivrel.engine=bank.yaml");
        assertThat(run(folder, aFile, "check", "invoices.yaml")).isEqualTo(1);
    }

    @Test
    public void nothingButResultsOnStandardOutput() throws Exception {
        Path folder = demo();
        assertThat(run(folder, Map.of(), "check", "invoices.yaml", "--json")).isEqualTo(1);
        assertThat(Files.readString(folder.resolve("stdout.txt")))
                .startsWith("{")
                .endsWith("}\n");
        assertThat(folder.resolve("stderr.txt")).isEmptyFile();
        assertThat(run(folder, Map.of(), "check", "no-such.yaml")).isEqualTo(2);
        assertThat(folder.resolve("stdout.txt")).isEmptyFile();
        assertThat(Files.readString(folder.resolve("stderr.txt"))).contains("no-such.yaml: there is no such file");
    }

    @Test
    public void rowsPastedOnStandardInputAreSurveyed() throws Exception {
        Path folder = demo();
        Process process = start(folder, Map.of(), "survey", "-");
        try (var in = process.getOutputStream()) {
            in.write("Date\tText\tAmount\n13/03/2027\ttin\t-5.00\n14/03/2027\tbell\t7.00\n"
                    .getBytes(StandardCharsets.UTF_8));
        }
        assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
        assertThat(process.exitValue()).isEqualTo(1);
        assertThat(Files.readString(folder.resolve("stdout.txt")))
                .contains("standard input", "separated text, tabs", "dd/MM/uuuu, decided by row 2");
    }
}
