package io.mivrel.cli;

import io.mivrel.Mivrel;
import io.mivrel.text.Nearest;
import io.mivrel.text.Printable;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.IVersionProvider;

/** The command as a whole. */
@Command(
        name = "mivrel",
        versionProvider = Main.Version.class,
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "COMMAND",
        optionListHeading = "%n",
        commandListHeading = "%nCommands:%n",
        description = {
            "",
            "Turns ledgers, bank statements and invoice lists into import files, checks them before anything is"
                    + " posted, and proves by arithmetic that nothing was lost, doubled, flipped or rounded."
        },
        footer = {
            "",
            "Begin here:",
            "  mivrel demo                 unpack a small company and see the whole way",
            "  mivrel start FILE           from a raw file, with a few answers, to a folder that works",
            "  mivrel check bank.yaml      find everything that is wrong, write nothing",
            "  mivrel run bank.yaml --for 2027-04     deliver what is clear, hold the rest",
            "  mivrel post bank.yaml --to practice    or post it to a ledger, and prove it",
            "  mivrel status               where each account stands",
            "  mivrel help run             more about one command; mivrel help shelf: ready deliveries",
            "",
            "Exit status: 0 all clear, 1 something is held or no row is a document, 2 the command or its settings",
            "are wrong, 3 a file or service failed. Colour only on a terminal, and never with NO_COLOR set."
        })
public final class Main {
    private static final Map<String, Class<?>> COMMANDS = new LinkedHashMap<>();

    static {
        COMMANDS.put("demo", DemoCommand.class);
        COMMANDS.put("start", StartCommand.class);
        COMMANDS.put("survey", SurveyCommand.class);
        COMMANDS.put("check", CheckCommand.class);
        COMMANDS.put("run", RunCommand.class);
        COMMANDS.put("post", PostCommand.class);
        COMMANDS.put("withdraw", WithdrawCommand.class);
        COMMANDS.put("prove", ProveCommand.class);
        COMMANDS.put("watch", WatchCommand.class);
        COMMANDS.put("undo", UndoCommand.class);
        COMMANDS.put("status", StatusCommand.class);
        COMMANDS.put("practice", PracticeCommand.class);
        COMMANDS.put("coding", CodingCommand.class);
        COMMANDS.put("shelf", ShelfCommand.class);
        COMMANDS.put("man", ManCommand.class);
        COMMANDS.put("help", CommandLine.HelpCommand.class);
    }

    private Main() {}

    /** Runs the command and ends the process with its status. */
    public static void main(String[] args) {
        PrintWriter out = new PrintWriter(System.out, false, StandardCharsets.UTF_8);
        PrintWriter err = new PrintWriter(System.err, true, StandardCharsets.UTF_8);
        int status;
        try {
            status = execute(out, err, args);
        } catch (OutOfMemoryError tooLittle) {
            err.println(
                    "mivrel: there is not enough memory to go on. What was done until then is noted: see 'mivrel status'."
                            + " Give it more, such as MIVREL_JAVA_OPTIONS=-Xmx1g, and give the same command again");
            status = Failures.FAILED;
        } catch (Throwable fault) {
            err.println("mivrel: " + Failures.fault(fault));
            status = Failures.FAILED;
        }
        out.flush();
        System.exit(status);
    }

    /** Runs the command with the given streams and answers its status; for tests and embedding. */
    public static int execute(PrintWriter out, PrintWriter err, String... words) {
        // What is on the shelf is best told by showing it.
        String[] args = List.of(words).equals(List.of("help", "shelf")) ? new String[] {"shelf"} : words;
        CommandLine command = new CommandLine(new Main());
        // To make all commands takes longer than many a run, so where one is called the others are not made.
        Class<?> called = args.length == 0 ? null : COMMANDS.get(args[0]);
        boolean one = called != null && called != CommandLine.HelpCommand.class;
        (one ? List.of(called) : COMMANDS.values()).forEach(command::addSubcommand);
        command.setOut(out);
        command.setErr(err);
        command.setUsageHelpWidth(100);
        command.setExecutionExceptionHandler(new Failures());
        command.setParameterExceptionHandler(Main::wrongUse);
        command.setExecutionStrategy(Main::execute);
        int status = command.execute(args);
        out.flush();
        err.flush();
        return status;
    }

    /** The command with all its commands, for its manual. */
    static CommandLine whole() {
        CommandLine command = new CommandLine(new Main());
        COMMANDS.values().forEach(command::addSubcommand);
        return command;
    }

    // What is wrong, how it is called, and where to read more; not the whole help.
    private static int wrongUse(CommandLine.ParameterException wrong, String[] args) {
        CommandLine command = wrong.getCommandLine();
        PrintWriter err = command.getErr();
        boolean noCommand = wrong instanceof CommandLine.UnmatchedArgumentException
                && command.getCommandName().equals("mivrel")
                && args.length > 0
                && !args[0].startsWith("-");
        String message = noCommand ? "'" + args[0] + "' is not a command" : String.valueOf(wrong.getMessage());
        err.println("mivrel: " + message.lines().map(Printable::of).collect(Collectors.joining("\n")));
        if (!suggest(command, args, err)) {
            CommandLine.UnmatchedArgumentException.printSuggestions(wrong, err);
        }
        if (wrong instanceof CommandLine.MissingParameterException && message.contains("RUNSHEET")) {
            NextLine.withRunSheets(command.getCommandName(), Path.of("")).forEach(err::println);
        }
        err.print("usage: " + command.getHelp().synopsis(0));
        String name = command.getCommandName();
        if (name.equals("mivrel")) {
            err.println("commands: " + String.join(", ", COMMANDS.keySet()));
        }
        err.println("see: mivrel help" + (name.equals("mivrel") ? "" : " " + name));
        return command.getCommandSpec().exitCodeOnInvalidInput();
    }

    // A command that is spelled wrongly: the line as it may have been meant.
    private static boolean suggest(CommandLine command, String[] args, PrintWriter err) {
        boolean unknown = command.getCommandName().equals("mivrel") && args.length > 0 && !args[0].startsWith("-");
        String near = unknown ? Nearest.one(args[0], COMMANDS.keySet()) : null;
        if (near == null) {
            return false;
        }
        err.println("  did you mean: mivrel " + near
                + Arrays.stream(args)
                        .skip(1)
                        .map(word -> " " + Shell.quoted(word))
                        .collect(Collectors.joining()));
        return true;
    }

    // Without a subcommand the help is the answer, and a wrong use.
    private static int execute(CommandLine.ParseResult parsed) {
        boolean bare = !parsed.hasSubcommand() && !parsed.isUsageHelpRequested() && !parsed.isVersionHelpRequested();
        if (bare) {
            CommandLine command = parsed.commandSpec().commandLine();
            command.usage(command.getErr());
            return 2;
        }
        return new CommandLine.RunLast().execute(parsed);
    }

    static final class Version implements IVersionProvider {
        @Override
        public String[] getVersion() {
            return new String[] {
                "mivrel " + Mivrel.VERSION + " (Java " + Runtime.version().feature() + ")"
            };
        }
    }
}
