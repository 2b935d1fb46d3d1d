package io.mivrel.start;

import io.mivrel.FileSurvey;
import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.Books;
import io.mivrel.survey.FileProfile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The books of a company folder: those that stand there, or what is asked to make them. */
final class StartBooks {
    static final String CURRENCY = "currency";
    static final String CHART = "chart";
    static final String TYPES = "types";
    private static final String COMPANY = "company";
    private static final String TAX_ACCOUNT = "tax account";
    private static final int MOST_LIKELY = 15;
    private static final Pattern MONEY = Pattern.compile(
            "(?i)bank|banque|banco|banca|giro|card\\b|karte|carte|current account|checking|sparkasse|kasse");

    private final @Nullable Books books;
    private final Map<String, String> answers;
    private @Nullable ChartExport chart;
    private String chartName = "";
    /** Lines of chart.csv once they are known, where the folder has no books yet. */
    private List<String> chartRows = List.of();

    /** With the books that stand there; {@code null} for none. */
    StartBooks(@Nullable Books books, Map<String, String> answers) {
        this.books = books;
        this.answers = answers;
    }

    /** Those that stand there. */
    @Nullable
    Books there() {
        return books;
    }

    @Nullable
    ChartExport chart() {
        return chart;
    }

    String chartName() {
        return chartName;
    }

    List<String> chartRows() {
        return chartRows;
    }

    /** Takes a chart that another program exported. */
    void use(Path file) throws IOException, WrongAnswerException {
        ChartExport found = ChartExport.of(FileSurvey.of(file));
        if (found == null) {
            throw new WrongAnswerException(
                    file + ": no row has titles for a code and a name of accounts, such as 'Account' and 'Name'");
        }
        use(file, found);
    }

    void use(Path file, ChartExport found) throws IOException {
        if (!found.twice().isEmpty()) {
            throw new IOException(
                    file + ": these account codes stand twice in the chart: " + String.join(", ", found.twice()));
        }
        chart = found;
        chartName = file.getFileName().toString();
        answers.put(CHART, file.toString());
    }

    /** Takes the answer that names a chart. */
    void chart(String text) throws IOException, WrongAnswerException {
        if (!text.equals(CompanySetup.SMALL)) {
            Path file = Path.of(text);
            if (!Files.isRegularFile(file)) {
                throw new WrongAnswerException("'" + text + "' is neither a file nor '" + CompanySetup.SMALL + "'");
            }
            use(file);
        }
    }

    /** Takes the answer that says what the words or codes of the chart mean. */
    void types(String text) throws WrongAnswerException {
        chartRows = Objects.requireNonNull(chart).rows(text);
    }

    /** The next question about books that are to be made; {@code null} when none is open. */
    @Nullable
    StartQuestion open(List<RawFiles> groups) {
        if (books != null) {
            return null;
        }
        if (!answers.containsKey(COMPANY)) {
            return StartQuestion.of(COMPANY, "What is the company called?");
        }
        if (!answers.containsKey(CURRENCY)) {
            String stated = groups.stream()
                    .map(g -> g.survey.survey().facts())
                    .filter(FileProfile::currencyStated)
                    .map(facts -> facts.currency().getCurrencyCode())
                    .findFirst()
                    .orElse(null);
            return StartQuestion.of(CURRENCY, "In which currency are its books kept? (such as GBP, EUR, USD)")
                    .usually(stated);
        }
        if (!answers.containsKey(CHART)) {
            return StartQuestion.of(
                            CHART,
                            "A file with its chart of accounts? Or '" + CompanySetup.SMALL
                                    + "' for the common accounts")
                    .usually(CompanySetup.SMALL);
        }
        if (chart != null && chartRows.isEmpty()) {
            return aboutTypes(chart);
        }
        if (chart == null && chartRows.isEmpty()) {
            chartRows = Shelf.resource("books/chart-common.csv").lines().skip(1).toList();
        }
        return null;
    }

    /** The currency of the books, where it is known. */
    @Nullable
    String currency() {
        return books != null ? books.currency().getCurrencyCode() : answers.get(CURRENCY);
    }

    private @Nullable StartQuestion aboutTypes(ChartExport export) {
        if (export.untyped) {
            return StartQuestion.of(
                    TYPES,
                    "The chart tells no types. Which codes are what? Such as 1000-1999: asset, 2000-2999: liability,"
                            + " 3000-3999: equity, 4000-4999: income, 5000-8999: expense");
        }
        Set<String> unknown = export.unknownTypes();
        if (!unknown.isEmpty()) {
            return StartQuestion.of(
                    TYPES,
                    "What is each of these in the chart: " + String.join(", ", unknown)
                            + "? Write asset, liability, equity, income or expense behind a colon: "
                            + unknown.iterator().next() + ": expense, ...");
        }
        try {
            chartRows = export.rows("");
            return null;
        } catch (WrongAnswerException allWordsAreKnown) {
            throw new IllegalStateException(allWordsAreKnown);
        }
    }

    /** The question which account takes tax, where neither the chart nor an answer tells; {@code null} when one does. */
    @Nullable
    StartQuestion aboutTaxAccount() {
        return taxAccount() != null
                ? null
                : StartQuestion.of(TAX_ACCOUNT, "To which account is tax on sales and purchases posted?")
                        .choosing(accounts(false));
    }

    /** The account of the chart that is there for tax, or the one that was named; {@code null} for neither. */
    @Nullable
    String taxAccount() {
        return chartRows.stream()
                .map(CompanyFiles::cells)
                .filter(c -> c.get(3).equals("tax"))
                .map(c -> c.get(0))
                .findFirst()
                .orElse(answers.get(TAX_ACCOUNT));
    }

    /** Accounts with what they are called; those for money alone, or all. */
    List<String> accounts(boolean money) {
        if (books != null) {
            return books.accounts().stream()
                    .filter(a -> !money || a.holdsMoney())
                    .map(a -> a.code() + "\t" + a.name())
                    .toList();
        }
        return chartRows.stream()
                .map(CompanyFiles::cells)
                .filter(c -> !money || c.get(3).equals("bank") || c.get(3).equals("card"))
                .map(c -> c.get(0) + "\t" + c.get(1))
                .toList();
    }

    /** True for a card or a loan: its balance is what is owed. */
    boolean isOwed(String code) {
        Account known = books == null ? null : books.account(code);
        return known != null
                ? known.isOwed() || known.type() == AccountType.LIABILITY
                : chartRows.stream()
                        .map(CompanyFiles::cells)
                        .anyMatch(c -> c.get(0).equals(code)
                                && (c.get(2).equals("liability") || c.get(3).equals("card")));
    }

    /** Accounts whose names sound like money in a bank or on a card: to choose from, never taken without asking. */
    List<String> likely() {
        Stream<String> held = books != null
                ? books.accounts().stream()
                        .filter(a -> a.type() == AccountType.ASSET || a.type() == AccountType.LIABILITY)
                        .map(a -> a.code() + "\t" + a.name())
                : chartRows.stream()
                        .map(CompanyFiles::cells)
                        .filter(c -> c.get(2).equals("asset") || c.get(2).equals("liability"))
                        .map(c -> c.get(0) + "\t" + c.get(1));
        return held.filter(a -> MONEY.matcher(a).find()).limit(MOST_LIKELY).toList();
    }

    /** An account that anything may be posted to; for trials. */
    String anyAccount() {
        if (books != null) {
            return books.accounts().stream()
                    .filter(a -> a.type() == AccountType.EXPENSE && a.status() == AccountStatus.OPEN)
                    .map(Account::code)
                    .findFirst()
                    .orElse(books.accountCodes().iterator().next());
        }
        return chartRows.stream()
                .map(CompanyFiles::cells)
                .filter(c -> c.get(2).equals("expense") && c.get(4).isEmpty())
                .findFirst()
                .orElse(CompanyFiles.cells(chartRows.get(0)))
                .get(0);
    }

    /** The code of the bank account with this number; {@code null} when the books know none. */
    @Nullable
    String codeOf(String number) {
        return books == null
                ? null
                : books.accounts().stream()
                        .filter(a -> a.holdsMoney() && a.hasNumber(number, null))
                        .map(Account::code)
                        .findFirst()
                        .orElse(null);
    }
}
