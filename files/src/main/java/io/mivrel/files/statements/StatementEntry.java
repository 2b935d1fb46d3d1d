package io.mivrel.files.statements;

import io.mivrel.layout.StatementColumns;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.RowFault;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** One entry of a statement while it is put together: a text for each statement column. For one thread. */
final class StatementEntry {
    private static final int DATE = StatementColumns.ALL.indexOf(StatementColumns.DATE);
    private static final int VALUE_DATE = StatementColumns.ALL.indexOf(StatementColumns.VALUE_DATE);
    private static final int AMOUNT = StatementColumns.ALL.indexOf(StatementColumns.AMOUNT);
    private static final int PAYEE = StatementColumns.ALL.indexOf(StatementColumns.PAYEE);
    private static final int NARRATIVE = StatementColumns.ALL.indexOf(StatementColumns.NARRATIVE);
    private static final int REFERENCE = StatementColumns.ALL.indexOf(StatementColumns.REFERENCE);
    private static final int BANK_REFERENCE = StatementColumns.ALL.indexOf(StatementColumns.BANK_REFERENCE);
    private static final int TYPE = StatementColumns.ALL.indexOf(StatementColumns.TYPE);

    final long row;
    final String[] cells = new String[StatementColumns.ALL.size()];
    RowFault fault;
    LeftOut aside;

    StatementEntry(long row) {
        this.row = row;
        Arrays.fill(cells, "");
    }

    StatementEntry date(String text) {
        cells[DATE] = text;
        return this;
    }

    StatementEntry valueDate(String text) {
        cells[VALUE_DATE] = text;
        return this;
    }

    StatementEntry amount(String text) {
        cells[AMOUNT] = text;
        return this;
    }

    StatementEntry payee(String text) {
        cells[PAYEE] = text;
        return this;
    }

    StatementEntry narrative(String text) {
        cells[NARRATIVE] = text;
        return this;
    }

    StatementEntry reference(String text) {
        cells[REFERENCE] = text;
        return this;
    }

    StatementEntry bankReference(String text) {
        cells[BANK_REFERENCE] = text;
        return this;
    }

    StatementEntry type(String text) {
        cells[TYPE] = text;
        return this;
    }

    String date() {
        return cells[DATE];
    }

    String amount() {
        return cells[AMOUNT];
    }

    String payee() {
        return cells[PAYEE];
    }

    String narrative() {
        return cells[NARRATIVE];
    }

    StatementEntry faulty(RowFault found) {
        if (fault == null) {
            fault = found;
        }
        return this;
    }

    /** An entry that cannot be understood: its text stands in for it. */
    static StatementEntry unreadable(long row, String text) {
        StatementEntry entry = new StatementEntry(row).faulty(RowFault.ENTRY_UNREADABLE);
        entry.cells[0] = text.length() > 200 ? text.substring(0, 200) : text;
        return entry;
    }

    List<String> cells() {
        return new ArrayList<>(Arrays.asList(cells));
    }
}
