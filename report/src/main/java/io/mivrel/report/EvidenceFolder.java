package io.mivrel.report;

import de.siegmar.fastcsv.writer.CsvWriter;
import io.mivrel.books.Books;
import io.mivrel.corrections.Correction;
import io.mivrel.intake.Input;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.run.FindingLog;
import io.mivrel.run.RunReport;
import io.mivrel.run.UncodedGroups;
import io.mivrel.text.TemporaryName;
import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * What a run leaves for whoever asks later: {@code summary.txt} and {@code outcome.json}, {@code findings.csv},
 * {@code files.csv} with the digests of what went in and came out, a copy of the settings, and under {@code held} the
 * rows to correct. A folder is never used twice.
 */
public final class EvidenceFolder {
    private static final int MOST_TRIES = 10_000;

    private final Path folder;
    private Path staged;

    private EvidenceFolder(Path folder, Path staged) {
        this.folder = folder;
        this.staged = staged;
    }

    /**
     * A file that the evidence vouches for.
     *
     * @param role {@code input}, {@code linked}, {@code output} or {@code settings}
     * @param name as the user knows it
     * @param bytes its length
     * @param digest its digest, with the name of its kind before a colon
     */
    public record FileDigest(String role, String name, long bytes, String digest) {}

    /**
     * Chooses a new name, this one or this one and a number, and makes the folder under a hidden name until {@link #reveal}.
     * Only one run at a time may do so in a parent folder.
     */
    public static EvidenceFolder stage(Path parent, String name) throws IOException {
        Files.createDirectories(parent);
        sweep(parent);
        for (int n = 1; n < MOST_TRIES; n++) {
            Path folder = parent.resolve(n == 1 ? name : name + "-" + n);
            if (!Files.exists(folder)) {
                Path staged =
                        parent.resolve(TemporaryName.of(folder.getFileName().toString(), "staged"));
                return new EvidenceFolder(folder, Files.createDirectory(staged));
            }
        }
        throw new IOException(parent.resolve(name) + ": the name and " + MOST_TRIES + " like it are taken");
    }

    // What killed runs have staged is no evidence of anything.
    private static void sweep(Path parent) throws IOException {
        try (DirectoryStream<Path> staged = Files.newDirectoryStream(parent, ".*.staged")) {
            for (Path folder : staged) {
                if (TemporaryName.isAbandoned(folder)) {
                    remove(folder);
                }
            }
        }
    }

    /** The name it has, or gets. */
    public Path folder() {
        return folder;
    }

    /** Where it lies until it is revealed. */
    public Path staged() {
        return staged;
    }

    /** Gives it its name. */
    public void reveal() throws IOException {
        reveal(staged, folder);
        staged = folder;
    }

    /** Gives a folder that an earlier run staged its name, unless that was done. */
    public static void reveal(Path staged, Path folder) throws IOException {
        if (Files.exists(staged)) {
            makeOwn(staged);
            Files.move(staged, folder, StandardCopyOption.ATOMIC_MOVE);
        }
    }

    /** Makes a file, or a folder with all in it, readable for its owner only, where the system knows modes. */
    public static void makeOwn(Path path) throws IOException {
        if (!path.getFileSystem().supportedFileAttributeViews().contains("posix")) {
            return;
        }
        try (Stream<Path> all = Files.walk(path)) {
            for (Path one : all.toList()) {
                String mode = Files.isDirectory(one) ? "rwx------" : "rw-------";
                Files.setPosixFilePermissions(one, PosixFilePermissions.fromString(mode));
            }
        }
    }

    /** True when others on the machine can look into a folder. */
    public static boolean isOpenToOthers(Path folder) throws IOException {
        return Files.isDirectory(folder)
                && folder.getFileSystem().supportedFileAttributeViews().contains("posix")
                && PosixFilePermissions.toString(Files.getPosixFilePermissions(folder))
                        .substring(3)
                        .matches(".*[rx].*");
    }

    /** Removes what was staged. */
    public void discard() {
        remove(staged);
    }

    private static void remove(Path folder) {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(path);
            }
        } catch (IOException leftBehind) {
            // A hidden folder stays; it is no evidence of anything.
        }
    }

    /** Writes copies of the held rows, if there are any; answers where they will be. */
    public HeldCopies writeHeld(
            RunReport report, List<Input> inputs, Books books, List<UncodedGroups.Group> uncoded, String summary)
            throws IOException {
        if (report.heldRows().values().stream().allMatch(held -> held.rows().isEmpty())) {
            return HeldCopies.NONE;
        }
        HeldCopies copies = HeldCopies.write(report, inputs, books, uncoded, summary, staged.resolve("held"));
        return new HeldCopies(
                copies.texts().stream().map(this::revealed).toList(),
                copies.workbook() == null ? null : revealed(copies.workbook()));
    }

    // Where a staged file will be.
    private Path revealed(Path file) {
        return folder.resolve(staged.relativize(file));
    }

    // Two inputs of different folders may have the same name.
    static Path free(Path in, String name) throws IOException {
        Files.createDirectories(in);
        Path target = in.resolve(name);
        for (int n = 2; Files.exists(target); n++) {
            target = in.resolve(n + "-" + name);
        }
        return target;
    }

    /** Writes what people made of held rows, as far as it was used: who decided what, when and why. */
    public void writeDecisions(RunReport report) throws IOException {
        if (report.corrections().isEmpty()) {
            return;
        }
        try (CsvWriter csv = CsvWriter.builder().build(staged.resolve("decisions.csv"))) {
            csv.writeRecord("file", "row", "done", "who", "when", "why", "before", "after", "written in", "key");
            for (Correction one : report.corrections()) {
                csv.writeRecord(
                        one.file(),
                        Long.toString(one.row()),
                        one.done(),
                        SpreadsheetText.of(one.who()),
                        one.when(),
                        SpreadsheetText.of(one.why()),
                        SpreadsheetText.of(one.before()),
                        SpreadsheetText.of(one.after()),
                        one.place(),
                        one.key());
            }
        }
    }

    /** Writes the summary, the outcome and the digests; once more when they changed. */
    public void write(String summary, String json, List<FileDigest> files) throws IOException {
        Files.writeString(staged.resolve("summary.txt"), summary);
        Files.writeString(staged.resolve("outcome.json"), json);
        writeFiles(files);
    }

    /** Keeps a copy of the settings. */
    public void copySettings(List<Path> settings) throws IOException {
        Path copies = Files.createDirectories(staged.resolve("settings"));
        for (Path setting : settings) {
            Files.copy(setting, free(copies, setting.getFileName().toString()));
        }
    }

    /** Writes the findings that are kept, worst first, and says how many more there are. */
    public void writeFindings(RunReport report) throws IOException {
        try (CsvWriter csv = CsvWriter.builder().build(staged.resolve("findings.csv"))) {
            csv.writeRecord("severity", "rule", "file", "row", "field", "value", "reason", "suggestion");
            for (Finding f : report.findings().worstFirst()) {
                csv.writeRecord(
                        f.severity().word(),
                        f.rule().id(),
                        f.origin().file(),
                        Long.toString(f.origin().row()),
                        SpreadsheetText.of(f.field()),
                        SpreadsheetText.of(f.value()),
                        SpreadsheetText.of(f.reason()),
                        SpreadsheetText.of(f.suggestion()));
            }
            for (Map.Entry<FindingRule, Long> rule : report.findings().counts().entrySet()) {
                long more = rule.getValue() - FindingLog.KEPT;
                if (more > 0) {
                    String id = rule.getKey().id();
                    csv.writeRecord(
                            rule.getKey().severity().word(), id, "", "", "", "", more + " more of this rule", "");
                }
            }
        }
    }

    private void writeFiles(List<FileDigest> files) throws IOException {
        try (CsvWriter csv = CsvWriter.builder().build(staged.resolve("files.csv"))) {
            csv.writeRecord("role", "file", "bytes", "digest");
            for (FileDigest file : files) {
                csv.writeRecord(file.role(), file.name(), Long.toString(file.bytes()), file.digest());
            }
        }
    }
}
