package io.mivrel.model;

/**
 * The fields of a line of an invoice, bill or credit note. Amounts are as the document prints them: a credit note's
 * are positive; what they mean for the books follows from the kind.
 */
public final class InvoiceLines {
    public static final FieldTable TABLE = new FieldTable("invoice lines");

    public static final Field NUMBER = TABLE.heading(
            "number", FieldType.CODE, true, "number of the document; lines with the same one are one document");
    public static final Field KIND =
            TABLE.heading("kind", FieldType.CODE, true, "'invoice', 'credit note', 'bill' or 'supplier credit'");
    public static final Field PARTY = TABLE.heading("party", FieldType.CODE, true, "customer or supplier code");
    public static final Field DATE = TABLE.heading("date", FieldType.DATE, true, "date of the document");
    public static final Field DUE = TABLE.heading("due date", FieldType.DATE, false, "day it is to be paid");
    public static final Field TOTAL =
            TABLE.heading("total", FieldType.AMOUNT, false, "stated total with tax, to compare with the lines");
    public static final Field ITEM = TABLE.optional("item", FieldType.CODE, "item code");
    public static final Field NARRATIVE = TABLE.optional("narrative", FieldType.TEXT, "text of the line");
    public static final Field QUANTITY = TABLE.optional("quantity", FieldType.DECIMAL, "how many");
    public static final Field PRICE = TABLE.optional("price", FieldType.DECIMAL, "price of one, without tax");
    public static final Field NET = TABLE.optional(
            "net", FieldType.AMOUNT, "amount without tax; left out, it is quantity times price, rounded half up");
    public static final Field TAX_CODE = TABLE.optional("tax code", FieldType.CODE, "tax code in the books");
    public static final Field TAX = TABLE.optional(
            "tax", FieldType.AMOUNT, "tax amount; left out, it is the tax code's rate of the net, rounded half up");
    public static final Field ACCOUNT = TABLE.required("account", FieldType.CODE, "income or expense account");
    public static final Field DEPARTMENT = TABLE.optional("department", FieldType.CODE, "department or cost centre");
    public static final Field GROSS = TABLE.derived("gross", FieldType.AMOUNT, "net and tax of the line");
    public static final Field LINE = TABLE.derived("line", FieldType.CODE, "place of the line in its document, from 1");
    public static final Field SOURCE_FILE = TABLE.derived("source file", FieldType.CODE, "file the line came from");
    public static final Field SOURCE_ROW = TABLE.derived("source row", FieldType.CODE, "first physical row there");

    private InvoiceLines() {}
}
