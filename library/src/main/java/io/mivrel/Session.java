package io.mivrel;

import io.mivrel.delivery.DeliveredFile;
import io.mivrel.files.bytes.Digests;
import io.mivrel.ledger.Register;
import io.mivrel.report.EvidenceFolder;
import io.mivrel.report.EvidenceFolder.FileDigest;
import io.mivrel.report.SummaryText;
import io.mivrel.run.DocumentHistory;
import io.mivrel.run.Input;
import io.mivrel.run.Run;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;

/** One execution: the run with the memory of earlier ones, its evidence, and what to remember of it. */
final class Session {
    private final Mivrel run;
    /** Read first by the run and then for the evidence, which finds its rows by what the run has noted. */
    private final List<Input> inputs;

    Session(Mivrel run) {
        this.run = run;
        this.inputs = run.inputs();
    }

    Outcome check() throws IOException {
        Path register = register();
        if (register == null || !Files.exists(register)) {
            return new Outcome(execute(false, DocumentHistory.NONE), null, List.of());
        }
        try (Register memory = Register.open(register, run.name())) {
            return new Outcome(execute(false, memory), null, List.of());
        }
    }

    Outcome run() throws IOException {
        if (run.home() == null) {
            return new Outcome(execute(true, DocumentHistory.NONE), null, List.of());
        }
        try (DeferredRegister memory = new DeferredRegister(register(), run.name())) {
            List<CompletableFuture<FileDigest>> digests = digestInputs();
            RunReport report = execute(true, memory);
            // The disk takes its time to remember; meanwhile the evidence is written.
            CompletableFuture<Void> remembered = report.deliveries().isEmpty()
                    ? CompletableFuture.completedFuture(null)
                    : beside(() -> memory.register().commit());
            Outcome outcome = null;
            IOException lost = null;
            try {
                outcome = keepEvidence(report, digests);
            } catch (IOException e) {
                lost = e;
            } finally {
                remembered.handle((done, failed) -> null).join();
            }
            try {
                finished(remembered);
            } catch (IOException e) {
                throw new IOException(
                        "the files were delivered, but the register could not remember it, so another run would deliver"
                                + " them again: " + e.getMessage(),
                        e);
            }
            if (lost != null) {
                throw new IOException(
                        "the files were delivered and will not be delivered again, but the evidence could not be kept: "
                                + lost.getMessage(),
                        lost);
            }
            return outcome;
        }
    }

    /** What may fail with the disk. */
    private interface Work {
        void go() throws IOException;
    }

    private static CompletableFuture<Void> beside(Work work) {
        return CompletableFuture.runAsync(() -> {
            try {
                work.go();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private Path register() {
        return run.home() == null ? null : run.home().resolve(".mivrel").resolve("register.db");
    }

    private RunReport execute(boolean deliver, DocumentHistory memory) throws IOException {
        return Run.execute(run.plan(inputs, deliver, memory), run.progress());
    }

    private Outcome keepEvidence(RunReport report, List<CompletableFuture<FileDigest>> digests) throws IOException {
        run.progress().at("evidence", report.rowsRead());
        EvidenceFolder folder = EvidenceFolder.create(run.home().resolve("evidence"), run.slug() + "-" + run.today());
        CompletableFuture<Void> findings = beside(() -> folder.writeFindings(report));
        Outcome outcome = new Outcome(report, folder.folder(), folder.writeHeld(report, inputs));
        folder.write(
                outcome.summary(SummaryText.Style.PLAIN), outcome.json(), vouched(report, digests), run.settings());
        finished(findings);
        return outcome;
    }

    // Digests of large inputs take their time, so they are begun when the run begins.
    private List<CompletableFuture<FileDigest>> digestInputs() {
        return run.sources().stream()
                .map(source -> CompletableFuture.supplyAsync(() -> {
                    try {
                        return vouched("input", source.path(), source.shown());
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                }))
                .toList();
    }

    private static <T> T finished(CompletableFuture<T> work) throws IOException {
        try {
            return work.join();
        } catch (CompletionException e) {
            if (e.getCause() instanceof UncheckedIOException failed) {
                throw failed.getCause();
            }
            throw e;
        }
    }

    private List<FileDigest> vouched(RunReport report, List<CompletableFuture<FileDigest>> inputs) throws IOException {
        List<FileDigest> files = new ArrayList<>();
        for (CompletableFuture<FileDigest> input : inputs) {
            files.add(finished(input));
        }
        for (DeliveredFile delivered : report.deliveries()) {
            for (int i = 0; i < delivered.files().size(); i++) {
                Path path = Path.of(delivered.files().get(i));
                files.add(new FileDigest(
                        "output",
                        relative(path),
                        Files.size(path),
                        delivered.digests().get(i)));
            }
        }
        for (Path setting : run.settings()) {
            files.add(vouched("settings", setting, relative(setting)));
        }
        return files;
    }

    // The evidence may move with its folder, so it names files as seen from there.
    private String relative(Path path) {
        Path home = run.home().toAbsolutePath().normalize();
        Path absolute = path.toAbsolutePath().normalize();
        return absolute.startsWith(home) ? home.relativize(absolute).toString() : absolute.toString();
    }

    private static FileDigest vouched(String role, Path path, String shown) throws IOException {
        return new FileDigest(role, shown, Files.size(path), Digests.of(path));
    }

    /** The register, opened beside the reading of the first rows. */
    private static final class DeferredRegister implements DocumentHistory, AutoCloseable {
        private final CompletableFuture<Register> opening;
        private Register register;

        DeferredRegister(Path file, String runName) {
            opening = CompletableFuture.supplyAsync(() -> {
                try {
                    return Register.open(file, runName);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }

        Register register() throws IOException {
            if (register == null) {
                register = finished(opening);
            }
            return register;
        }

        @Override
        public Verdict judge(long identity, long content) {
            try {
                return register().judge(identity, content);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        @Override
        public void remember(long identity, long content) throws IOException {
            register().remember(identity, content);
        }

        @Override
        public void startOver() throws IOException {
            register().startOver();
        }

        @Override
        public void close() {
            opening.handle((opened, failed) -> opened).thenAccept(opened -> {
                if (opened != null) {
                    opened.close();
                }
            });
            opening.handle((opened, failed) -> null).join();
        }
    }
}
