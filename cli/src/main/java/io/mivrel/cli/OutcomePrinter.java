package io.mivrel.cli;

import io.mivrel.Outcome;
import java.io.PrintWriter;

/** Prints an outcome in the form asked for. */
final class OutcomePrinter {
    private OutcomePrinter() {}

    private static String next(Outcome outcome, String run) {
        if (outcome.report().checkedOnly()) {
            return run + (outcome.report().hasHeld() ? "     # delivers what is clear and hands out the rest" : "");
        }
        if (outcome.report().beyondPilot().documents() > 0) {
            return run + "     # the rest, once the pilot is found right";
        }
        if (outcome.report().hasHeld()) {
            return run + "     # once the held rows are corrected";
        }
        return "mivrel status     # where each account stands";
    }

    /** Answers the exit status; {@code sheet} is what the next command is called with. */
    static int outcome(Outcome outcome, boolean json, RunSheetArgument sheet, PrintWriter out) {
        out.print(json ? outcome.json() : outcome.summary(Screen.style()));
        if (!json) {
            out.println("\n  next: "
                    + next(outcome, "mivrel run " + Shell.quoted(sheet.path().toString()) + sheet.words()));
        }
        out.flush();
        return outcome.status();
    }
}
