package io.mivrel.cli;

import io.mivrel.DeliverySample;
import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.model.Rule;
import io.mivrel.text.Printable;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/** Prints an outcome in the form asked for. */
final class OutcomePrinter {
    private static final int SAMPLE_ROWS = 3;
    private static final long MOST_FOR_SAMPLES = 200_000;

    private OutcomePrinter() {}

    private static String next(Outcome outcome, String run, RunSheetArgument sheet) {
        if (outcome.report().checkedOnly()) {
            return run + (outcome.report().hasHeld() ? "     # delivers what is clear and hands out the rest" : "");
        }
        if (outcome.report().beyondPilot().documents() > 0) {
            return run + "     # the rest, once the pilot is found right";
        }
        if (outcome.report().hasHeld()) {
            return run + "     # once the held rows are corrected";
        }
        Path folder = sheet.path().getParent();
        return "mivrel status" + (folder == null ? "" : " " + Shell.quoted(folder.toString()))
                + "     # where each account stands";
    }

    /**
     * Prints the first rows of each delivery, as they will stand in its files. Of very many rows none is shown, since they are
     * read once more for it.
     */
    static void samples(Mivrel run, Outcome outcome, PrintWriter out) throws IOException {
        long documents =
                outcome.report().clear().documents() + outcome.report().before().documents();
        if (documents == 0 || outcome.report().rowsRead() > MOST_FOR_SAMPLES) {
            return;
        }
        for (DeliverySample sample : run.samples(SAMPLE_ROWS, SAMPLE_ROWS)) {
            out.println("\n  as it will stand in the file of '" + Printable.of(sample.delivery()) + "'"
                    + (sample.sheet().isEmpty() ? "" : ", " + Printable.of(sample.sheet())));
            sample.lines().forEach(line -> out.println("    " + Printable.of(line.replace("\t", "  "))));
        }
    }

    // A file whose form has changed gets a layout first.
    private static @Nullable String changedForm(Outcome outcome, RunSheetArgument sheet) {
        Path folder = sheet.folder();
        Path shown =
                sheet.path().getParent() == null ? Path.of("") : sheet.path().getParent();
        return outcome.findings().stream()
                .filter(found -> found.rule() == Rule.COLUMN_MISSING)
                .map(found -> found.origin().file())
                .filter(file -> Files.isRegularFile(folder.resolve(file)))
                .findFirst()
                .map(file -> "mivrel start " + Shell.quoted(shown.resolve(file).toString())
                        + (shown.toString().isEmpty() ? "" : " --in " + Shell.quoted(shown.toString()))
                        + "     # the form of this file has changed: makes a layout for it, beside the other")
                .orElse(null);
    }

    /** Answers the exit status; {@code sheet} is what the next command is called with. */
    static int outcome(Outcome outcome, boolean json, RunSheetArgument sheet, PrintWriter out)
            throws IOException, SettingsException {
        out.print(json ? outcome.json() : outcome.summary(Screen.style()));
        if (!json) {
            if (outcome.report().checkedOnly()) {
                samples(sheet.open(), outcome, out);
            }
            String changed = changedForm(outcome, sheet);
            out.println("\n  next: "
                    + (changed != null
                            ? changed
                            : next(
                                    outcome,
                                    "mivrel run " + Shell.quoted(sheet.path().toString()) + sheet.words(),
                                    sheet)));
        }
        out.flush();
        return outcome.status();
    }
}
