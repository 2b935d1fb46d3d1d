package io.mivrel.files.keys;

import java.util.Currency;

/** Where entries are posted to, and whose books they are. */
public final class LedgerKeys {
    public static final Key LEDGER = Key.text("ledger", "what it is called").must();
    public static final Key KIND =
            Key.text("kind", "practice, http, or the kind of a ledger of your own; left out: practice");
    public static final Key FILE = Key.text("file", "the database file of a practice ledger");
    public static final Key ADDRESS = Key.text("address", "the address of a database, or of a ledger's server");
    public static final Key COMPANY = Key.text("company", "what the company is called there");
    public static final Key USER_FROM = Key.text("user from", "the environment variable with the user");
    public static final Key TOKEN_FROM = Key.text("token from", "the environment variable with the token");
    public static final Key PASSWORD_FROM = Key.text("password from", "the environment variable with the password");
    public static final Key CERTIFICATE = Key.text("certificate", "the file of the server's certificate (PEM)");
    public static final Key DELIVERED =
            Key.word("delivered in files", "documents that went out in import files before", "tell", "hold");
    public static final Key WITH = Key.open("with", "what a ledger of your own wants to know");
    /** A ledger to post to. */
    public static final Block ALL = Block.of(
            LEDGER, KIND, FILE, ADDRESS, COMPANY, USER_FROM, TOKEN_FROM, PASSWORD_FROM, CERTIFICATE, DELIVERED, WITH);

    public static final Key BOOKS = Key.text("books", "the name of the company").must();
    public static final Key CURRENCY = Key.word(
                    "currency",
                    "the currency of the books (ISO 4217)",
                    Currency.getAvailableCurrencies().stream()
                            .map(Currency::getCurrencyCode)
                            .sorted()
                            .toList())
            .must();
    /** The company and its currency: {@code books.yaml}. */
    public static final Block COMPANY_BOOKS = Block.of(BOOKS, CURRENCY);

    private LedgerKeys() {}
}
