package io.mivrel;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.files.CorrectionFiles;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsFiles;
import io.mivrel.ledger.DeliveredRuns;
import io.mivrel.ledger.DeliveredRuns.AccountDays;
import io.mivrel.ledger.DeliveredRuns.DeliveredRun;
import io.mivrel.ledger.DeliveredRuns.TakenBack;
import io.mivrel.ledger.Register;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.model.Rule;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A company's folder as a whole: its run sheets, what it delivered, and where each of its accounts stands. Looks only, but
 * for {@link #takeBack}.
 */
public final class Company {
    private final Path folder;

    private Company(Path folder) {
        this.folder = folder;
    }

    /** The folder, or the one that a run sheet lies in. */
    public static Company in(Path folderOrRunSheet) {
        Path path = folderOrRunSheet.toAbsolutePath().normalize();
        Path parent = path.getParent();
        return new Company(Files.isRegularFile(path) && parent != null ? parent : path);
    }

    public Path folder() {
        return folder;
    }

    /** Its run sheets, by name. */
    public List<Path> runSheets() throws IOException {
        try (Stream<Path> inside = Files.list(folder)) {
            return inside.filter(file -> file.toString().endsWith(".yaml"))
                    .filter(file -> SettingsFiles.kind(file).orElse("").equals("run"))
                    .sorted()
                    .toList();
        }
    }

    /**
     * Where one account stands.
     *
     * @param code of the account
     * @param name in the chart; empty when no run sheet's books have it any more
     * @param from first day that was delivered
     * @param to last day
     * @param closing balance at that day in minor units; {@code null} when its file states none
     * @param missing months between the first and the last without a day that was delivered
     */
    public record AccountStatus(
            String code,
            String name,
            AccountDays from,
            AccountDays to,
            @Nullable Long closing,
            String currency,
            List<YearMonth> missing) {}

    /**
     * Where one run sheet stands.
     *
     * @param sheet its file's name
     * @param month that was looked at; {@code null} when the run sheet names its dates
     * @param held documents that are held now
     * @param waiting documents that are clear and were not delivered
     * @param transfers ends of transfers whose other end has not come, in words
     * @param trouble what keeps it from being run; empty for nothing
     */
    public record SheetStatus(
            String sheet, @Nullable YearMonth month, long held, long waiting, List<String> transfers, String trouble) {}

    /** All of it; {@code copies} are workbooks and copies of held rows that lie there to be corrected. */
    public record CompanyStatus(
            String company, List<AccountStatus> accounts, List<SheetStatus> sheets, int copies, List<Path> dropped) {
        /** True when something is held, waits or is missing. */
        public boolean isOpen() {
            return !dropped.isEmpty()
                    || sheets.stream()
                            .anyMatch(s -> s.held() > 0
                                    || s.waiting() > 0
                                    || !s.transfers().isEmpty()
                                    || !s.trouble().isEmpty())
                    || accounts.stream().anyMatch(a -> !a.missing().isEmpty());
        }
    }

    /** Looks at the register, and checks each run sheet for the latest month of its files. */
    public CompanyStatus status() throws IOException, SettingsException {
        List<SheetStatus> sheets = new ArrayList<>();
        Map<String, Books> companies = new LinkedHashMap<>();
        for (Path sheet : runSheets()) {
            sheets.add(status(sheet, companies));
        }
        List<AccountStatus> accounts = new ArrayList<>();
        RegisterPlace place = register();
        for (Map.Entry<String, Books> company : companies.entrySet()) {
            if (Register.exists(place)) {
                accounts.addAll(accounts(DeliveredRuns.days(place, company.getKey()), company.getValue()));
            }
        }
        return new CompanyStatus(
                String.join(", ", companies.keySet()),
                accounts,
                sheets,
                CorrectionFiles.in(folder.resolve(Mivrel.CORRECTIONS)).size(),
                DropFolder.waiting(folder.resolve(DropFolder.NAME)));
    }

    private static SheetStatus status(Path sheet, Map<String, Books> companies) throws IOException {
        String name = sheet.getFileName().toString();
        try {
            RunSheet read = RunSheet.read(sheet);
            companies.put(read.books().company(), read.books());
            YearMonth month = null;
            if (read.monthly()) {
                List<YearMonth> months = Mivrel.monthsOf(sheet);
                month = months.isEmpty() ? null : months.get(months.size() - 1);
            }
            Outcome outcome = (month == null ? Mivrel.open(sheet) : Mivrel.open(sheet, month)).check();
            return new SheetStatus(
                    name,
                    month,
                    outcome.report().held().documents(),
                    outcome.report().clear().documents(),
                    outcome.findings().stream()
                            .filter(found -> found.rule() == Rule.TRANSFER_OPEN)
                            .map(found -> found.value() + " in " + found.origin() + " " + found.reason())
                            .toList(),
                    changedForm(sheet, outcome));
        } catch (SettingsException e) {
            return new SheetStatus(
                    name, null, 0, 0, List.of(), e.problems().get(0).toString().strip());
        } catch (IOException e) {
            return new SheetStatus(name, null, 0, 0, List.of(), String.valueOf(e.getMessage()));
        }
    }

    // A file that the layout cannot read any more, and what helps; empty for none.
    private static String changedForm(Path sheet, Outcome outcome) {
        Path parent = sheet.getParent();
        Path folder = parent == null ? Path.of("") : parent;
        return outcome.findings().stream()
                .filter(found -> found.rule() == Rule.COLUMN_MISSING)
                .map(found -> folder.resolve(found.origin().file()))
                .filter(Files::isRegularFile)
                .findFirst()
                .map(file -> "the form of " + file.getFileName()
                        + " has changed, so no run has read it; this makes a layout for it: mivrel start '" + file + "'"
                        + (folder.toString().isEmpty() ? "" : " --in '" + folder + "'"))
                .orElse("");
    }

    private static List<AccountStatus> accounts(List<AccountDays> days, Books books) {
        Map<String, List<AccountDays>> byAccount = new LinkedHashMap<>();
        days.forEach(d ->
                byAccount.computeIfAbsent(d.account(), a -> new ArrayList<>()).add(d));
        List<AccountStatus> all = new ArrayList<>();
        byAccount.forEach((code, spans) -> {
            AccountDays last = spans.get(spans.size() - 1);
            AccountDays first =
                    spans.stream().min(Comparator.comparing(AccountDays::from)).orElse(last);
            List<YearMonth> missing = new ArrayList<>();
            for (YearMonth month = YearMonth.from(first.from());
                    !month.isAfter(YearMonth.from(last.to()));
                    month = month.plusMonths(1)) {
                YearMonth one = month;
                boolean covered = spans.stream()
                        .anyMatch(s -> !s.from().isAfter(one.atEndOfMonth()) && !s.to().isBefore(one.atDay(1)));
                if (!covered) {
                    missing.add(month);
                }
            }
            Account account = books.account(code);
            all.add(new AccountStatus(
                    code,
                    account == null ? "" : account.name(),
                    first,
                    last,
                    last.closing(),
                    last.currency(),
                    missing));
        });
        return all;
    }

    /** What its runs delivered, the earliest first; {@code company} is the name in the books of a run sheet. */
    public List<DeliveredRun> deliveries(String company) throws IOException {
        RegisterPlace place = register();
        return Register.exists(place) ? DeliveredRuns.of(place, company) : List.of();
    }

    /**
     * Takes the deliveries of a run back, so that its documents go out again with the next run. The files that it wrote stay
     * where they are. Throws when there is no such run, or it was taken back before.
     */
    public void takeBack(String company, long run, TakenBack said) throws IOException {
        RegisterPlace place = register();
        if (!Register.exists(place)) {
            throw new IOException("nothing was delivered yet");
        }
        DeliveredRuns.takeBack(place, company, run, said);
    }

    private RegisterPlace register() {
        return Mivrel.registerOf(folder);
    }
}
