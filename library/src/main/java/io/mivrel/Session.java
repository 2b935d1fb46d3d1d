package io.mivrel;

import io.mivrel.delivery.DeliveredFile;
import io.mivrel.delivery.PreparedFile;
import io.mivrel.files.FolderOutlet;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.bytes.Digests;
import io.mivrel.history.DocumentHistory;
import io.mivrel.intake.Input;
import io.mivrel.ledger.Register;
import io.mivrel.ledger.RegisterException;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordRange;
import io.mivrel.report.EvidenceFolder;
import io.mivrel.report.EvidenceFolder.FileDigest;
import io.mivrel.report.HeldCopies;
import io.mivrel.report.SummaryText;
import io.mivrel.run.Publication;
import io.mivrel.run.Run;
import io.mivrel.run.RunPlan;
import io.mivrel.run.RunReport;
import io.mivrel.run.UncodedGroups;
import io.mivrel.run.Workers;
import io.mivrel.run.Workers.Task;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * One execution: the run with the memory of earlier ones and its evidence. Each step can be the last of a process that
 * dies, and the next run knows what it left: {@link UnfinishedRuns}.
 */
final class Session implements Publication {
    private final Mivrel run;
    /** Read first by the run and then for the evidence, which finds its rows by what the run has noted. */
    private final List<Input> inputs;

    private final Workers workers = new Workers();
    private List<Task<InputDigest>> inputDigests = List.of();
    private @Nullable DeferredRegister history;
    private @Nullable EvidenceFolder evidence;
    private List<Path> held = List.of();
    private final UncodedGroups uncoded = new UncodedGroups();
    /** The workbook of the held rows as it lies in the evidence; {@code null} when there is none. */
    private @Nullable Path workbook;

    private @Nullable InputFiles files;
    /** True once the register knows what is about to be published. */
    private boolean noted;

    Session(Mivrel run) {
        this.run = run;
        this.inputs = run.inputs();
    }

    Outcome check() throws IOException {
        RegisterPlace place = run.register();
        try (workers) {
            if (place == null || !Register.exists(place)) {
                return execute(run.plan(inputs).checkOnly());
            }
            try (Register register = Register.openToRead(place)) {
                register.beginCheck(run.scope(run.plan(inputs).build()));
                return execute(run.plan(inputs).checkOnly().history(register));
            }
        }
    }

    // Nothing is noted. A check publishes nothing either, so what it says is compared with the files at its end.
    private Outcome execute(RunPlan.Builder plan) throws IOException {
        InputFiles began = InputFiles.of(run.sources());
        RunReport report = Run.execute(
                plan.heldTo(uncoded)
                        .publication(Publication.after(began::requireUnchanged))
                        .build(),
                run.progress());
        if (report.checkedOnly()) {
            began.requireUnchanged();
        }
        return new Outcome(report, null, List.of(), null, uncoded.groups());
    }

    Outcome run() throws IOException {
        RegisterPlace place = run.register();
        if (place == null) {
            try (workers) {
                return execute(run.plan(inputs));
            }
        }
        requireRegister(run, place);
        if (place.file() != null) {
            FolderOutlet.makePrivate(
                    Objects.requireNonNull(place.file().toAbsolutePath().getParent()));
        }
        files = InputFiles.of(run.sources());
        RunPlan bare = run.plan(inputs).build();
        try (workers;
                DeferredRegister register = new DeferredRegister(place, bare)) {
            history = register;
            inputDigests = digestInputs();
            RunPlan plan = run.plan(inputs)
                    .heldTo(uncoded)
                    .history(register)
                    .publication(this)
                    .build();
            RunReport report = Run.execute(plan, run.progress());
            return new Outcome(report, evidence == null ? null : evidence.folder(), held, workbook, uncoded.groups());
        } finally {
            // A run that failed before anything was noted leaves nothing.
            if (evidence != null && !noted) {
                evidence.discard();
            }
        }
    }

    // Evidence without a register means that it was lost, and with it the knowledge of what was delivered.
    static void requireRegister(Mivrel run, RegisterPlace place) throws IOException {
        Path kept = run.home() == null ? null : run.home().resolve("evidence");
        if (place.file() == null || Register.exists(place) || kept == null || !Files.isDirectory(kept)) {
            return;
        }
        try (Stream<Path> folders = Files.list(kept)) {
            if (folders.anyMatch(f -> !f.getFileName().toString().startsWith("."))) {
                throw new RegisterLostException(place.file() + ": the register is "
                        + (Files.exists(place.file()) ? "empty" : "missing") + ", though " + kept
                        + " shows earlier runs; without it their documents would be delivered again. Put back a copy of"
                        + " the register; or, to start again on purpose, move the folder " + kept + " away");
            }
        }
    }

    /** The register is not where the evidence says that it was. */
    static final class RegisterLostException extends IOException {
        private static final long serialVersionUID = 1L;

        RegisterLostException(String message) {
            super(message);
        }
    }

    @Override
    public void prepared(RunReport report) throws IOException {
        run.progress().at("evidence", report.rowsRead());
        try {
            if (run.home() != null) {
                stageEvidence(report, run.home());
            }
        } catch (IOException e) {
            throw new IOException("the evidence could not be kept, so nothing was delivered: " + words(e), e);
        }
        Objects.requireNonNull(files).requireUnchanged();
        for (Task<InputDigest> input : inputDigests) {
            input.get().requireRead();
        }
        register()
                .prepared(
                        report,
                        evidence == null ? null : evidence.staged().toString(),
                        evidence == null ? null : evidence.folder().toString());
        noted = true;
    }

    @Override
    public void published(RunReport report) throws IOException {
        List<PreparedFile> files = report.deliveries().stream()
                .flatMap(delivered -> delivered.files().stream())
                .toList();
        if (evidence != null) {
            writeEvidence(report, evidence);
            evidence.reveal();
            workbook = CorrectionsFolder.handOut(
                    workbook, Objects.requireNonNull(run.home()), evidence.folder(), run.slug());
        }
        try {
            register().published(files);
        } catch (RegisterException e) {
            throw new IOException(
                    "the files were delivered, but the register could not note it yet; the next run will: "
                            + e.getMessage(),
                    e);
        }
    }

    private static String words(IOException e) {
        return e instanceof FileSystemException failed && failed.getReason() == null
                ? failed.getFile() + " is in the way"
                : String.valueOf(e.getMessage());
    }

    // Files get their names only in a run that has a history.
    private Register register() throws IOException {
        return Objects.requireNonNull(history).register();
    }

    private void stageEvidence(RunReport report, Path home) throws IOException {
        EvidenceFolder staged = EvidenceFolder.stage(
                FolderOutlet.makePrivate(home.resolve("evidence")), run.slug() + "-" + run.today());
        evidence = staged;
        Task<Void> findings = workers.begin(() -> staged.writeFindings(report));
        String summary = new Outcome(report, null, List.of(), null, List.of()).summary(SummaryText.Style.PLAIN);
        HeldCopies copies = staged.writeHeld(report, inputs, run.books(), uncoded.groups(), summary);
        held = copies.texts();
        workbook = copies.workbook();
        staged.writeDecisions(report);
        staged.copySettings(run.settings());
        writeEvidence(report, staged);
        findings.get();
    }

    private void writeEvidence(RunReport report, EvidenceFolder folder) throws IOException {
        Outcome outcome = new Outcome(report, folder.folder(), held, workbook, uncoded.groups());
        folder.write(outcome.summary(SummaryText.Style.PLAIN), outcome.json(), digests(report));
    }

    // Digests of large inputs take their time, so they are begun when the run begins.
    private List<Task<InputDigest>> digestInputs() {
        List<Task<InputDigest>> begun = new ArrayList<>();
        for (Mivrel.Source source : run.sources()) {
            Path path = source.path();
            if (path != null) {
                begun.add(workers.begin(() -> InputDigest.of(path, source)));
            }
        }
        return begun;
    }

    // What was read must be what stands in the file now; workbooks are read here and there, and known by their times
    // alone.
    private record InputDigest(Mivrel.Source source, FileDigest file, long checksum) {
        static InputDigest of(Path path, Mivrel.Source source) throws IOException {
            Digests.Both both = Digests.withChecksum(path);
            FileDigest digest = new FileDigest("input", source.shown(), Files.size(path), both.digest());
            return new InputDigest(source, digest, both.checksum());
        }

        void requireRead() throws IOException {
            if (source.rows() instanceof SourceFiles.Opener opener && !opener.readBytesOf(checksum)) {
                throw InputFiles.changed(source.shown());
            }
        }
    }

    private List<FileDigest> digests(RunReport report) throws IOException {
        List<FileDigest> files = new ArrayList<>();
        for (Task<InputDigest> input : inputDigests) {
            files.add(input.get().file());
        }
        files.addAll(linked(run));
        for (DeliveredFile delivered : report.deliveries()) {
            for (PreparedFile file : delivered.files()) {
                files.add(new FileDigest("output", relative(Path.of(file.name())), file.bytes(), file.digest()));
            }
        }
        for (Path setting : run.settings()) {
            files.add(digest("settings", setting, relative(setting)));
        }
        return files;
    }

    // The evidence may move with its folder, so it names files as seen from there.
    private String relative(Path path) {
        Path home = Objects.requireNonNull(run.home()).toAbsolutePath().normalize();
        Path absolute = path.toAbsolutePath().normalize();
        return absolute.startsWith(home) ? home.relativize(absolute).toString() : absolute.toString();
    }

    /** Digests of the inputs and settings of a run. */
    static List<FileDigest> digests(Mivrel run) throws IOException {
        List<FileDigest> files = new ArrayList<>();
        for (Mivrel.Source source : run.sources()) {
            if (source.path() != null) {
                files.add(digest("input", source.path(), source.shown()));
            }
        }
        files.addAll(linked(run));
        for (Path setting : run.settings()) {
            files.add(digest("settings", setting, setting.getFileName().toString()));
        }
        return files;
    }

    // Files that others are linked with, each once.
    private static List<FileDigest> linked(Mivrel run) throws IOException {
        Map<Path, String> all = new LinkedHashMap<>();
        run.sources().forEach(source -> all.putAll(InputFiles.linked(source)));
        List<FileDigest> files = new ArrayList<>();
        for (Map.Entry<Path, String> one : all.entrySet()) {
            if (Files.isRegularFile(one.getKey())) {
                files.add(digest("linked", one.getKey(), one.getValue()));
            }
        }
        return files;
    }

    private static FileDigest digest(String role, Path path, String shown) throws IOException {
        return new FileDigest(role, shown, Files.size(path), Digests.of(path));
    }

    /** The register, opened and settled beside the reading of the first rows. */
    private final class DeferredRegister implements DocumentHistory, AutoCloseable {
        private final Task<Register> opening;
        private @Nullable Register register;

        DeferredRegister(RegisterPlace place, RunPlan plan) {
            opening = workers.begin(() -> open(place, plan));
        }

        private Register open(RegisterPlace place, RunPlan plan) throws IOException {
            Register opened = Register.open(place);
            boolean begun = false;
            try {
                UnfinishedRuns.settle(opened);
                for (Mivrel.Target target : run.targets()) {
                    FolderOutlet.sweep(target.folder());
                }
                opened.begin(run.scope(plan));
                begun = true;
                return opened;
            } finally {
                if (!begun) {
                    opened.close();
                }
            }
        }

        Register register() throws IOException {
            if (register == null) {
                register = opening.get();
            }
            return register;
        }

        @Override
        public Verdict judge(Kind kind, RecordRange records, long identity, long content) throws IOException {
            return register().judge(kind, records, identity, content);
        }

        @Override
        public long lacking() {
            return Objects.requireNonNull(register).lacking();
        }

        @Override
        public long coded() {
            return Objects.requireNonNull(register).coded();
        }

        @Override
        public long matchedByAmount() throws IOException {
            return register().matchedByAmount();
        }

        @Override
        public @Nullable Earlier named(long identity) throws IOException {
            return register().named(identity);
        }

        @Override
        public @Nullable Earlier alike(long identity, long figures, long day) throws IOException {
            return register().alike(identity, figures, day);
        }

        @Override
        public boolean covers(String account, long from, long to) throws IOException {
            return register().covers(account, from, to);
        }

        @Override
        public @Nullable Earlier counterpart(String account, long amount, long day, long identity) throws IOException {
            return register().counterpart(account, amount, day, identity);
        }

        @Override
        public void remember(Kind kind, RecordRange records, long identity, long figures, long content, long deliveries)
                throws IOException {
            register().remember(kind, records, identity, figures, content, deliveries);
        }

        @Override
        public boolean foundChangedDays() throws IOException {
            return register().foundChangedDays();
        }

        @Override
        public @Nullable Closing lastClosing(String account, LocalDate day) throws IOException {
            return register().lastClosing(account, day);
        }

        @Override
        public void startOver() throws IOException {
            register().startOver();
        }

        @Override
        public void close() throws IOException {
            try {
                register().close();
            } catch (IOException failedToOpen) {
                // There is nothing to close.
            }
        }
    }
}
