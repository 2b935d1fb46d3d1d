package io.mivrel.intake;

import io.mivrel.model.Rule;

/** What a row source found wrong with a row as a whole. */
public enum RowFault {
    QUOTE_UNCLOSED(Rule.QUOTE_UNCLOSED, "has a quote that opens a cell and is not closed before the text goes on"),
    TOO_LONG(Rule.ROW_TOO_LONG, "is longer than 1,048,576 bytes or 16,384 cells"),
    BYTES_UNREADABLE(Rule.BYTES_UNREADABLE, "holds bytes that are nothing in this encoding"),
    NUL(Rule.ROW_NOT_TEXT, "holds a NUL character"),
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
