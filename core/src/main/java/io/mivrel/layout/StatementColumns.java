package io.mivrel.layout;

import io.mivrel.kinds.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.rows.FileKind;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The columns that every statement format gives, whatever its own names for them are. Dates are written
 * {@code uuuu-MM-dd} (except in QIF, which does not say its order of day and month), amounts with a point and a minus
 * for money out.
 */
public final class StatementColumns {
    public static final String DATE = "date";
    public static final String VALUE_DATE = "value date";
    public static final String AMOUNT = "amount";
    public static final String PAYEE = "payee";
    public static final String NARRATIVE = "narrative";
    public static final String REFERENCE = "reference";
    public static final String BANK_REFERENCE = "bank reference";
    public static final String TYPE = "type";

    /** All of them, in the order of the cells. */
    public static final List<String> ALL =
            List.of(DATE, VALUE_DATE, AMOUNT, PAYEE, NARRATIVE, REFERENCE, BANK_REFERENCE, TYPE);

    /** What the entries of every statement are. */
    public static final Kind KIND = BankLines.KIND;

    private StatementColumns() {}

    /** Where the fields of bank lines come from when a layout does not say otherwise. */
    public static Map<Field, FieldSource> fields(FileKind kind) {
        Map<Field, FieldSource> fields = new LinkedHashMap<>();
        if (kind != FileKind.QIF) {
            fields.put(BankLines.DATE, FieldSource.date(DATE, "uuuu-MM-dd"));
            fields.put(BankLines.VALUE_DATE, FieldSource.date(VALUE_DATE, "uuuu-MM-dd"));
        }
        fields.put(BankLines.AMOUNT, FieldSource.column(AMOUNT));
        fields.put(BankLines.PAYEE, FieldSource.column(PAYEE));
        fields.put(BankLines.NARRATIVE, FieldSource.column(NARRATIVE));
        fields.put(BankLines.REFERENCE, FieldSource.column(REFERENCE));
        fields.put(BankLines.BANK_REFERENCE, FieldSource.column(BANK_REFERENCE));
        return fields;
    }
}
