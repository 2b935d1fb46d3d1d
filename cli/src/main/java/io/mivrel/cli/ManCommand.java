package io.mivrel.cli;

import io.mivrel.Mivrel;
import java.io.PrintWriter;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel man}: the manual page and the shell completion, made from the commands' own help. */
@Command(
        name = "man",
        mixinStandardHelpOptions = true,
        header = "Prints the manual page, or the completion for a shell.",
        synopsisHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel man > mivrel.1                      the page, for 'man ./mivrel.1'",
            "  mivrel man --completion > mivrel.bash      then 'source mivrel.bash', in bash and zsh"
        })
final class ManCommand implements Callable<Integer> {
    @Option(names = "--completion", description = "print the completion instead")
    private boolean completion;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        CommandLine whole = Main.whole();
        PrintWriter out = spec.commandLine().getOut();
        out.print(completion ? AutoComplete.bash("mivrel", whole) : page(whole));
        out.flush();
        return 0;
    }

    private static String page(CommandLine whole) {
        StringBuilder page = new StringBuilder();
        page.append(".TH MIVREL 1 \"\" \"mivrel ").append(Mivrel.VERSION).append("\" \"User Commands\"\n");
        page.append(".SH NAME\nmivrel \\- raw ledgers and statements to proven import files\n");
        page.append(".SH SYNOPSIS\n.B mivrel\nCOMMAND [OPTIONS]\n");
        page.append(".SH DESCRIPTION\n").append(preformatted(text(whole)));
        page.append(".SH COMMANDS\n");
        for (Map.Entry<String, CommandLine> one : whole.getSubcommands().entrySet()) {
            if (!one.getKey().equals("help")) {
                page.append(".SS mivrel ").append(one.getKey()).append('\n').append(preformatted(text(one.getValue())));
            }
        }
        page.append(".SH ENVIRONMENT\n");
        entry(page, "MIVREL_JAVA_OPTIONS", "More options for Java, such as \\-Xmx1g.");
        entry(
                page,
                "MIVREL_REGISTER_URL",
                "A register on a server, with MIVREL_REGISTER_USER and MIVREL_REGISTER_PASSWORD.");
        entry(page, "MIVREL_LEDGER_USER, MIVREL_LEDGER_PASSWORD, MIVREL_LEDGER_TOKEN", "What a ledger asks for.");
        entry(page, "NO_COLOR", "Anything in it: no colour.");
        entry(page, "MIVREL_TRACE", "Anything in it: where a fault came from.");
        page.append(".SH FILES\n");
        entry(page, "evidence/", "What each run leaves, beside its run sheet.");
        entry(page, "corrections/", "Held rows to correct; taken in by the next run.");
        entry(page, ".mivrel/register.db", "What was delivered.");
        return page.toString();
    }

    private static void entry(StringBuilder page, String term, String words) {
        page.append(".TP\n.B ").append(term).append('\n').append(words).append('\n');
    }

    private static String text(CommandLine command) {
        command.setUsageHelpWidth(78);
        return command.getUsageMessage(Ansi.OFF);
    }

    // Lines as they are; a stroke or a point at the beginning means something to the page's language.
    private static String preformatted(String text) {
        StringBuilder lines = new StringBuilder(".nf\n");
        text.strip().lines().forEach(line -> {
            String plain = line.replace("\\", "\\e").replace("-", "\\-");
            lines.append(plain.startsWith(".") || plain.startsWith("'") ? "\\&" : "")
                    .append(plain)
                    .append('\n');
        });
        return lines.append(".fi\n").toString();
    }
}
