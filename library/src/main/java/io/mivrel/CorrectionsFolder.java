package io.mivrel;

import io.mivrel.files.FolderOutlet;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import org.jspecify.annotations.Nullable;

/** Where held rows lie to be corrected, beside the run sheet; the copy in the evidence stays as it is. */
final class CorrectionsFolder {
    private CorrectionsFolder() {}

    /** Lays a workbook there under the name of its evidence; answers where, {@code null} when there is none. */
    static @Nullable Path handOut(@Nullable Path workbook, Path home, Path evidence) throws IOException {
        if (workbook == null) {
            return null;
        }
        Path folder = FolderOutlet.makePrivate(home.resolve(Mivrel.CORRECTIONS));
        Path target = folder.resolve(evidence.getFileName() + ".xlsx");
        Path fresh = folder.resolve("." + evidence.getFileName() + ".new");
        Files.copy(workbook, fresh, StandardCopyOption.REPLACE_EXISTING);
        return Files.move(fresh, target, StandardCopyOption.ATOMIC_MOVE);
    }
}
