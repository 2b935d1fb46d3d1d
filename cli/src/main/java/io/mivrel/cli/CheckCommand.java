package io.mivrel.cli;

import io.mivrel.FileAgainstDelivery;
import io.mivrel.Outcome;
import io.mivrel.delivery.FormCheck;
import io.mivrel.text.Printable;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
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
            "  mivrel check import.csv --as deliveries/receiver.yaml",
            "                                    holds a file, also one made by hand, against a delivery:",
            "                                    every difference with its row and column",
            "",
            "Exit status: 0 all clear, 1 something would be held or differs, 2 settings wrong, 3 a file failed."
        })
final class CheckCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--json", description = "print the outcome as JSON")
    private boolean json;

    @Option(
            names = "--as",
            paramLabel = "DELIVERY",
            description = "hold a file, in place of a run sheet, against a delivery's form")
    private Path delivery;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (delivery != null) {
            return against();
        }
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr())) {
            Outcome outcome = runSheet.open().progress(counter).check();
            counter.close();
            return OutcomePrinter.outcome(
                    outcome, json, runSheet, spec.commandLine().getOut());
        }
    }

    private int against() throws Exception {
        if (json) {
            throw new ParameterException(spec.commandLine(), "--json does not go with --as");
        }
        PrintWriter out = spec.commandLine().getOut();
        FileAgainstDelivery held = FileAgainstDelivery.of(runSheet.path(), delivery);
        String shown = Printable.of(runSheet.path().toString());
        out.println("\n" + shown + " against '" + Printable.of(held.delivery()) + "'"
                + (held.sheet().isEmpty() ? "" : ", " + Printable.of(held.sheet())) + "\n");
        out.println("  " + String.format(Locale.ROOT, "%,d", held.rows()) + (held.rows() == 1 ? " row" : " rows")
                + (held.documents() == 0 ? "" : String.format(Locale.ROOT, ", %,d documents", held.documents()))
                + ", amounts with the decimals of " + held.currency().getCurrencyCode());
        for (FormCheck.Difference one : held.differences()) {
            String value = one.value().isEmpty() ? "" : " '" + Printable.of(one.value()) + "'";
            out.println("  " + (one.row() == 0 ? "file" : "row " + one.row()) + ", " + Printable.of(one.column()) + ":"
                    + value + " " + Printable.of(one.reason()));
        }
        long more = held.all() - held.differences().size();
        out.println(
                held.all() == 0
                        ? "  no difference in form, cells, counts and sums"
                        : "  " + String.format(Locale.ROOT, "%,d", held.all())
                                + (held.all() == 1 ? " difference" : " differences")
                                + (more == 0 ? "" : String.format(Locale.ROOT, ", %,d of them not listed", more)));
        out.flush();
        return held.all() == 0 ? 0 : 1;
    }
}
