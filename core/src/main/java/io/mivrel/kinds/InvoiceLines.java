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

/**
 * Lines of invoices, bills and credit notes: those with the same number are one document. Amounts are as the document
 * prints them: a credit note's are positive; what they mean for the books follows from the kind.
 */
public final class InvoiceLines {
    public static final FieldTable TABLE = new FieldTable("invoice lines", "document", "line");

    private static final Level DOCUMENT = TABLE.level(0);
    private static final Level LINE = TABLE.level(1);

    public static final Field NUMBER = DOCUMENT.required(
            "number", FieldType.CODE, "number of the document; lines with the same one are one document");
    public static final Field DOCUMENT_KIND =
            DOCUMENT.required("kind", FieldType.CODE, "'invoice', 'credit note', 'bill' or 'supplier credit'");
    public static final Field PARTY = DOCUMENT.required("party", FieldType.CODE, "customer or supplier code");
    public static final Field DATE = DOCUMENT.required("date", FieldType.DATE, "date of the document");
    public static final Field DUE = DOCUMENT.optional("due date", FieldType.DATE, "day it is to be paid");
    public static final Field COMPANY = DOCUMENT.optional(
            "company", FieldType.CODE, "whose books; the same number in another company is another document");
    public static final Field SERIES = DOCUMENT.optional(
            "series",
            FieldType.CODE,
            "the series of numbers that it is of; the same number in another series is another document");
    public static final Field CURRENCY = DOCUMENT.optional(
            "currency",
            FieldType.CODE,
            "ISO 4217 code of its currency; a document in another than that of the books is held");
    public static final Field TOTAL = DOCUMENT.optional(
            "total", FieldType.AMOUNT, "stated total with tax, to compare with the lines; positive, of a credit too");
    public static final Field ITEM = LINE.optional("item", FieldType.CODE, "item code");
    public static final Field NARRATIVE = LINE.optional("narrative", FieldType.TEXT, "text of the line");
    public static final Field QUANTITY = LINE.optional("quantity", FieldType.DECIMAL, "how many");
    public static final Field PRICE = LINE.optional("price", FieldType.DECIMAL, "price of one, without tax");
    public static final Field NET = LINE.optional(
            "net",
            FieldType.AMOUNT,
            "amount without tax, positive, of a credit too; left out, it is quantity times price, rounded half up");
    public static final Field TAX_CODE = LINE.optional("tax code", FieldType.CODE, "tax code in the books");
    public static final Field TAX = LINE.optional(
            "tax",
            FieldType.AMOUNT,
            "tax amount with the sign of the net; left out, it is the tax code's rate of the net, rounded half up");
    public static final Field ACCOUNT = LINE.required("account", FieldType.CODE, "income or expense account");
    public static final Field DEPARTMENT = LINE.optional("department", FieldType.CODE, "department or cost centre");
    public static final Field GROSS =
            LINE.derived("gross", FieldType.AMOUNT, Derivation.DRAFTED, "net and tax of the line");
    public static final Field PLACE =
            LINE.derived("line", FieldType.CODE, Derivation.LINE_NUMBER, "place of the line in its document, from 1");

    static {
        LINE.origins();
    }

    public static final Kind KIND = Kind.of(TABLE, "invoices")
            .titles(() -> WordLists.of(InvoiceLines.class, "invoice-lines.txt"))
            .toldBy(List.of(NUMBER), List.of(PARTY), List.of(NET, PRICE))
            .words(KindWords.of("document", "documents", "net to receive", "net to pay or credit")
                    .delivered("net as printed", "less"))
            .date(DATE)
            .key(NUMBER)
            .apart(COMPANY, SERIES)
            .currency(CURRENCY)
            .amount(NET)
            .orGross(GROSS)
            .computedFrom(QUANTITY, PRICE)
            .narrative(NARRATIVE)
            .statedTotal(TOTAL)
            .codes(ACCOUNT, TAX_CODE, PARTY)
            .item(ITEM)
            .amountsToJournal()
            .sign((block, index) -> InvoiceKind.sign(block.text(DOCUMENT_KIND, index)))
            .enteredOnce()
            .credits(
                    block -> {
                        InvoiceKind kind = InvoiceKind.of(block.text(DOCUMENT_KIND));
                        return kind != null && kind.isCredit();
                    },
                    NET,
                    TAX,
                    TOTAL,
                    QUANTITY,
                    PRICE)
            .identity(DocumentIdentity.byFields(
                    2,
                    List.of(DOCUMENT_KIND, PARTY, NUMBER),
                    List.of(COMPANY, SERIES),
                    List.of(DOCUMENT_KIND, PARTY),
                    DATE,
                    List.of(ACCOUNT, NET, TAX)))
            .drafter(InvoiceDrafter::new)
            .build();

    private InvoiceLines() {}
}
