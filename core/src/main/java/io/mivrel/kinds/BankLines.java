package io.mivrel.kinds;

import io.mivrel.model.Derivation;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.KindWords;
import io.mivrel.model.Level;
import io.mivrel.text.WordLists;
import java.util.List;

/**
 * Bank lines: each is one movement on a bank or card account, and a document by itself. The amount is seen from the books:
 * money in is a debit of the bank account and positive, money out negative. A transaction that the coding splits has a
 * posting for each part.
 */
public final class BankLines {
    public static final FieldTable TABLE = new FieldTable("bank lines", "transaction", "posting");

    private static final Level TRANSACTION = TABLE.level(0);
    private static final Level POSTING = TABLE.level(1);

    public static final Field DATE = TRANSACTION.required("date", FieldType.DATE, "the day it was booked");
    public static final Field NARRATIVE =
            TRANSACTION.optional("narrative", FieldType.TEXT, "what the bank says about it");
    public static final Field REFERENCE =
            TRANSACTION.optional("reference", FieldType.CODE, "cheque number or the bank's reference");
    public static final Field BANK_REFERENCE =
            TRANSACTION.optional("bank reference", FieldType.CODE, "the bank's own identifier, one of a kind");
    public static final Field VALUE_DATE =
            TRANSACTION.optional("value date", FieldType.DATE, "the day from which it bears interest");
    public static final Field PAYEE = TRANSACTION.optional("payee", FieldType.TEXT, "who paid or was paid");
    public static final Field CURRENCY = TRANSACTION.optional(
            "currency",
            FieldType.CODE,
            "ISO 4217 code of its currency; a line in another than that of the account is held");
    public static final Field AMOUNT =
            POSTING.optional("amount", FieldType.AMOUNT, "one signed amount: in positive, out negative");
    public static final Field MONEY_IN = POSTING.optional("money in", FieldType.AMOUNT, "amount paid in, positive");
    public static final Field MONEY_OUT = POSTING.optional("money out", FieldType.AMOUNT, "amount paid out, positive");
    public static final Field BALANCE =
            TRANSACTION.optional("balance", FieldType.AMOUNT, "balance of the account after this line");
    public static final Field ACCOUNT =
            POSTING.optional("account", FieldType.CODE, "the other side: filled by the coding table");
    public static final Field TAX_CODE = POSTING.optional("tax code", FieldType.CODE, "tax contained in the amount");
    public static final Field PARTY = POSTING.optional("party", FieldType.CODE, "customer or supplier code");
    public static final Field DEPARTMENT = POSTING.optional("department", FieldType.CODE, "department or cost centre");
    public static final Field ENTRY = TRANSACTION.derived(
            "coding entry", FieldType.CODE, Derivation.CODING_ENTRY, "the entry of the coding table that decided");
    public static final Field BANK_ACCOUNT = TRANSACTION.derived(
            "bank account",
            FieldType.CODE,
            Derivation.FILE_ACCOUNT,
            "account code of the bank account, from the layout");

    static {
        POSTING.origins();
    }

    public static final Kind KIND = Kind.of(TABLE, "bank transactions")
            .titles(() -> WordLists.of(BankLines.class, "bank-lines.txt"))
            .toldBy(List.of(DATE), List.of(AMOUNT, MONEY_IN), List.of(AMOUNT, MONEY_OUT))
            .words(KindWords.of("bank line", "bank lines", "in", "out"))
            .date(DATE)
            .amount(AMOUNT)
            .sides(MONEY_IN, MONEY_OUT)
            .narrative(NARRATIVE)
            .payee(PAYEE)
            .balance(BALANCE)
            .bankIdentifier(BANK_REFERENCE)
            .currency(CURRENCY)
            .codes(ACCOUNT, TAX_CODE, PARTY)
            .coded()
            .ofAccount()
            .amountsToJournal()
            .columnar()
            .identity(new BankIdentity())
            .drafter(BankDrafter::new)
            .build();

    private BankLines() {}
}
