package io.mivrel.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.stream.Stream;

/** What a command answered. */
record CommandOutput(int status, String out, String err) {

    /** Runs the command in this process. */
    static CommandOutput mivrel(Object... args) {
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        String[] words = Stream.of(args).map(Object::toString).toArray(String[]::new);
        int status = Main.execute(new PrintWriter(out), new PrintWriter(err), words);
        return new CommandOutput(status, out.toString(), err.toString());
    }
}
