package io.mivrel.cli;

import io.mivrel.start.Shelf;
import io.mivrel.text.Nearest;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel shelf}: the deliveries that ship. */
@Command(
        name = "shelf",
        mixinStandardHelpOptions = true,
        header = "Shows the ready deliveries and blank books, each named for its shape, with a sample.",
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel shelf                                            all of them",
            "  mivrel shelf bank-in-and-out > deliveries/mine.yaml     one, to change; a run sheet names it",
            "  mivrel shelf parties-blank > books/parties.csv          a blank file of the books",
        })
final class ShelfCommand implements Callable<Integer> {
    @Parameters(paramLabel = "NAME", arity = "0..1", description = "print this one")
    private String name;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        if (name == null) {
            out.println();
            Shelf.samples().forEach(line -> out.println("  " + line));
            out.println(
                    "\n  next: mivrel start FILE, which offers them with rows of your own; or mivrel shelf NAME > FILE");
        } else {
            out.print(text());
        }
        out.flush();
        return 0;
    }

    private String text() {
        Map<String, String> all = new LinkedHashMap<>();
        Shelf.shapes().forEach(shape -> all.put(shape.name(), shape.text()));
        Shelf.templates().forEach(template -> all.put(template.name(), template.text()));
        if (!all.containsKey(name)) {
            String near = Nearest.one(name, all.keySet());
            throw new ParameterException(
                    spec.commandLine(),
                    "'" + name + "' is not on the shelf; there are " + String.join(", ", all.keySet())
                            + (near == null ? "" : "; '" + near + "'?"));
        }
        return all.get(name);
    }
}
