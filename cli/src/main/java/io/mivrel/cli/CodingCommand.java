package io.mivrel.cli;

import io.mivrel.Mivrel;
import io.mivrel.files.CodingAdditions;
import io.mivrel.files.UncodedSheets.Filled;
import io.mivrel.text.Printable;
import java.io.PrintWriter;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel coding}: what was filled in for uncoded lines goes into the coding table. */
@Command(
        name = "coding",
        mixinStandardHelpOptions = true,
        header = "Shows the accounts filled in for uncoded lines, and adds them to the coding table.",
        description = {
            "",
            "A run that holds lines for want of a coding lays a workbook into corrections/, with a sheet of groups of such"
                    + " lines. Put accounts there, save it, and this command makes entries of them."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel coding bank.yaml             what would be added",
            "  mivrel coding bank.yaml --append    adds it at the end of the coding table",
            "",
            "Exit status: 0 done, or nothing to add, 2 settings wrong: nothing was added, 3 a file failed."
        })
final class CodingCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--append", description = "add the entries to the coding table")
    private boolean append;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        CodingAdditions additions = Mivrel.codingAdditions(runSheet.path());
        PrintWriter out = spec.commandLine().getOut();
        String sheet = Shell.quoted(runSheet.path().toString()) + runSheet.words();
        out.println();
        if (additions.entries().isEmpty()) {
            out.println(
                    "  nothing to add: no group on the sheets of uncoded lines has an account that is not in the table");
            return 0;
        }
        for (Filled one : additions.entries()) {
            out.println(String.format(
                    Locale.ROOT,
                    "  %-6s %-40s %-10s %6s   %s",
                    one.cells().getOrDefault("direction", "either"),
                    Printable.of(one.cells().getOrDefault("words", "")),
                    Printable.of(one.cells().getOrDefault("account", "")),
                    one.lines(),
                    Printable.of(one.place())));
        }
        int count = additions.entries().size();
        if (append) {
            additions.append();
            out.println("\n  " + count + (count == 1 ? " entry was" : " entries were") + " added to the coding table");
            out.println("\n  next: mivrel run " + sheet);
        } else {
            out.println("\n  nothing was changed; to add " + (count == 1 ? "it" : "them")
                    + " to the coding table: mivrel coding " + sheet + " --append");
        }
        return 0;
    }
}
