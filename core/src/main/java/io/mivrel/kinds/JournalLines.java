package io.mivrel.kinds;

import io.mivrel.model.Derivation;
import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.KindWords;
import io.mivrel.model.Level;
import io.mivrel.text.WordLists;
import java.util.List;

/** Journal lines: those with the same reference are one journal. The amount is debit positive, credit negative. */
public final class JournalLines {
    public static final FieldTable TABLE = new FieldTable("journal lines", "journal", "line");

    private static final Level JOURNAL = TABLE.level(0);
    private static final Level LINE = TABLE.level(1);

    public static final Field REFERENCE = JOURNAL.required(
            "reference", FieldType.CODE, "voucher or journal number; lines with the same one are one journal");
    public static final Field DATE = JOURNAL.required("date", FieldType.DATE, "posting date");
    public static final Field COMPANY = JOURNAL.optional(
            "company", FieldType.CODE, "whose books; the same reference in another company is another journal");
    public static final Field SERIES = JOURNAL.optional(
            "series",
            FieldType.CODE,
            "the series of numbers that the reference is of; the same one in another series is another journal");
    public static final Field ACCOUNT = LINE.required("account", FieldType.CODE, "account code in the chart");
    public static final Field NARRATIVE = LINE.optional("narrative", FieldType.TEXT, "text of the line");
    public static final Field AMOUNT =
            LINE.optional("amount", FieldType.AMOUNT, "one signed amount: debit positive, credit negative");
    public static final Field DEBIT = LINE.optional("debit", FieldType.AMOUNT, "amount on the debit side, positive");
    public static final Field CREDIT = LINE.optional("credit", FieldType.AMOUNT, "amount on the credit side, positive");
    public static final Field CURRENCY = LINE.optional(
            "currency",
            FieldType.CODE,
            "ISO 4217 code of the currency of the foreign amount; without one, of the amount, and then only that of the books");
    public static final Field FOREIGN_AMOUNT = LINE.foreign(
            "foreign amount",
            CURRENCY,
            "the amount in that currency, debit positive, credit negative; it stands beside the home amount");
    public static final Field TAX_CODE = LINE.optional("tax code", FieldType.CODE, "tax code in the books");
    public static final Field PARTY = LINE.optional("party", FieldType.CODE, "customer or supplier code");
    public static final Field DEPARTMENT = LINE.optional("department", FieldType.CODE, "department or cost centre");
    public static final Field PLACE =
            LINE.derived("line", FieldType.CODE, Derivation.LINE_NUMBER, "place of the line in its journal, from 1");

    static {
        LINE.origins();
    }

    public static final Kind KIND = Kind.of(TABLE, "journals")
            .titles(() -> WordLists.of(JournalLines.class, "journal-lines.txt"))
            .toldBy(List.of(REFERENCE), List.of(ACCOUNT), List.of(DATE))
            .words(KindWords.of("journal", "journals", "debit", "credit"))
            .date(DATE)
            .key(REFERENCE)
            .apart(COMPANY, SERIES)
            .currency(CURRENCY)
            .amount(AMOUNT)
            .sides(DEBIT, CREDIT)
            .narrative(NARRATIVE)
            .codes(ACCOUNT, TAX_CODE, PARTY)
            .isJournal()
            .columnar()
            .identity(DocumentIdentity.byFields(
                    3, List.of(REFERENCE), List.of(COMPANY, SERIES), List.of(), DATE, List.of(ACCOUNT, AMOUNT)))
            .drafter(JournalDrafter::new)
            .build();

    private JournalLines() {}
}
