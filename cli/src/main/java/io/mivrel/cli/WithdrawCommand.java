package io.mivrel.cli;

import io.mivrel.LedgerPosting;
import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Ledger;
import io.mivrel.report.WithdrawalText;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** {@code mivrel withdraw}: takes a batch back. */
@Command(
        name = "withdraw",
        mixinStandardHelpOptions = true,
        header = "Takes back a posted batch, or some documents of it, and shows that the balances are as before.",
        description = {
            "",
            "Drafts are removed; final entries are reversed on a date. What something in the ledger rests upon, such as a"
                    + " payment, is refused and stays. What was withdrawn can be posted again, in a new batch."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel withdraw bank.yaml --from practice                        the last batch of this run sheet",
            "  mivrel withdraw bank.yaml --from practice --batch \"March bank, 2027-04-02\"",
            "  mivrel withdraw ledger.yaml --from practice --documents TR-061,TR-062 --date 2027-04-05",
            "",
            "Exit status: 0 all taken back and proved, 1 something stays, 2 settings wrong, 3 a file or the ledger failed."
        })
final class WithdrawCommand implements Callable<Integer> {
    @Mixin
    private RunSheetArgument runSheet;

    @Option(names = "--from", paramLabel = "LEDGER", required = true, description = "the ledger")
    private String from;

    @Option(names = "--batch", paramLabel = "NAME", description = "the batch; the last one of the run sheet by default")
    private String batch;

    @Option(
            names = "--documents",
            paramLabel = "NUMBER",
            split = ",",
            description = "only these documents, by number or key")
    private List<String> documents = List.of();

    @Option(names = "--date", paramLabel = "DATE", description = "date of the reversing entries; today by default")
    private LocalDate date;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        Mivrel run = runSheet.open();
        LedgerSettings settings = LedgerSettings.read(from, runSheet.folder());
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr());
                Ledger ledger = Ledgers.open(settings, run.company())) {
            LedgerPosting.Withdrawn done =
                    run.postTo(ledger).dated(date).waiting(counter::waits).withdraw(batch, documents);
            counter.close();
            spec.commandLine()
                    .getOut()
                    .print(WithdrawalText.of(
                            done.withdrawal(), done.proof(), ledger.name(), run.company(), Screen.style()));
            return done.withdrawal().refused().isEmpty()
                            && done.withdrawal().notPosted().isEmpty()
                            && done.proof().holds()
                    ? 0
                    : 1;
        }
    }
}
