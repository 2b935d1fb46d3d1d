package io.mivrel.cli;

import io.mivrel.LedgerPosting;
import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.PostOutcome;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.Proof;
import io.mivrel.report.ProofText;
import io.mivrel.report.SummaryText;
import io.mivrel.report.WithdrawalText;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;

/**
 * The end of the demo's story: the books are opened with their balances, March is posted as drafts, what is refused or held is
 * corrected, a batch comes out again, and the rest is proved.
 */
final class DemoPosting {
    /** The parties that the accountant forgot, by the text of their line. */
    private static final Map<String, String> PARTIES = Map.of(
            "\"Retention billed, tower 20\",\"1,250.00\",,,", "\"Retention billed, tower 20\",\"1,250.00\",,CUS-001,",
            "\"Credit for cracked ingots, settled by phone\",94.60,,,",
                    "\"Credit for cracked ingots, settled by phone\",94.60,,SUP-004,",
            "\"Old debt given up, Torrow\",,186.20,,", "\"Old debt given up, Torrow\",,186.20,CUS-002,");

    private static final Map<String, String> DATES = Map.of(
            "Tue 15/03/2027,Direct debit,VAN FINANCE HOLT", "Mon 15/03/2027,Direct debit,VAN FINANCE HOLT",
            "Mon 32/03/2027,Transfer,HINDLE TOWN HALL", "Mon 22/03/2027,Transfer,HINDLE TOWN HALL");

    private static final String CODINGS = """
            kestrel,out,z kestrel,,,6130,,,
            misc,in,ref 8841 misc,,,4070,,,
            arden,out,j arden,,,6320,,,
            cheque 100874,out,cheque,450.00,450.00,6620,,,
            cash torrow,in,cash paid in torrow,,,4030,,,
            """;

    private final Path folder;
    private final PrintWriter out;
    private final SummaryText.Style style = Screen.style();

    DemoPosting(Path folder, PrintWriter out) {
        this.folder = folder;
        this.out = out;
    }

    void play() throws Exception {
        LedgerSettings settings = LedgerSettings.read("practice", folder);
        say("practice open", "ledgers/practice.yaml", "--books books");
        try (Ledger ledger = Ledgers.openOrCreate(settings, BooksFolder.read(folder.resolve("books")))) {
            out.println("\n  " + ledger.name() + " is open, and empty");
            out.print(post(ledger, "opening.yaml").figures(style));
            PostOutcome refused = post(ledger, "adjustments.yaml");
            out.print(refused.summary(style));
            correct();
            out.print(post(ledger, "adjustments.yaml").figures(style));
            out.print(post(ledger, "bank.yaml").figures(style));
            out.print(post(ledger, "invoices.yaml").figures(style));
            say("withdraw", "invoices.yaml", "--from practice");
            LedgerPosting.Withdrawn back = posting(ledger, "invoices.yaml").withdraw(null, List.of());
            out.print(WithdrawalText.of(back.withdrawal(), back.proof(), ledger.name(), company(), style));
            correctBank();
            out.print(post(ledger, "bank.yaml").figures(style));
            say("post", "bank.yaml", "--to practice --make-final");
            makeFinal(posting(ledger, "bank.yaml").makeFinal(null));
            say("post", "bank.yaml", "--to practice --make-final \"March bank, 2027-03-31\"");
            makeFinal(posting(ledger, "bank.yaml").makeFinal("March bank, 2027-03-31"));
            say("prove", "bank.yaml", "--in practice");
            for (Proof proof : posting(ledger, "bank.yaml").prove(null)) {
                out.print(ProofText.of(proof, ledger.name(), company(), style));
            }
        }
    }

    private String company() throws Exception {
        return Mivrel.open(folder.resolve("bank.yaml")).company();
    }

    private PostOutcome post(Ledger ledger, String sheet) throws Exception {
        say("post", sheet, "--to practice");
        return posting(ledger, sheet).post();
    }

    // The practice ledger's March is open; today's period may not be.
    private LedgerPosting posting(Ledger ledger, String sheet) throws Exception {
        return Mivrel.open(folder.resolve(sheet)).postTo(ledger).dated(LocalDate.of(2027, 3, 31));
    }

    private void correct() throws Exception {
        Path inbox = folder.resolve("inbox").resolve("adjustments-2027-03.csv");
        String text = Files.readString(inbox);
        for (Map.Entry<String, String> party : PARTIES.entrySet()) {
            text = text.replace(party.getKey(), party.getValue());
        }
        Files.writeString(inbox, text);
        out.println("\n  The demo now names the three parties in " + inbox + ", as a person would.");
    }

    // Two dates as the suggestions have them, and accounts for what no entry of the coding table knew.
    private void correctBank() throws Exception {
        Path inbox = folder.resolve("inbox").resolve("current-2027-03.csv");
        String text = Files.readString(inbox, StandardCharsets.ISO_8859_1);
        for (Map.Entry<String, String> date : DATES.entrySet()) {
            text = text.replace(date.getKey(), date.getValue());
        }
        Files.writeString(inbox, text, StandardCharsets.ISO_8859_1);
        Path coding = folder.resolve("coding").resolve("everyday.csv");
        Files.writeString(coding, CODINGS, StandardOpenOption.APPEND);
        out.println(
                "\n  The demo now corrects the two dates that could not be, and names accounts for the five lines that no"
                        + " entry\n  of the coding table knew, in " + inbox + "\n  and " + coding
                        + ", as a person would.");
    }

    private void makeFinal(LedgerPosting.MadeFinal done) {
        out.println("\n  final     \"" + done.batch().batch().name() + "\": all its entries are posted for good");
        done.drafts().forEach((batch, count) -> out.println("  drafts    " + count + " are left in \"" + batch + "\""));
    }

    private void say(String command, String file, String more) {
        out.println();
        out.println("$ mivrel " + command + " " + DemoCommand.typed(folder.resolve(file)) + " " + more);
        out.flush();
    }
}
