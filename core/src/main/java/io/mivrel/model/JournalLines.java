package io.mivrel.model;

/** The fields of a journal line. The amount is debit positive, credit negative. */
public final class JournalLines {
    public static final FieldTable TABLE = new FieldTable("journal lines");

    public static final Field REFERENCE = TABLE.heading(
            "reference", FieldType.CODE, true, "voucher or journal number; lines with the same one are one journal");
    public static final Field DATE = TABLE.heading("date", FieldType.DATE, true, "posting date");
    public static final Field ACCOUNT = TABLE.required("account", FieldType.CODE, "account code in the chart");
    public static final Field NARRATIVE = TABLE.optional("narrative", FieldType.TEXT, "text of the line");
    public static final Field AMOUNT =
            TABLE.optional("amount", FieldType.AMOUNT, "one signed amount: debit positive, credit negative");
    public static final Field DEBIT = TABLE.optional("debit", FieldType.AMOUNT, "amount on the debit side");
    public static final Field CREDIT = TABLE.optional("credit", FieldType.AMOUNT, "amount on the credit side");
    public static final Field TAX_CODE = TABLE.optional("tax code", FieldType.CODE, "tax code in the books");
    public static final Field PARTY = TABLE.optional("party", FieldType.CODE, "customer or supplier code");
    public static final Field DEPARTMENT = TABLE.optional("department", FieldType.CODE, "department or cost centre");
    public static final Field LINE = TABLE.derived("line", FieldType.CODE, "place of the line in its journal, from 1");
    public static final Field SOURCE_FILE = TABLE.derived("source file", FieldType.CODE, "file the line came from");
    public static final Field SOURCE_ROW = TABLE.derived("source row", FieldType.CODE, "first physical row there");

    private JournalLines() {}
}
