package io.mivrel.cli;

import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.Posting;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Ledger;
import io.mivrel.report.StatusText;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel status}: where each document stands that was sent to a ledger. */
@Command(
        name = "status",
        mixinStandardHelpOptions = true,
        header = "Shows where each document stands that was sent to a ledger: posted, refused, waiting, withdrawn.",
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel status bank.yaml --in practice          the batches, and what is not posted",
            "  mivrel status bank.yaml --in practice --all    every document",
            "",
            "Exit status: 0 nothing is open, 1 something is refused or waiting, 2 settings wrong, 3 a file failed."
        })
final class StatusCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--in", paramLabel = "LEDGER", required = true, description = "the ledger")
    private String in;

    @Option(names = "--all", description = "list every document, not only what is not posted")
    private boolean all;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        Mivrel run = runSheet.open();
        LedgerSettings settings = LedgerSettings.read(in, runSheet.folder());
        try (Ledger ledger = Ledgers.open(settings, run.company())) {
            List<Posting.Status> batches = run.postTo(ledger).status(all);
            StatusText text = new StatusText(ledger.name(), run.company(), Screen.style());
            batches.forEach(one -> text.batch(one.batch(), one.counts(), one.documents()));
            spec.commandLine().getOut().print(text.end());
            return text.isOpen() ? 1 : 0;
        }
    }
}
