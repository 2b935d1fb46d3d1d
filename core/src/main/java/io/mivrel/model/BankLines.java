package io.mivrel.model;

/**
 * The fields of a bank line: one movement on a bank or card account. The amount is seen from the books: money in is a
 * debit of the bank account and positive, money out negative.
 */
public final class BankLines {
    public static final FieldTable TABLE = new FieldTable("bank lines");

    public static final Field DATE = TABLE.required("date", FieldType.DATE, "the day it was booked");
    public static final Field NARRATIVE = TABLE.optional("narrative", FieldType.TEXT, "what the bank says about it");
    public static final Field REFERENCE =
            TABLE.optional("reference", FieldType.CODE, "cheque number or the bank's reference");
    public static final Field BANK_REFERENCE =
            TABLE.optional("bank reference", FieldType.CODE, "the bank's own identifier, one of a kind");
    public static final Field VALUE_DATE =
            TABLE.optional("value date", FieldType.DATE, "the day from which it bears interest");
    public static final Field PAYEE = TABLE.optional("payee", FieldType.TEXT, "who paid or was paid");
    public static final Field AMOUNT =
            TABLE.optional("amount", FieldType.AMOUNT, "one signed amount: in positive, out negative");
    public static final Field MONEY_IN = TABLE.optional("money in", FieldType.AMOUNT, "amount paid in");
    public static final Field MONEY_OUT = TABLE.optional("money out", FieldType.AMOUNT, "amount paid out");
    public static final Field BALANCE =
            TABLE.optional("balance", FieldType.AMOUNT, "balance of the account after this line");
    public static final Field ACCOUNT =
            TABLE.optional("account", FieldType.CODE, "the other side: filled by the coding table");
    public static final Field TAX_CODE = TABLE.optional("tax code", FieldType.CODE, "tax contained in the amount");
    public static final Field PARTY = TABLE.optional("party", FieldType.CODE, "customer or supplier code");
    public static final Field ENTRY =
            TABLE.derived("coding entry", FieldType.CODE, "the entry of the coding table that decided");
    public static final Field BANK_ACCOUNT =
            TABLE.derived("bank account", FieldType.CODE, "account code of the bank account, from the layout");
    public static final Field SOURCE_FILE = TABLE.derived("source file", FieldType.CODE, "file the line came from");
    public static final Field SOURCE_ROW = TABLE.derived("source row", FieldType.CODE, "first physical row there");

    private BankLines() {}
}
