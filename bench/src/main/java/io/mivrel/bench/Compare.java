package io.mivrel.bench;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * Times whole processes, side by side in one run: {@code mivrel run} on the generated files, and merely reading the same
 * files with the CSV library. Both get the same heap. Arguments: lines (default 5,000,000), rounds (default 3), and the
 * names of the inputs (default {@code j b}; others are {@code f x o c m} of {@link FormatGenerator}).
 */
public final class Compare {
    /** What one process took; with the share of the processors' time that a shared machine gave to others meanwhile. */
    private record Sample(double seconds, long peakBytes, double stolen) {}

    private final Path home;
    private final Path data;
    private final long lines;
    private final int rounds;

    private Compare(Path home, Path data, long lines, int rounds) {
        this.home = home;
        this.data = data;
        this.lines = lines;
        this.rounds = rounds;
    }

    public static void main(String[] args) throws Exception {
        long lines = args.length > 0 ? Long.parseLong(args[0]) : 5_000_000;
        int rounds = args.length > 1 ? Integer.parseInt(args[1]) : 3;
        List<String> inputs = args.length > 2 ? Arrays.asList(args).subList(2, args.length) : List.of("j", "b");
        Path home = Path.of(System.getProperty("mivrel.home", ".")).toAbsolutePath();
        Path data = home.resolve("bench/target/data-" + lines);
        System.out.printf(Locale.ROOT, "generating %,d lines in %s%n", lines, home.relativize(data));
        Generator.fill(data, lines);
        System.out.printf(
                Locale.ROOT,
                "Java %s, %d processors, heap 256 MB, %d rounds, median of each%n%n",
                Runtime.version(),
                Runtime.getRuntime().availableProcessors(),
                rounds);
        System.out.printf(
                "%-6s %-26s %9s %12s %8s %9s %7s %7s%n",
                "input", "what", "seconds", "lines/s", "MB/s", "peak MB", "ratio", "stolen");
        for (String input : inputs) {
            new Compare(home, data, lines, rounds).input(input);
        }
    }

    private void input(String input) throws Exception {
        boolean text = input.equals("j") || input.equals("b");
        Path file = text ? data.resolve(input + ".csv") : FormatGenerator.fill(data, input, lines);
        // A file that the CSV library cannot read is compared with the text of as many lines.
        Path floor = text ? file : data.resolve(input.equals("f") || input.equals("x") ? "j.csv" : "b.csv");
        List<Sample> floors = new ArrayList<>();
        List<Sample> runs = new ArrayList<>();
        List<Double> ratios = new ArrayList<>();
        // The machine's speed drifts, so each run stands between two readings and is compared with both.
        Sample before = time(0, floorCommand(floor));
        for (int round = 0; round < rounds; round++) {
            clean();
            Sample run = time(
                    1,
                    List.of(
                            home.resolve("mivrel").toString(),
                            "run",
                            data.resolve(input + ".yaml").toString()));
            Sample after = time(0, floorCommand(floor));
            floors.add(before);
            floors.add(after);
            runs.add(run);
            ratios.add(2 * run.seconds / (before.seconds + after.seconds));
            before = after;
        }
        clean();
        print(input, "CSV library, read only", floors, lines, Files.size(floor) / 1e6, 1.0);
        ratios.sort(null);
        long rows = input.equals("x")
                ? FormatGenerator.WORKBOOK_ROWS
                : text || input.equals("f") ? lines : FormatGenerator.ENTRIES;
        // With another number of rows a ratio says nothing.
        double ratio = rows == lines ? ratios.get(ratios.size() / 2) : Double.NaN;
        print(input, "mivrel run", runs, rows, Files.size(file) / 1e6, ratio);
    }

    private static List<String> floorCommand(Path file) {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        return List.of(
                java,
                "-Xmx256m",
                "-XX:+UseParallelGC",
                // As the launcher: it makes the library a little faster too.
                "-XX:+IgnoreUnrecognizedVMOptions",
                "-XX:UseAVX=2",
                "-cp",
                System.getProperty("java.class.path"),
                FloorRead.class.getName(),
                file.toString());
    }

    // Each run begins with nothing delivered before.
    private void clean() throws IOException {
        for (String name : List.of("out", "evidence", ".mivrel", "corrections")) {
            Path folder = data.resolve(name);
            if (Files.exists(folder)) {
                try (Stream<Path> all = Files.walk(folder)) {
                    all.sorted(Comparator.reverseOrder()).map(Path::toFile).forEach(File::delete);
                }
            }
        }
    }

    // A run that holds something ends with status 1, and the ledger export has vouchers to hold.
    private Sample time(int worstStatus, List<String> command) throws Exception {
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.redirectOutput(
                ProcessBuilder.Redirect.to(data.resolve("last-output.txt").toFile()));
        long[] ticks = ticks();
        long begin = System.nanoTime();
        Process process = builder.start();
        long peak = 0;
        while (!process.waitFor(20, TimeUnit.MILLISECONDS)) {
            peak = Math.max(peak, peakOf(process.pid()));
        }
        double seconds = (System.nanoTime() - begin) / 1e9;
        if (process.exitValue() > worstStatus) {
            throw new IllegalStateException(
                    "exit status " + process.exitValue() + ":\n" + Files.readString(data.resolve("last-output.txt")));
        }
        long[] after = ticks();
        return new Sample(seconds, peak, (after[1] - ticks[1]) / (double) Math.max(1, after[0] - ticks[0]));
    }

    // All ticks of the processors so far, and those that were stolen; nil where there is nobody to ask.
    private static long[] ticks() {
        try (Stream<String> lines = Files.lines(Path.of("/proc/stat"))) {
            long[] counts = Arrays.stream(lines.findFirst().orElse("").split(" +"))
                    .skip(1)
                    .limit(8)
                    .mapToLong(Long::parseLong)
                    .toArray();
            return new long[] {Arrays.stream(counts).sum(), counts[7]};
        } catch (IOException | UncheckedIOException notLinux) {
            return new long[2];
        }
    }

    // The kernel's own high-water mark of resident memory; 0 where there is none to ask.
    private static long peakOf(long pid) {
        try (Stream<String> status = Files.lines(Path.of("/proc", Long.toString(pid), "status"))) {
            return status.filter(line -> line.startsWith("VmHWM:"))
                    .mapToLong(line -> Long.parseLong(line.replaceAll("[^0-9]", "")) * 1024)
                    .findFirst()
                    .orElse(0);
        } catch (IOException | UncheckedIOException endedOrNotLinux) {
            return 0;
        }
    }

    private static void print(
            String input, String what, List<Sample> samples, long rows, double megabytes, double ratio) {
        double seconds = samples.stream().mapToDouble(Sample::seconds).sorted().toArray()[samples.size() / 2];
        double stolen = samples.stream().mapToDouble(Sample::stolen).sorted().toArray()[samples.size() / 2];
        long peak = samples.stream().mapToLong(Sample::peakBytes).max().orElse(0);
        System.out.printf(
                Locale.ROOT,
                "%-6s %-26s %9.2f %,12.0f %8.0f %9.0f %7s %6.0f%%%n",
                input,
                what,
                seconds,
                rows / seconds,
                megabytes / seconds,
                peak / 1e6,
                Double.isNaN(ratio) ? "" : String.format(Locale.ROOT, "%.2f", ratio),
                100 * stolen);
    }
}
