package io.mivrel.cli;

import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel run}: the whole way. */
@Command(
        name = "run",
        mixinStandardHelpOptions = true,
        header = "Delivers what is clear, takes in corrections, holds the rest, and keeps the evidence.",
        description = {
            "",
            "Reads, codes, drafts, checks and delivers; reads back what was written and compares it with what was"
                    + " meant. What is wrong is held, with the reason next to its row."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel run bank.yaml              deliver what is clear, hold the rest",
            "  mivrel run bank.yaml --first 3    a pilot: three documents only, to try by hand",
            "  mivrel run bank.yaml --json       the outcome for a program",
            "  mivrel run bank.yaml --for 2027-04    one month, whatever dates the run sheet names",
            "",
            "What is held lies in a workbook in corrections/: correct it there, save it, run again.",
            "The same file twice is delivered once: a second run delivers only what was held before.",
            "A delivered file is never overwritten; the evidence lies beside the run sheet, in evidence/.",
            "",
            "Exit status: 0 all clear, 1 something is held, 2 settings wrong, 3 a file failed."
        })
final class RunCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--first", paramLabel = "N", description = "deliver at most N documents, as a pilot")
    private Long first;

    @Option(names = "--json", description = "print the outcome as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        if (first != null && first < 1) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(), "--first takes a whole number from 1 on, not " + first);
        }
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr())) {
            Mivrel run = runSheet.open().progress(counter);
            Outcome outcome = first == null ? run.run() : run.first(first).run();
            counter.close();
            return OutcomePrinter.outcome(
                    outcome, json, runSheet, spec.commandLine().getOut());
        }
    }
}
