package io.mivrel.cli;

import io.mivrel.delivery.DeliveryMismatchException;
import io.mivrel.files.settings.SettingsException;
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

    @Override
    public int handleExecutionException(Exception e, CommandLine command, CommandLine.ParseResult parsed) {
        PrintWriter err = command.getErr();
        if (System.getenv("MIVREL_TRACE") != null) {
            e.printStackTrace(err);
        }
        if (e instanceof SettingsException wrong) {
            int count = wrong.problems().size();
            err.println("mivrel: the settings are wrong in " + count + (count == 1 ? " place" : " places")
                    + "; nothing was read\n");
            wrong.problems().forEach(problem -> err.println("  " + problem));
            return SETTINGS_WRONG;
        }
        err.println("mivrel: " + words(e));
        return FAILED;
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
        if (e instanceof IOException || e instanceof DeliveryMismatchException) {
            return e.getMessage() == null ? "a file failed" : e.getMessage();
        }
        if (e instanceof ArithmeticException) {
            return "the sums grow beyond what can be calculated exactly; nothing was delivered";
        }
        return "this is a fault of Mivrel (" + e.getClass().getSimpleName() + ": " + e.getMessage()
                + "); nothing was delivered. Set MIVREL_TRACE=1 to see where";
    }
}
