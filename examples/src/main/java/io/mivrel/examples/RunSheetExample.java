package io.mivrel.examples;

import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.report.SummaryText;
import java.nio.file.Path;

/** Opens a run sheet, checks it, runs it, and prints what came of it. */
public final class RunSheetExample {
    private RunSheetExample() {}

    /** The folder to unpack the demo data into. */
    public static void main(String[] args) throws Exception {
        Path folder = DemoData.unpackFor(args, "run-sheet-example");

        Mivrel ledger = Mivrel.open(folder.resolve("ledger.yaml"));
        Outcome checked = ledger.check();
        System.out.println(checked.report().held().documents() + " journals would be held");

        Outcome outcome = ledger.run();
        System.out.println(outcome.summary(SummaryText.Style.PLAIN));
    }
}
