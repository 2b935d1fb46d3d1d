package io.mivrel.cli;

import io.mivrel.Outcome;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel check}: everything but writing. */
@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        header = "Finds everything that is wrong, and writes nothing.",
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel check bank.yaml            figures, proof and problems, worst first",
            "  mivrel check bank.yaml --json     the same for a program",
            "",
            "Exit status: 0 all clear, 1 something would be held, 2 settings wrong, 3 a file failed."
        })
final class CheckCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--json", description = "print the outcome as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr())) {
            Outcome outcome = runSheet.open().progress(counter).check();
            counter.close();
            return OutcomePrinter.outcome(
                    outcome, json, runSheet, spec.commandLine().getOut());
        }
    }
}
