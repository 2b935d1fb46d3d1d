package io.mivrel.cli;

import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.ExportProof;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.Proof;
import io.mivrel.report.PostingJson;
import io.mivrel.report.ProofText;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
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
            "  mivrel prove ledger.yaml --before tb-1.csv --after tb-2.csv --layout layouts/trial-balance.yaml",
            "  mivrel prove ledger.yaml --entries entries.csv --layout layouts/entries.yaml",
            "  mivrel prove bank.yaml --in practice --batch \"March bank, 2027-04-02\" --json",
            "",
            "Exit status: 0 all is proved, 1 there is a difference, 2 settings wrong, 3 a file or the ledger failed."
        })
final class ProveCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--in", paramLabel = "LEDGER", description = "the ledger")
    private String in;

    @Option(names = "--batch", paramLabel = "NAME", description = "only this batch")
    private String batch;

    @Option(names = "--before", paramLabel = "FILE", description = "without a ledger: its trial balance before")
    private Path before;

    @Option(names = "--after", paramLabel = "FILE", description = "and its trial balance after")
    private Path after;

    @Option(names = "--entries", paramLabel = "FILE", description = "or its list of entries")
    private Path entries;

    @Option(names = "--layout", paramLabel = "LAYOUT", description = "how these are laid out; it gives journal lines")
    private Path layout;

    @Option(names = "--json", description = "print the proof as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        Mivrel run = runSheet.open();
        boolean balances = before != null && after != null && entries == null;
        boolean list = entries != null && before == null && after == null;
        if (in == null && layout != null && (balances || list)) {
            ExportProof proof = list ? run.proveByEntries(entries, layout) : run.proveByBalances(before, after, layout);
            spec.commandLine().getOut().print(ProofText.of(proof, run.company(), Screen.style()));
            return proof.holds() ? 0 : 1;
        }
        if (in == null || before != null || after != null || entries != null) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(),
                    "prove takes --in LEDGER; or --before, --after and --layout; or --entries and --layout");
        }
        LedgerSettings settings = LedgerSettings.read(in, runSheet.folder());
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr());
                Ledger ledger = Ledgers.open(settings, run.company())) {
            List<Proof> proofs = run.postTo(ledger).waiting(counter::waits).prove(batch);
            counter.close();
            var out = spec.commandLine().getOut();
            if (json) {
                out.print(PostingJson.of(proofs, ledger.name(), run.company()));
            } else {
                proofs.forEach(proof -> out.print(ProofText.of(proof, ledger.name(), run.company(), Screen.style())));
            }
            return proofs.stream().allMatch(Proof::agrees) ? 0 : 1;
        }
    }
}
