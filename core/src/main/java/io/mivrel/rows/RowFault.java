package io.mivrel.rows;

import io.mivrel.model.Rule;

/** What a row source found wrong with a row as a whole. */
public enum RowFault {
    QUOTE_UNCLOSED(Rule.QUOTE_UNCLOSED, "has a quote that opens a cell and is not closed before the text goes on"),
    TOO_LONG(Rule.ROW_TOO_LONG, "is longer than 1,048,576 bytes or 16,384 cells"),
    BYTES_UNREADABLE(Rule.BYTES_UNREADABLE, "has bytes that are not valid in this encoding"),
    NUL(Rule.ROW_NOT_TEXT, "holds a NUL character"),
    ENTRY_UNREADABLE(Rule.ENTRY_UNREADABLE, "is not a statement entry by the rules of its format"),
    ENTRY_CURRENCY(Rule.ENTRY_CURRENCY, "is in another currency than its statement"),
    ENTRY_CORRECTS(Rule.ENTRY_CORRECTS, "says that it corrects or deletes an earlier entry"),
    BATCH_DIFFERS(Rule.BATCH_DIFFERS, "has details whose amounts do not add up to its own"),
    FORMULA_UNVALUED(Rule.FORMULA_UNVALUED, "has a formula whose value the file does not hold"),
    CELLS_MISSING(Rule.CELLS_MISSING, "has fewer cells than there are titles"),
    CELLS_EXTRA(Rule.CELLS_EXTRA, "has more cells than there are titles"),
    TAG_UNKNOWN(Rule.TAG_UNKNOWN, "has a tag that the layout does not know"),
    TAG_CELLS(Rule.CELLS_EXTRA, "has more cells than the layout names for its tag"),
    TAG_COLUMN(
            Rule.CELLS_EXTRA,
            "names a column that no row above the first line named: say it under 'also' of this tag in the layout"),
    LINK_MISSING(Rule.LINK_MISSING, "has a key that the linked file lacks"),
    LINK_BLANK(Rule.LINK_MISSING, "has no key: the cell that names its row in the linked file is blank"),
    CONTINUES_NOTHING(Rule.LINE_CONTINUES_NOTHING, "goes on where no row is open"),
    CONTINUED_TWICE(
            Rule.LINE_CONTINUED_TWICE, "has two values in one column: one in its first line, one in a line below"),
    YEAR_UNKNOWN(
            Rule.DATE_YEAR_UNKNOWN, "has a date without a year, in no one year of the period that the file states"),
    /** The whole file is not text; no further row follows. */
    NOT_TEXT(Rule.FILE_NOT_TEXT, "is not text in this encoding: NUL characters among its first bytes");

    private final Rule rule;
    private final String reason;

    RowFault(Rule rule, String reason) {
        this.rule = rule;
        this.reason = reason;
    }

    public Rule rule() {
        return rule;
    }

    public String reason() {
        return reason;
    }
}
