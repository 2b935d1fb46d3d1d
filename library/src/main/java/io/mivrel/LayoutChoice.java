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
import java.util.Currency;
import java.util.List;

/**
 * Which of the layouts that an entry of a run sheet names reads a file, as when a bank has changed its form: the one that reads most
 * rows of the file's beginning. Where two read it as well as each other, that is a mistake of the run sheet.
 */
final class LayoutChoice {
    private LayoutChoice() {}

    /** The layout of a file: the only one that its entry names, or the one of several that reads it. */
    static Layout of(RunSheet.Source source, Currency currency, Path runSheet) throws SettingsException {
        Layout best = source.layouts().get(0);
        if (source.layouts().size() == 1) {
            return best;
        }
        long most = 0;
        Layout equal = null;
        for (Layout layout : source.layouts()) {
            long read = validRows(source, layout, currency);
            if (read > most) {
                best = layout;
                most = read;
                equal = null;
            } else if (read == most && read > 0) {
                equal = layout;
            }
        }
        if (equal != null) {
            throw new SettingsException(List.of(new SettingsProblem(
                    runSheet.toString(),
                    0,
                    0,
                    "the layouts '" + best.name() + "' and '" + equal.name() + "' both read " + source.shown()
                            + ", and may read it differently",
                    "give the files of each an entry of their own under 'intake'")));
        }
        return best;
    }

    private static long validRows(RunSheet.Source source, Layout layout, Currency currency) {
        try (RowSource rows = SourceFiles.open(source.path(), source.shown(), layout)) {
            Intake intake = new Intake(layout, SourceFile.of(source.shown(), currency), rows);
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
