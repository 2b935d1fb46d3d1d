package io.mivrel.files.settings;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.books.TaxCode;
import io.mivrel.files.keys.LedgerKeys;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * Reads the books from a folder: {@code books.yaml} (company and currency), {@code chart.csv}, and where they are needed
 * {@code tax-codes.csv}, {@code parties.csv} and {@code periods.csv}.
 */
public final class BooksFolder {
    private static final List<String> TYPES = words(AccountType.values());
    private static final List<String> USES = words(AccountUse.values());
    private static final List<String> STATUSES = words(AccountStatus.values());

    private final Path folder;
    private final String shown;
    private final Problems problems;

    private BooksFolder(Path folder, String shown, Problems problems) {
        this.folder = folder;
        this.shown = shown;
        this.problems = problems;
    }

    /** Reads the books of a folder; throws with every mistake of every file. */
    public static Books read(Path folder) throws SettingsException {
        Problems problems = new Problems();
        Books books = read(folder, folder.toString(), problems);
        problems.throwIfAny();
        return books;
    }

    /** The books, or {@code null} when they cannot be used; then their problems were reported. */
    static Books read(Path folder, String shown, Problems problems) {
        if (!Files.isDirectory(folder)) {
            problems.add(shown, 0, 0, "there is no such folder of books", "");
            return null;
        }
        return new BooksFolder(folder, shown, problems).read();
    }

    private Books read() {
        int before = problems.count();
        SettingsNode form = SettingsNode.open(folder.resolve("books.yaml"), shown + "/books.yaml", problems);
        String company = form == null ? null : form.required(LedgerKeys.BOOKS);
        Currency currency = form == null ? null : currency(form);
        if (form != null) {
            form.done();
        }
        Books.Builder books =
                Books.named(company == null ? "" : company, currency == null ? Currency.getInstance("XXX") : currency);
        Set<String> taxCodes = taxCodes(books);
        Set<String> accounts = chart(books, taxCodes, currency);
        parties(books);
        periods(books);
        Books read = books.build();
        for (String code : taxCodes) {
            String account = read.taxCode(code).account();
            if (account != null && !accounts.isEmpty() && !accounts.contains(account)) {
                problems.add(
                        shown + "/tax-codes.csv",
                        0,
                        0,
                        "the account " + account + " of '" + code + "' is not in the chart",
                        "");
            }
        }
        return problems.count() > before ? null : read;
    }

    private static Currency currency(SettingsNode form) {
        String code = form.required(LedgerKeys.CURRENCY);
        try {
            return code == null ? null : Currency.getInstance(code);
        } catch (IllegalArgumentException unknown) {
            form.at(LedgerKeys.CURRENCY, "'" + code + "' is not a currency code of ISO 4217", "GBP, EUR, USD …");
            return null;
        }
    }

    private Table table(String name, List<String> required, String... optional) {
        return Table.read(folder.resolve(name), shown + "/" + name, required, List.of(optional), problems);
    }

    private Table tableIfThere(String name, List<String> required, String... optional) {
        return Files.exists(folder.resolve(name)) ? table(name, required, optional) : null;
    }

    private Set<String> chart(Books.Builder books, Set<String> taxCodes, Currency home) {
        Set<String> codes = new HashSet<>();
        Table table =
                table("chart.csv", List.of("code", "name", "type"), "use", "status", "tax code", "number", "currency");
        if (table == null) {
            return codes;
        }
        Set<String> names = new HashSet<>();
        for (Table.Line line : table.lines()) {
            String code = line.required("code");
            String name = line.required("name");
            String type = line.choice("type", null, TYPES);
            String use = line.choice("use", "general", USES);
            String status = line.choice("status", "open", STATUSES);
            String taxCode = line.text("tax code");
            if (line.text("type") == null) {
                line.wrong("'type' is blank; allowed: " + String.join(", ", TYPES), "");
            }
            if (taxCode != null && !taxCodes.contains(taxCode)) {
                line.notAllowed("tax code", taxCode, taxCodes);
            }
            if (code != null && !codes.add(code)) {
                line.wrong("the code '" + code + "' stands twice", "");
            }
            if (name != null && !names.add(name.toLowerCase(Locale.ROOT))) {
                line.wrong("the name '" + name + "' stands twice", "");
            }
            if (code != null && name != null && type != null) {
                books.account(new Account(
                        code,
                        name,
                        AccountType.valueOf(type.toUpperCase(Locale.ROOT)),
                        AccountUse.valueOf(use.toUpperCase(Locale.ROOT)),
                        AccountStatus.valueOf(status.toUpperCase(Locale.ROOT)),
                        taxCode,
                        numbers(line.text("number")),
                        foreign(line, home)));
            }
        }
        return codes;
    }

    // An account may be known by several numbers, such as the bank's own and the international one.
    private static List<String> numbers(String cell) {
        return cell == null
                ? List.of()
                : Arrays.stream(cell.split("\\|"))
                        .map(String::strip)
                        .filter(n -> !n.isEmpty())
                        .toList();
    }

    private static String foreign(Table.Line line, Currency home) {
        String code = line.text("currency");
        if (code == null) {
            return null;
        }
        try {
            Currency currency = Currency.getInstance(code);
            return currency.equals(home) ? null : code;
        } catch (IllegalArgumentException unknown) {
            line.wrong("'" + code + "' is not a currency code of ISO 4217", "");
            return null;
        }
    }

    private static List<String> words(Enum<?>[] constants) {
        return Arrays.stream(constants)
                .map(c -> c.name().toLowerCase(Locale.ROOT))
                .toList();
    }

    private Set<String> taxCodes(Books.Builder books) {
        Set<String> codes = new HashSet<>();
        Table table = tableIfThere("tax-codes.csv", List.of("code", "name", "rate"), "account");
        if (table == null) {
            return codes;
        }
        for (Table.Line line : table.lines()) {
            String code = line.required("code");
            String name = line.required("name");
            BigDecimal rate = rate(line);
            String account = line.text("account");
            if (rate != null && rate.signum() != 0 && account == null) {
                line.wrong("a rate that is not nil needs the 'account' the tax is posted to", "");
            }
            if (code != null && !codes.add(code)) {
                line.wrong("the code '" + code + "' stands twice", "");
            }
            if (code != null && name != null && rate != null) {
                books.taxCode(new TaxCode(code, name, rate, account));
            } else if (code != null) {
                codes.remove(code);
            }
        }
        return codes;
    }

    private static BigDecimal rate(Table.Line line) {
        String text = line.required("rate");
        if (text == null) {
            return null;
        }
        if (!text.matches("[0-9]{1,3}(\\.[0-9]{1,6})?")) {
            line.wrong("'rate' is a number of per cent such as 20 or 17.5, not '" + text + "'", "");
            return null;
        }
        return new BigDecimal(text);
    }

    private void parties(Books.Builder books) {
        Table table = tableIfThere("parties.csv", List.of("code", "name", "kind"));
        if (table == null) {
            return;
        }
        Set<String> codes = new HashSet<>();
        for (Table.Line line : table.lines()) {
            String code = line.required("code");
            String name = line.required("name");
            String kind = line.choice("kind", null, "customer", "supplier");
            if (line.text("kind") == null) {
                line.wrong("'kind' is blank; allowed: customer, supplier", "");
            }
            if (code != null && !codes.add(code)) {
                line.wrong("the code '" + code + "' stands twice", "");
            } else if (code != null && name != null && kind != null) {
                books.party(new Party(code, name, kind.equals("customer")));
            }
        }
    }

    private void periods(Books.Builder books) {
        Table table = tableIfThere("periods.csv", List.of("from", "to", "status"));
        if (table == null) {
            return;
        }
        LocalDate last = LocalDate.MIN;
        for (Table.Line line : table.lines()) {
            LocalDate from = date(line, "from");
            LocalDate to = date(line, "to");
            String status = line.choice("status", "open", "open", "closed");
            if (from != null && to != null) {
                if (to.isBefore(from) || !from.isAfter(last)) {
                    line.wrong("periods must follow one another, each from its first to its last day", "");
                }
                last = to;
                books.period(new Period(from, to, status.equals("open")));
            }
        }
    }

    private static LocalDate date(Table.Line line, String title) {
        String text = line.required(title);
        try {
            return text == null ? null : LocalDate.parse(text);
        } catch (DateTimeParseException e) {
            line.wrong("'" + title + "' is a date such as 2027-03-31, not '" + text + "'", "");
            return null;
        }
    }
}
