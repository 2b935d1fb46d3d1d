package io.mivrel.cli;

import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.examples.DemoData;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel demo}: the whole story on a made-up company. */
@Command(
        name = "demo",
        mixinStandardHelpOptions = true,
        header = "Unpacks a made-up company into a new folder and tells the whole story there.",
        description = {
            "",
            "Larkmoor Bell Foundry has the ordinary disorder in its files. Its bank statement, its old ledger and its"
                    + " invoice list are run."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel demo             into the folder larkmoor, or larkmoor-2 when that is taken",
            "  mivrel demo elsewhere   into the folder elsewhere, which must not exist"
        })
final class DemoCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FOLDER", arity = "0..1", description = "a new folder for the demo data")
    private Path folder;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        Path target = folder == null ? freeFolder() : folder;
        DemoData.unpack(target);
        out.println("Larkmoor Bell Foundry is unpacked in " + target + "; now three of its run sheets are run there,"
                + " and its March is posted to a practice ledger.");
        for (String sheet : DemoData.RUN_SHEETS) {
            out.println();
            out.println("$ mivrel run " + typed(target.resolve(sheet)));
            out.flush();
            Outcome outcome = Mivrel.open(target.resolve(sheet)).run();
            out.print(outcome.summary(Screen.style()));
            out.flush();
        }
        new DemoPosting(target, out).play();
        out.println();
        for (String line : ending(target)) {
            out.println(line);
        }
        examples().forEach(out::println);
        return 0;
    }

    private static List<String> ending(Path target) {
        return List.of(
                "What to look at next",
                "  " + target.resolve("out") + "        the import files",
                "  " + target.resolve("evidence") + "   findings, digests, copies of the held rows",
                "  " + target.resolve("corrections")
                        + "   the held rows as workbooks: correct them there, and run again",
                "  " + target.resolve("READ-ME-FIRST.txt"),
                "  " + target.resolve("ledgers") + "    the practice ledger, and how it is named to Mivrel",
                "Correct something, then: mivrel run " + typed(target.resolve("bank.yaml")),
                "                         mivrel post " + typed(target.resolve("bank.yaml")) + " --to practice",
                "Other kinds of files:    mivrel run " + typed(target.resolve("payroll.yaml"))
                        + "   (or card, euro, ledger-print, orders, bank-ofx)",
                "A file of your own:      mivrel start FILE --in NEWFOLDER",
                "An unknown file:         mivrel survey "
                        + typed(target.resolve("inbox").resolve("ledger-2027-q1.prn")));
    }

    // Programs that use the library, by the jars that this command runs from.
    private static List<String> examples() {
        try {
            Path jar = Path.of(DemoData.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            if (!Files.isRegularFile(jar)) {
                return List.of();
            }
            String jars = typed(Path.of("")
                    .toAbsolutePath()
                    .relativize(jar.getParent().toAbsolutePath())
                    .resolve("*"));
            return Stream.concat(
                            Stream.of("Programs that use the library, each into a folder of its own:"),
                            DemoData.EXAMPLES.stream().map(name -> "  java -cp '" + jars + "' " + name))
                    .toList();
        } catch (URISyntaxException | IllegalArgumentException nowhere) {
            return List.of();
        }
    }

    // As a person types it: a path with blanks goes into quotes.
    static String typed(Path path) {
        String text = path.toString();
        return text.indexOf(' ') < 0 ? text : '"' + text + '"';
    }

    private static Path freeFolder() throws IOException {
        for (int n = 1; n < 1000; n++) {
            Path candidate = Path.of(n == 1 ? "larkmoor" : "larkmoor-" + n);
            if (!Files.exists(candidate)) {
                return candidate;
            }
        }
        throw new IOException("larkmoor to larkmoor-999 exist already: name a new folder, such as 'mivrel demo try'");
    }
}
