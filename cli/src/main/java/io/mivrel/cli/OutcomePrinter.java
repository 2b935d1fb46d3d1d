package io.mivrel.cli;

import io.mivrel.Outcome;
import java.io.PrintWriter;

/** Prints an outcome in the form asked for. */
final class OutcomePrinter {
    private OutcomePrinter() {}

    /** Answers the exit status. */
    static int outcome(Outcome outcome, boolean json, PrintWriter out) {
        out.print(json ? outcome.json() : outcome.summary(Screen.style()));
        out.flush();
        return outcome.status();
    }
}
