package io.mivrel;

import io.mivrel.files.CorrectionFiles;
import io.mivrel.files.FolderOutlet;
import io.mivrel.report.EvidenceFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Where held rows lie to be corrected, beside the run sheet; the copy in the evidence stays as it is. */
final class CorrectionsFolder {
    private CorrectionsFolder() {}

    /**
     * Lays a workbook there under the name of its evidence, in place of earlier ones of the same run that nobody has touched;
     * answers where, {@code null} when there is none.
     *
     * @param slug of the run's name, with which the names of its evidence begin
     */
    static @Nullable Path handOut(@Nullable Path workbook, Path home, Path evidence, String slug) throws IOException {
        removeUntouched(home, slug);
        if (workbook == null) {
            return null;
        }
        Path folder = FolderOutlet.makePrivate(home.resolve(Mivrel.CORRECTIONS));
        Path target = folder.resolve(evidence.getFileName() + ".xlsx");
        Path fresh = folder.resolve("." + evidence.getFileName() + ".new");
        Files.copy(workbook, fresh, StandardCopyOption.REPLACE_EXISTING);
        EvidenceFolder.makeOwn(fresh);
        return Files.move(fresh, target, StandardCopyOption.ATOMIC_MOVE);
    }

    // One that is as it was handed out has nothing to say, and its copy lies in the evidence.
    private static void removeUntouched(Path home, String slug) throws IOException {
        String ofRun = Pattern.quote(slug) + "(-posted)?-\\d{4}-\\d{2}-\\d{2}(-\\d+)?\\.xlsx";
        for (Path file : CorrectionFiles.in(home.resolve(Mivrel.CORRECTIONS))) {
            String name = file.getFileName().toString();
            Path kept = home.resolve("evidence")
                    .resolve(name.substring(0, name.lastIndexOf('.')))
                    .resolve("held")
                    .resolve("held.xlsx");
            if (name.matches(ofRun) && Files.exists(kept) && Files.mismatch(file, kept) < 0) {
                Files.deleteIfExists(file);
            }
        }
    }
}
