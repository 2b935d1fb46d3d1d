package io.mivrel;

import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsProblem;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.layout.Layout;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Which layout reads a file that several entries of a run sheet name, as when a bank has changed its form: the one that reads most
 * rows of the file's beginning. Where two read it as well as each other, that is a mistake of the run sheet.
 */
final class LayoutChoice {
    private LayoutChoice() {}

    /** Each file once, with its layout. */
    static List<RunSheet.Source> of(RunSheet sheet, Path runSheet) throws SettingsException {
        Map<Path, List<RunSheet.Source>> byFile = new LinkedHashMap<>();
        sheet.sources()
                .forEach(source -> byFile.computeIfAbsent(source.path(), path -> new ArrayList<>())
                        .add(source));
        List<RunSheet.Source> chosen = new ArrayList<>();
        for (List<RunSheet.Source> some : byFile.values()) {
            List<Layout> layouts =
                    some.stream().map(RunSheet.Source::layout).distinct().toList();
            chosen.add(layouts.size() == 1 ? some.get(0) : best(some, sheet, runSheet));
        }
        return chosen;
    }

    private static RunSheet.Source best(List<RunSheet.Source> some, RunSheet sheet, Path runSheet)
            throws SettingsException {
        RunSheet.Source best = some.get(0);
        long most = 0;
        RunSheet.Source equal = null;
        for (RunSheet.Source source : some) {
            long read = validRows(source, sheet.books().currency());
            if (read > most) {
                best = source;
                most = read;
                equal = null;
            } else if (read == most && read > 0 && source.layout() != best.layout()) {
                equal = source;
            }
        }
        if (equal != null) {
            throw new SettingsException(List.of(new SettingsProblem(
                    runSheet.toString(),
                    0,
                    0,
                    "the layouts '" + best.layout().name() + "' and '"
                            + equal.layout().name() + "' both read " + best.shown()
                            + ", and may read it differently",
                    "give the files of each a pattern of their own under 'intake'")));
        }
        return best;
    }

    private static long validRows(RunSheet.Source source, Currency currency) {
        try (RowSource rows = SourceFiles.open(source.path(), source.shown(), source.layout())) {
            Intake intake = new Intake(source.layout(), SourceFile.of(source.shown(), currency), rows);
            IntakeBlock block = intake.newBlock();
            intake.fill(block);
            long valid = 0;
            for (int i = 0; i < block.records().size(); i++) {
                valid += block.records().isValid(i) ? 1 : 0;
            }
            return valid;
        } catch (IOException | RuntimeException notReadSo) {
            // A layout of another kind of file reads nothing of it; what is wrong with the file is told by the run.
            return 0;
        }
    }
}
