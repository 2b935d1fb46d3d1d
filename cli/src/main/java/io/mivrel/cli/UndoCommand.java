package io.mivrel.cli;

import io.mivrel.Company;
import io.mivrel.ledger.DeliveredRuns.DeliveredRun;
import io.mivrel.ledger.DeliveredRuns.FileOfRun;
import io.mivrel.ledger.DeliveredRuns.TakenBack;
import io.mivrel.money.Money;
import io.mivrel.text.Printable;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.function.Predicate;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** {@code mivrel undo}: what was delivered, and how it can go out again. */
@Command(
        name = "undo",
        mixinStandardHelpOptions = true,
        header = "Lists what was delivered, and takes a delivery back so that it can go out again.",
        description = {
            "",
            "Without --run it lists what this run sheet delivered, run by run. With it the documents of that run are withdrawn in the"
                    + " register, with the reason, and the next run delivers them again under new file names. The files"
                    + " that were delivered stay where they are: do not import both."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel undo bank.yaml                                       the runs, with their numbers",
            "  mivrel undo bank.yaml --run 3 --why \"wrong tax code\"        take the third one back",
            "",
            "What was posted to a ledger is taken back with 'mivrel withdraw'.",
            "",
            "Exit status: 0 done, 2 settings wrong, 3 there is no such run, or a file failed."
        })
final class UndoCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--run", paramLabel = "N", description = "the number of the run to take back")
    private Long run;

    @Option(names = "--why", paramLabel = "TEXT", description = "the reason, which is kept")
    private String why;

    @Option(names = "--who", paramLabel = "NAME", description = "who takes it back; else the user of this machine")
    private String who;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Company company = Company.in(runSheet.path());
        String name = runSheet.company();
        PrintWriter out = spec.commandLine().getOut();
        if (run == null) {
            Predicate<String> own = runSheet.isOf();
            list(
                    company.deliveries(name).stream()
                            .filter(one -> own.test(one.name()))
                            .toList(),
                    out);
            return 0;
        }
        if (why == null || why.isBlank()) {
            throw new ParameterException(spec.commandLine(), "--run needs --why, the reason, which is kept");
        }
        String by = who == null ? System.getProperty("user.name", "unknown") : who;
        company.takeBack(name, run, new TakenBack(LocalDate.now(), by, why.strip()));
        DeliveredRun back = company.deliveries(name).stream()
                .filter(one -> one.number() == run)
                .findFirst()
                .orElseThrow();
        out.println("\n  run " + run + ", " + Printable.of(back.name()) + ": taken back, its " + back.documents()
                + (back.documents() == 1 ? " document goes" : " documents go") + " out again with the next run");
        back.files().forEach(file -> out.println("  do not import: " + shown(file)));
        out.println("\n  next: mivrel run " + Shell.quoted(runSheet.path().toString()) + runSheet.words());
        return 0;
    }

    private static void list(List<DeliveredRun> runs, PrintWriter out) {
        if (runs.isEmpty()) {
            out.println("\n  nothing was delivered yet");
        }
        for (DeliveredRun one : runs) {
            out.println(String.format(
                    Locale.ROOT,
                    "%n  run %d   %s   %s   %,d %s",
                    one.number(),
                    one.began().substring(0, Math.min(10, one.began().length())),
                    Printable.of(one.name()),
                    one.documents(),
                    one.kind()));
            for (FileOfRun file : one.files()) {
                Currency currency = Currency.getInstance(file.currency());
                out.println("    " + shown(file) + "   " + signed("+", file.plus(), currency) + "   "
                        + signed("-", file.minus(), currency) + " " + file.currency());
            }
            if (one.back() != null) {
                out.println("    taken back on " + one.back().day() + " by "
                        + Printable.of(one.back().who()) + ": "
                        + Printable.of(one.back().why()));
            }
        }
    }

    private static String signed(String sign, long minor, Currency currency) {
        return (minor == 0 ? "" : sign) + Money.show(minor, currency);
    }

    // As seen from here, where it lies below.
    private static String shown(FileOfRun file) {
        Path here = Path.of("").toAbsolutePath();
        Path path = Path.of(file.name()).toAbsolutePath().normalize();
        return Printable.of(path.startsWith(here) ? here.relativize(path).toString() : path.toString());
    }
}
