package io.mivrel.cli;

import io.mivrel.DropFolder;
import io.mivrel.Mivrel;
import io.mivrel.text.Printable;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel watch}: the drop folder. */
@Command(
        name = "watch",
        mixinStandardHelpOptions = true,
        header = "Watches a drop folder: runs each file that arrives, and files it away.",
        description = {
            "",
            "A file that has arrived whole is run by the run sheet whose layout fits it, by form and by the number of the"
                    + " bank account, and moved to done/ or held/ with the date. One that no layout fits, or more than"
                    + " one, waits, and it is said so. What is held is run again when its corrections come home."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel watch foundry/drop                   run sheets are those of the folder foundry",
            "  mivrel watch /srv/in --company foundry      a drop folder elsewhere, on the same disk",
            "  mivrel watch foundry/drop --once            look once, for a job that is run by the clock",
            "",
            "One process at a time. Stop it when you like, even in the middle: nothing is lost or taken twice.",
            "",
            "Exit status: 0 stopped, 2 the command is wrong, 3 a file failed, or another process watches."
        })
final class WatchCommand implements Callable<Integer> {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);

    @Parameters(paramLabel = "FOLDER", description = "the drop folder; it is made when it is missing")
    private Path drop;

    @Option(
            names = "--company",
            paramLabel = "FOLDER",
            description = "the folder of the run sheets, if not the one above")
    private Path company;

    @Option(
            names = "--settle",
            paramLabel = "SECONDS",
            defaultValue = "3",
            description = "a file that has not changed for so long has arrived whole (${DEFAULT-VALUE})")
    private int settle;

    @Option(names = "--once", description = "look once, and end")
    private boolean once;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (settle < 0 || settle > 3600) {
            throw new ParameterException(spec.commandLine(), "--settle is from 0 to 3600 seconds, not " + settle);
        }
        Mivrel.prepare();
        PrintWriter out = spec.commandLine().getOut();
        Path above = drop.toAbsolutePath().normalize().getParent();
        try (DropFolder folder = DropFolder.open(
                drop, company == null && above != null ? above : company, Duration.ofSeconds(settle), line -> {
                    out.println(TIME.format(LocalDateTime.now()) + "  " + Printable.of(line));
                    out.flush();
                })) {
            folder.look();
            while (!once || folder.isArriving()) {
                Thread.sleep(Math.max(200, Math.min(2000, settle * 500L)));
                folder.look();
            }
            return 0;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return 0;
        }
    }
}
