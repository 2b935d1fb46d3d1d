package io.mivrel.cli;

import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.Proof;
import io.mivrel.report.PostingJson;
import io.mivrel.report.ProofText;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel prove}: the arithmetic, asked of the ledger. */
@Command(
        name = "prove",
        mixinStandardHelpOptions = true,
        header = "Proves by arithmetic that what was posted is in the ledger, once and as it was sent.",
        description = {
            "",
            "Asks the ledger, account by account: what stood there before, what the batch added, what others added since,"
                    + " and what stands there now. Compares the statements' closing balances with the bank accounts, and"
                    + " lists clearing and suspense accounts that are not nil."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel prove bank.yaml --in practice",
            "  mivrel prove bank.yaml --in practice --batch \"March bank, 2027-04-02\" --json",
            "",
            "Exit status: 0 all is proved, 1 there is a difference, 2 settings wrong, 3 a file or the ledger failed."
        })
final class ProveCommand implements Callable<Integer> {
    @Parameters(paramLabel = "RUNSHEET", description = "the run sheet that was posted")
    private Path runSheet;

    @Option(names = "--in", paramLabel = "LEDGER", required = true, description = "the ledger")
    private String in;

    @Option(names = "--batch", paramLabel = "NAME", description = "only this batch")
    private String batch;

    @Option(names = "--json", description = "print the proof as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        Mivrel run = Mivrel.open(runSheet);
        LedgerSettings settings = LedgerSettings.read(in, LedgerFinder.folder(runSheet));
        try (Ledger ledger = Ledgers.open(settings, run.company())) {
            List<Proof> proofs = run.postTo(ledger).prove(batch);
            var out = spec.commandLine().getOut();
            if (json) {
                out.print(PostingJson.of(proofs, ledger.name(), run.company()));
            } else {
                proofs.forEach(proof -> out.print(ProofText.of(proof, ledger.name(), run.company(), Screen.style())));
            }
            return proofs.stream().allMatch(Proof::holds) ? 0 : 1;
        }
    }
}
