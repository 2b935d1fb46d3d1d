package io.mivrel.report;

import io.mivrel.books.Books;
import io.mivrel.intake.Input;
import io.mivrel.run.HeldRows;
import io.mivrel.run.RunReport;
import io.mivrel.run.UncodedGroups;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The copies of the held rows of a run: a text file for each source file, and one workbook of all.
 *
 * @param texts the text files
 * @param workbook {@code null} when the library for workbooks is not there
 */
public record HeldCopies(List<Path> texts, @Nullable Path workbook) {
    private static final String WORKBOOK = "held.xlsx";

    /** Held rows of one file that a workbook has at most; the text copies have all. */
    public static final int MOST_IN_WORKBOOK = 20_000;

    /** None. */
    public static final HeldCopies NONE = new HeldCopies(List.of(), null);

    // Each source file is read once for both.
    static HeldCopies write(
            RunReport report,
            List<Input> inputs,
            Books books,
            List<UncodedGroups.Group> uncoded,
            String summary,
            Path folder)
            throws IOException {
        List<Path> texts = new ArrayList<>();
        Path target = Files.createDirectories(folder).resolve(WORKBOOK);
        try (HeldWorkbook workbook =
                HeldWorkbook.open(target, books, report.kind().isOfAccount())) {
            for (Input input : inputs) {
                HeldRows held = report.heldRows().get(input.name());
                if (held == null || held.rows().isEmpty()) {
                    continue;
                }
                String name = Path.of(input.name()).getFileName().toString();
                Path text = EvidenceFolder.free(folder, HeldFile.keepsForm(input.layout()) ? name : name + ".csv");
                try (HeldCsv csv = HeldCsv.open(input, text)) {
                    if (workbook == null) {
                        HeldFile.read(input, held, List.of(csv));
                    } else {
                        HeldWorkbook.Rows rows = workbook.file(input);
                        HeldFile.read(input, held, List.of(csv, rows));
                        rows.end();
                    }
                }
                texts.add(text);
            }
            if (workbook == null) {
                return new HeldCopies(texts, null);
            }
            workbook.finish(report, uncoded, summary);
        }
        return new HeldCopies(texts, target);
    }
}
