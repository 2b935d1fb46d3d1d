package io.mivrel.practice;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.books.TaxCode;
import java.math.BigDecimal;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Chart, tax codes, parties and periods of the company in the database. Called within a transaction. */
final class BooksStore {
    private final PracticeDatabase database;

    BooksStore(PracticeDatabase database) {
        this.database = database;
    }

    /** The number of a company; 0 when it has no books here. */
    long company(String name) throws SQLException {
        try (PreparedStatement query = prepare("SELECT id FROM company WHERE name = ?", name);
                ResultSet rows = query.executeQuery()) {
            return rows.next() ? rows.getLong(1) : 0;
        }
    }

    /** The only company, or the first. */
    String anyCompany() throws SQLException {
        try (PreparedStatement query = prepare("SELECT name FROM company ORDER BY id");
                ResultSet rows = query.executeQuery()) {
            return rows.next() ? rows.getString(1) : "";
        }
    }

    private PreparedStatement prepare(String sql, @Nullable Object... values) throws SQLException {
        PreparedStatement statement = database.connection().prepareStatement(sql);
        for (int i = 0; i < values.length; i++) {
            statement.setObject(i + 1, values[i]);
        }
        return statement;
    }

    private void run(String sql, @Nullable Object... values) throws SQLException {
        try (PreparedStatement statement = prepare(sql, values)) {
            statement.executeUpdate();
        }
    }

    long create(Books books) throws SQLException {
        long id = 1 + database.number("SELECT coalesce(max(id), 0) FROM company");
        run(
                "INSERT INTO company VALUES (?, ?, ?)",
                id,
                books.company(),
                books.currency().getCurrencyCode());
        long account = database.number("SELECT coalesce(max(id), 0) FROM account");
        for (Account a : books.accounts()) {
            run(
                    "INSERT INTO account VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                    ++account,
                    id,
                    a.code(),
                    a.name(),
                    a.type().word(),
                    a.use().word(),
                    a.status().word(),
                    a.taxCode(),
                    String.join(" ", a.numbers()),
                    a.currency());
        }
        for (String code : books.taxCodeCodes()) {
            TaxCode tax = books.taxCode(code);
            if (tax != null) {
                run(
                        "INSERT INTO tax_code VALUES (?, ?, ?, ?, ?)",
                        id,
                        code,
                        tax.name(),
                        tax.rate().toPlainString(),
                        tax.account());
            }
        }
        for (String code : books.partyCodes()) {
            Party party = books.party(code);
            if (party != null) {
                add(id, party);
            }
        }
        for (Period period : books.periods()) {
            run(
                    "INSERT INTO period VALUES (?, ?, ?, ?)",
                    id,
                    period.from().toString(),
                    period.to().toString(),
                    period.isOpen() ? 1 : 0);
        }
        return id;
    }

    /** Adds a party unless it is there. */
    void add(long company, Party party) throws SQLException {
        run(
                "INSERT INTO party VALUES (?, ?, ?, ?) ON CONFLICT (company_id, code) DO NOTHING",
                company,
                party.code(),
                party.name(),
                party.isCustomer() ? 1 : 0);
    }

    void setStatus(long company, String code, AccountStatus status) throws SQLException {
        run("UPDATE account SET status = ? WHERE company_id = ? AND code = ?", status.word(), company, code);
    }

    void setOpen(long company, LocalDate day, boolean open) throws SQLException {
        run(
                "UPDATE period SET is_open = ? WHERE company_id = ? AND first_day <= ? AND last_day >= ?",
                open ? 1 : 0,
                company,
                day.toString(),
                day.toString());
    }

    Map<String, Long> accountIds(long company) throws SQLException {
        Map<String, Long> ids = new HashMap<>();
        try (PreparedStatement query = prepare("SELECT code, id FROM account WHERE company_id = ?", company);
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                ids.put(rows.getString(1), rows.getLong(2));
            }
        }
        return ids;
    }

    Books read(long company) throws SQLException {
        Books.Builder books;
        try (PreparedStatement query = prepare("SELECT name, currency FROM company WHERE id = ?", company);
                ResultSet rows = query.executeQuery()) {
            rows.next();
            books = Books.named(rows.getString(1), Currency.getInstance(rows.getString(2)));
        }
        readAccounts(company, books);
        try (PreparedStatement query =
                        prepare("SELECT code, name, rate, account FROM tax_code WHERE company_id = ?", company);
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                books.taxCode(new TaxCode(
                        rows.getString(1), rows.getString(2), new BigDecimal(rows.getString(3)), rows.getString(4)));
            }
        }
        try (PreparedStatement query =
                        prepare("SELECT code, name, is_customer FROM party WHERE company_id = ?", company);
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                books.party(new Party(rows.getString(1), rows.getString(2), rows.getLong(3) == 1));
            }
        }
        try (PreparedStatement query = prepare(
                        "SELECT first_day, last_day, is_open FROM period WHERE company_id = ? ORDER BY first_day",
                        company);
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                books.period(new Period(
                        LocalDate.parse(rows.getString(1)), LocalDate.parse(rows.getString(2)), rows.getLong(3) == 1));
            }
        }
        return books.build();
    }

    private void readAccounts(long company, Books.Builder books) throws SQLException {
        try (PreparedStatement query = prepare(
                        "SELECT code, name, type, use, status, tax_code, numbers, currency FROM account"
                                + " WHERE company_id = ? ORDER BY code",
                        company);
                ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                String numbers = rows.getString(7);
                books.account(new Account(
                        rows.getString(1),
                        rows.getString(2),
                        AccountType.valueOf(upper(rows.getString(3))),
                        AccountUse.valueOf(upper(rows.getString(4))),
                        AccountStatus.valueOf(upper(rows.getString(5))),
                        rows.getString(6),
                        numbers.isEmpty() ? List.of() : List.of(numbers.split(" ")),
                        rows.getString(8)));
            }
        }
    }

    private static String upper(String word) {
        return word.toUpperCase(Locale.ROOT);
    }
}
