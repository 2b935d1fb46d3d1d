package io.mivrel.cli;

import io.mivrel.NoBatchException;
import io.mivrel.delivery.DeliveryMismatchException;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.posting.LedgerException;
import io.mivrel.report.OutcomeJson;
import io.mivrel.text.Printable;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import picocli.CommandLine;

/** Puts what went wrong into one plain line, and into an exit status; never a stack trace, unless it is asked for. */
final class Failures implements CommandLine.IExecutionExceptionHandler {
    static final int SETTINGS_WRONG = 2;
    static final int FAILED = 3;

    private static final int MOST_SHOWN = 50;

    @Override
    public int handleExecutionException(Exception e, CommandLine command, CommandLine.ParseResult parsed) {
        PrintWriter err = command.getErr();
        if (System.getenv("MIVREL_TRACE") != null) {
            e.printStackTrace(err);
        }
        if (e instanceof SettingsException wrong) {
            if (asksForJson(parsed)) {
                command.getOut()
                        .print(OutcomeJson.ofProblems(wrong.problems().stream()
                                .map(p -> new OutcomeJson.Problem(
                                        p.file(), p.line(), p.column(), p.message(), p.suggestion()))
                                .toList()));
                command.getOut().flush();
                return SETTINGS_WRONG;
            }
            int count = wrong.problems().size();
            err.println("mivrel: the settings are wrong in " + count + (count == 1 ? " place" : " places")
                    + "; nothing was read\n");
            wrong.problems().stream()
                    .limit(MOST_SHOWN)
                    .forEach(problem -> Screen.wrapped("  " + problem, "      ").forEach(err::println));
            if (count > MOST_SHOWN) {
                err.println("  and " + (count - MOST_SHOWN) + " more");
            }
            return SETTINGS_WRONG;
        }
        err.println("mivrel: " + Printable.of(words(e)));
        if (e instanceof NoBatchException none) {
            none.batches().forEach(batch -> err.println("  " + Printable.of(batch)));
        }
        return FAILED;
    }

    private static boolean asksForJson(CommandLine.ParseResult parsed) {
        CommandLine.ParseResult last = parsed;
        while (last.hasSubcommand()) {
            last = last.subcommand();
        }
        return last.hasMatchedOption("--json");
    }

    /** Of what nobody foresaw, in one line. */
    static String fault(Throwable fault) {
        return "this is a fault of Mivrel (" + fault.getClass().getSimpleName() + ": "
                + Printable.of(String.valueOf(fault.getMessage()))
                + "); nothing was delivered. Set MIVREL_TRACE=1 to see where";
    }

    private static String words(Exception e) {
        if (e instanceof NoSuchFileException) {
            return e.getMessage() + ": there is no such file";
        }
        if (e instanceof AccessDeniedException) {
            return e.getMessage() + ": permission denied";
        }
        if (e instanceof FileSystemException failed) {
            return failed.getFile() + ": " + (failed.getReason() == null ? "cannot be used" : failed.getReason());
        }
        if (e instanceof LedgerException failed && failed.kind() != LedgerException.Kind.REFUSED) {
            return e.getMessage() + "; what was posted until then is noted, and the same command goes on from there";
        }
        if (e instanceof IOException || e instanceof DeliveryMismatchException) {
            return e.getMessage() == null ? "a file failed" : e.getMessage();
        }
        if (e instanceof ArithmeticException) {
            return "the sums grow beyond what can be calculated exactly; nothing was delivered";
        }
        return fault(e);
    }
}
