package io.mivrel.cli;

import io.mivrel.LedgerPosting;
import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.PostOutcome;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsProblem;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostMode;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel post}: from clear documents to entries in a ledger. */
@Command(
        name = "post",
        mixinStandardHelpOptions = true,
        header = "Posts the clear documents of a run to a ledger, each exactly once, and proves it.",
        description = {
            "",
            "Reads and checks as a run does, asks the ledger for its books, and sends what is clear in one batch. What the"
                    + " ledger refuses is held next to its row; what was posted is not sent again. When an answer is lost,"
                    + " the ledger is asked what it has."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel post bank.yaml --to practice --dry-run     what would the ledger say?",
            "  mivrel post bank.yaml --to practice --first 3     a pilot of three documents, as drafts",
            "  mivrel post bank.yaml --to practice               the rest, as drafts",
            "  mivrel post bank.yaml --to practice --make-final  the drafts of the last batch, for good",
            "",
            "LEDGER is a settings file, or its name in ledgers/ beside the run sheet. Secrets come from the environment.",
            "See also: mivrel help withdraw, prove, status.",
            "",
            "Exit status: 0 all posted and proved, 1 something is held or refused, 2 settings wrong, 3 a file or the",
            "ledger failed: what was posted until then is noted, and the same command goes on from there."
        })
final class PostCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--to", paramLabel = "LEDGER", required = true, description = "the ledger")
    private String to;

    @Option(names = "--final", description = "post for good, rather than as drafts")
    private boolean asFinal;

    @Option(
            names = "--mode",
            paramLabel = "MODE",
            description =
                    "what becomes of documents that are there already: add (the default), replace, add-or-replace,"
                            + " skip-existing")
    private String mode = "add";

    @Option(names = "--first", paramLabel = "N", description = "send at most N documents, as a pilot")
    private Long first;

    @Option(names = "--dry-run", description = "ask the ledger what it would answer, and post nothing")
    private boolean dryRun;

    @Option(names = "--create-parties", description = "create customers and suppliers that the ledger lacks")
    private boolean createParties;

    @Option(names = "--name", paramLabel = "NAME", description = "what the batch is called")
    private String name;

    @Option(names = "--date", paramLabel = "DATE", description = "the date that the batch bears; today by default")
    private LocalDate date;

    @Option(
            names = "--make-final",
            arity = "0..1",
            fallbackValue = "",
            paramLabel = "BATCH",
            description = "send nothing; make the drafts of the last batch, or of this one, final")
    private String makeFinal;

    @Option(names = "--json", description = "print the outcome as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        if (first != null && first < 1) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(), "--first takes a whole number from 1 on, not " + first);
        }
        PostMode how = mode();
        Mivrel run = runSheet.open();
        LedgerSettings settings = LedgerSettings.read(to, runSheet.folder());
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr());
                Ledger ledger = Ledgers.open(settings, run.company())) {
            LedgerPosting posting = run.progress(counter)
                    .postTo(ledger)
                    .mode(how)
                    .called(name)
                    .dated(date)
                    .listener(counter::posted)
                    .waiting(counter::waits);
            if (makeFinal != null) {
                return makeFinal(posting, counter);
            }
            if (asFinal) {
                posting.asFinal();
            }
            if (settings.holdsDelivered()) {
                posting.holdDelivered();
            }
            if (createParties) {
                posting.createParties();
            }
            if (first != null) {
                posting.first(first);
            }
            List<String> gaps = posting.gaps();
            if (!gaps.isEmpty()) {
                throw new SettingsException(gaps.stream()
                        .map(gap -> new SettingsProblem(runSheet.path().toString(), 0, 0, gap, ""))
                        .toList());
            }
            PostOutcome outcome = dryRun ? posting.rehearse() : posting.post();
            counter.close();
            spec.commandLine().getOut().print(json ? outcome.json() : outcome.summary(Screen.style()));
            return outcome.status();
        }
    }

    private PostMode mode() {
        try {
            return PostMode.of(
                    mode.replace('-', ' ').replace("add only", "add").equals("add")
                            ? PostMode.ADD.words()
                            : mode.replace('-', ' '));
        } catch (IllegalArgumentException e) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(),
                    "--mode is one of add, replace, add-or-replace, skip-existing, not '" + mode + "'");
        }
    }

    private int makeFinal(LedgerPosting posting, Screen.Counter counter) throws Exception {
        LedgerPosting.MadeFinal done = posting.makeFinal(makeFinal.isEmpty() ? null : makeFinal);
        counter.close();
        var out = spec.commandLine().getOut();
        out.println();
        out.println("  final     \"" + done.batch().batch().name() + "\""
                + (done.refused().isEmpty()
                        ? ": all its entries are posted for good"
                        : ": " + done.refused().size() + " entries stay drafts"));
        for (Answer answer : done.refused()) {
            out.println("    " + answer.key() + ": the ledger says " + answer.code() + " " + answer.words());
        }
        done.drafts()
                .forEach((batch, count) -> out.println("  drafts    " + count + (count == 1 ? " is" : " are")
                        + " left in \"" + batch + "\"; to make them final: --make-final \"" + batch + "\""));
        return done.refused().isEmpty() ? 0 : 1;
    }
}
