package io.mivrel.cli;

import io.mivrel.Mivrel;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsFiles;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.YearMonth;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** The run sheet that most commands take, and the month that it is run for. */
final class RunSheetArgument {
    @Parameters(paramLabel = "RUNSHEET", description = "the run sheet, such as bank.yaml")
    private Path runSheet;

    @Option(
            names = "--for",
            paramLabel = "MONTH",
            description = "one month, such as 2027-04, whatever dates the run sheet names")
    private String month;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    Path path() {
        return runSheet;
    }

    /** The company's folder. */
    Path folder() {
        Path parent = runSheet.toAbsolutePath().getParent();
        return parent == null ? Path.of("") : parent;
    }

    /** The same command's words for the month; empty when none was said. */
    String words() {
        return month == null ? "" : " --for " + month;
    }

    /** Whose books the run sheet names, whether or not its files are there. */
    String company() throws SettingsException {
        requireRunSheet();
        return RunSheet.read(runSheet, null, true).books().company();
    }

    /** Tells the runs of this run sheet by their names: of the month that was said, or of any. */
    Predicate<String> isOf() throws SettingsException {
        requireRunSheet();
        String name =
                RunSheet.read(runSheet, month == null ? null : month(), true).name();
        int at = name.indexOf(RunSheet.MONTH);
        return at < 0
                ? name::equals
                : run -> run.startsWith(name.substring(0, at))
                        && run.endsWith(name.substring(at + RunSheet.MONTH.length()));
    }

    Mivrel open() throws SettingsException {
        requireRunSheet();
        return month == null ? Mivrel.open(runSheet) : Mivrel.open(runSheet, month());
    }

    private YearMonth month() {
        try {
            return YearMonth.parse(month);
        } catch (DateTimeParseException e) {
            throw new ParameterException(spec.commandLine(), "--for is a month such as 2027-04, not " + month);
        }
    }

    // A folder, or a file that is not there: the run sheets that are near.
    private void suggest(boolean isFolder) {
        Path parent = runSheet.getParent();
        Path near = isFolder ? runSheet : parent == null ? Path.of("") : parent;
        List<String> lines = NextLine.withRunSheets(spec.commandLine().getCommandName(), near);
        String shown = Shell.quoted(runSheet.toString());
        if (!lines.isEmpty() || isFolder) {
            throw new ParameterException(
                    spec.commandLine(),
                    lines.isEmpty()
                            ? shown + " is a folder without a run sheet; to make one: mivrel start FILE --in " + shown
                            : shown
                                    + (isFolder
                                            ? " is a folder; its run sheets:"
                                            : ": there is no such file; there are:")
                                    + "\n" + String.join("\n", lines));
        }
    }

    // Of another file, what it is and what to do with it.
    private void requireRunSheet() {
        if (!Files.isRegularFile(runSheet)) {
            suggest(Files.isDirectory(runSheet));
            return;
        }
        String shown = Shell.quoted(runSheet.toString());
        String kind = SettingsFiles.kind(runSheet).orElse("");
        boolean yaml = runSheet.toString().toLowerCase(Locale.ROOT).matches(".*\\.ya?ml");
        String told = switch (kind) {
            case "run" -> "";
            case "layout" ->
                shown + " is a layout; a run sheet names it: intake: [{files: \"inbox/*.csv\", layout: " + shown + "}]";
            case "delivery" ->
                shown + " is a delivery; a run sheet names it: deliver: [{as: " + shown
                        + ", to: out}]; to hold a file against it: mivrel check FILE --as " + shown;
            case "ledger" -> shown + " is a ledger's settings; post to it: mivrel post RUNSHEET --to NAME";
            case "books" -> shown + " says whose books they are; a run sheet names their folder: books: books";
            default -> yaml ? "" : shown + " is not a run sheet; to make one from a raw file: mivrel start " + shown;
        };
        if (!told.isEmpty()) {
            throw new ParameterException(spec.commandLine(), told);
        }
    }

    /** The latest month of several that a run sheet's files are of; {@code null} when they are of one, or none is said. */
    static @Nullable String latest(Path runSheet) {
        try {
            List<YearMonth> months = Mivrel.monthsOf(runSheet);
            return months.size() < 2 ? null : months.get(months.size() - 1).toString();
        } catch (SettingsException | IOException toldByTheRun) {
            return null;
        }
    }

    /** Opens a run sheet for the latest month of its files. */
    static Mivrel openLatest(Path runSheet) throws SettingsException {
        String latest = latest(runSheet);
        return latest == null ? Mivrel.open(runSheet) : Mivrel.open(runSheet, YearMonth.parse(latest));
    }
}
