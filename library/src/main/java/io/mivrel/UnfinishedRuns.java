package io.mivrel;

import io.mivrel.delivery.PreparedFile;
import io.mivrel.files.PublishedFiles;
import io.mivrel.files.bytes.Digests;
import io.mivrel.ledger.Register;
import io.mivrel.ledger.UnfinishedRun;
import io.mivrel.report.EvidenceFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/**
 * Settles what a run left that died between choosing the names of its files and noting that all have them: files that have
 * their names are done, the others get them now. Where the receiver may have taken some of a set, nobody but a person knows
 * which, and the next run stops and says so.
 */
final class UnfinishedRuns {
    private UnfinishedRuns() {}

    static void settle(Register register) throws IOException {
        for (UnfinishedRun run : register.unfinished()) {
            List<PreparedFile> named = settle(run);
            if (run.stagedEvidence() != null) {
                EvidenceFolder.reveal(Path.of(run.stagedEvidence()), Path.of(run.evidence()));
            }
            register.settled(run.id(), named);
            for (PreparedFile file : run.files()) {
                Files.deleteIfExists(Path.of(file.hidden()));
            }
        }
        for (String hidden : register.hiddenOfLastRun()) {
            Files.deleteIfExists(Path.of(hidden));
        }
    }

    private static List<PreparedFile> settle(UnfinishedRun run) throws IOException {
        List<PreparedFile> files = run.files();
        // Names are given in order, so a file that lacks its name before one that has it had it too, and was taken.
        int lastNamed = -1;
        for (int i = 0; i < files.size(); i++) {
            lastNamed = isNamed(files.get(i)) ? i : lastNamed;
        }
        for (int i = 0; i < files.size(); i++) {
            PreparedFile file = files.get(i);
            Path hidden = Path.of(file.hidden());
            if (!isNamed(file) && Files.exists(hidden) && (i < lastNamed || PublishedFiles.hadOtherName(hidden))) {
                throw new IOException(
                        "the run '" + run.run() + "' of " + run.began() + " was cut off while it gave its "
                                + (files.size() == 1 ? "file its name" : files.size() + " files their names")
                                + ", and the receiver seems to have taken " + file.name() + " since. If it has, delete "
                                + hidden
                                + "; if it has not, give that file the name " + file.name()
                                + ". Then run again; nothing was delivered now");
            }
        }
        List<PreparedFile> settled = new ArrayList<>();
        for (PreparedFile file : files) {
            Path hidden = Path.of(file.hidden());
            Path name = Path.of(file.name());
            // Neither name is there: it was published, and taken or moved away.
            boolean done = isNamed(file) || !Files.exists(hidden);
            if (!done) {
                name = PublishedFiles.link(hidden, name);
                PublishedFiles.force(
                        Objects.requireNonNull(name.toAbsolutePath().getParent()));
            }
            settled.add(new PreparedFile(file.hidden(), name.toString(), file.bytes(), file.digest()));
        }
        return settled;
    }

    // By its content, or by a second name for the same file, wherever that has been moved.
    private static boolean isNamed(PreparedFile file) throws IOException {
        Path hidden = Path.of(file.hidden());
        Path name = Path.of(file.name());
        if (Files.exists(name) && Files.size(name) == file.bytes() && Digests.matches(name, file.digest())) {
            return true;
        }
        return Files.exists(hidden) && PublishedFiles.hasOtherName(hidden);
    }
}
