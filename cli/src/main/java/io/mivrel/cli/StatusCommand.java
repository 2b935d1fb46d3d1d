package io.mivrel.cli;

import io.mivrel.Company;
import io.mivrel.Company.AccountStatus;
import io.mivrel.Company.CompanyStatus;
import io.mivrel.Company.SheetStatus;
import io.mivrel.LedgerPosting;
import io.mivrel.Ledgers;
import io.mivrel.Mivrel;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.money.Money;
import io.mivrel.posting.Ledger;
import io.mivrel.report.StatusText;
import io.mivrel.text.Printable;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel status}: where each account stands, and each document that was sent to a ledger. */
@Command(
        name = "status",
        mixinStandardHelpOptions = true,
        header =
                "Shows where each account stands: last statement, gaps, what is held, what waits; or what a ledger has.",
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel status                                  the accounts and run sheets of this folder",
            "  mivrel status foundry                          of another one",
            "  mivrel status --in practice                    the batches in a ledger, and what is not posted",
            "  mivrel status --in practice --all              every document",
            "  mivrel status foundry --json                   for a program that looks each morning",
            "",
            "Exit status: 0 nothing is open, 1 something is held, waits, is missing or was not taken by the ledger,",
            "2 settings wrong, 3 a file failed."
        })
final class StatusCommand implements Callable<Integer> {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH);
    private static final DateTimeFormatter MONTH = DateTimeFormatter.ofPattern("MMMM uuuu", Locale.ENGLISH);

    @Parameters(
            paramLabel = "FOLDER",
            arity = "0..1",
            defaultValue = ".",
            description = "the company's folder, or a run sheet of it")
    private Path place;

    @Option(names = "--in", paramLabel = "LEDGER", description = "show what was sent to this ledger")
    private String in;

    @Option(names = "--all", description = "with --in: list every document, not only what is not posted")
    private boolean all;

    @Option(names = "--json", description = "print it as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    private String noRunSheet(Company company) {
        List<Path> below = NextLine.companies(place.normalize());
        return below.isEmpty()
                ? company.folder() + " has no run sheet; to make one: mivrel start FILE"
                : company.folder() + " has no run sheet; folders below have some:"
                        + below.stream()
                                .map(folder -> "\n  mivrel status " + Shell.quoted(folder.toString()))
                                .collect(Collectors.joining());
    }

    @Override
    public Integer call() throws Exception {
        Mivrel.prepare();
        PrintWriter out = spec.commandLine().getOut();
        if (in == null) {
            Company company = Company.in(place);
            if (company.runSheets().isEmpty()) {
                throw new ParameterException(spec.commandLine(), noRunSheet(company));
            }
            CompanyStatus status = company.status();
            if (json) {
                out.print(StatusJson.of(status));
                return status.isOpen() ? 1 : 0;
            }
            return tell(status, Files.isDirectory(place) ? place.normalize() : Path.of(""), out);
        }
        Company company = Company.in(place);
        List<Path> sheets = Files.isDirectory(place) ? company.runSheets() : List.of(place);
        if (sheets.isEmpty()) {
            throw new ParameterException(spec.commandLine(), company.folder() + " has no run sheet");
        }
        Mivrel run = Mivrel.withoutFiles(sheets.get(0));
        LedgerSettings settings = LedgerSettings.read(in, company.folder());
        try (Ledger ledger = Ledgers.open(settings, run.company())) {
            List<LedgerPosting.Status> batches = run.postTo(ledger).status(all);
            StatusText text = new StatusText(ledger.name(), run.company(), Screen.style());
            batches.forEach(one -> text.batch(one.batch(), one.counts(), one.open(), one.documents()));
            int status = text.isOpen() ? 1 : 0;
            if (json) {
                out.print(StatusJson.of(run.company(), ledger.name(), batches, status));
            } else {
                out.print(text.end());
                if (text.isOpen()) {
                    String sheet = Files.isDirectory(place) ? "RUNSHEET" : Shell.quoted(place.toString());
                    out.println("  next: mivrel post " + sheet + " --to " + Shell.quoted(in)
                            + "     # once what is named above is corrected");
                }
            }
            return status;
        }
    }

    private static int tell(CompanyStatus status, Path folder, PrintWriter out) {
        out.println("\n" + Printable.of(status.company()) + "\n");
        for (AccountStatus account : status.accounts()) {
            Currency currency = Currency.getInstance(account.currency());
            out.println("  " + account.code() + " " + Printable.of(account.name()));
            out.println("      delivered  " + DAY.format(account.from().from()) + " to "
                    + DAY.format(account.to().to())
                    + (account.closing() == null
                            ? "   no closing balance is stated"
                            : "   closing " + Money.show(account.closing(), currency) + " " + account.currency()));
            if (!account.missing().isEmpty()) {
                out.println("      missing    "
                        + account.missing().stream().map(MONTH::format).collect(Collectors.joining(", ")));
            }
        }
        if (status.accounts().isEmpty()) {
            out.println("  no bank account was delivered yet");
        }
        out.println();
        int width =
                status.sheets().stream().mapToInt(s -> s.sheet().length()).max().orElse(0);
        for (SheetStatus sheet : status.sheets()) {
            out.println("  " + sheet.sheet() + " ".repeat(width - sheet.sheet().length() + 3) + words(sheet));
            sheet.transfers().forEach(one -> out.println("      transfer   " + Printable.of(one)));
        }
        if (status.copies() > 0) {
            out.println("\n  corrections/ has " + status.copies() + (status.copies() == 1 ? " copy" : " copies")
                    + " of held rows; corrected ones are taken in by the next run");
        }
        status.dropped()
                .forEach(file ->
                        out.println("  drop/" + Printable.of(file.getFileName().toString()) + " waits"));
        status.sheets().stream()
                .filter(s -> s.waiting() > 0 || s.held() > 0)
                .findFirst()
                .ifPresent(s -> out.println("\n  next: mivrel run "
                        + Shell.quoted(folder.resolve(s.sheet()).toString())
                        + (s.month() == null ? "" : " --for " + s.month())));
        return status.isOpen() ? 1 : 0;
    }

    private static String words(SheetStatus sheet) {
        if (!sheet.trouble().isEmpty()) {
            return Printable.of(sheet.trouble().lines().findFirst().orElse("").strip());
        }
        YearMonth month = sheet.month();
        String when = month == null ? "" : MONTH.format(month) + ": ";
        if (sheet.held() == 0 && sheet.waiting() == 0) {
            return when + "all delivered";
        }
        return when + String.format(Locale.ROOT, "%,d held, %,d not delivered yet", sheet.held(), sheet.waiting());
    }
}
