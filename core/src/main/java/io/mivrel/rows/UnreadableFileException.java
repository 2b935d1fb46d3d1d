package io.mivrel.rows;

import io.mivrel.model.Rule;
import java.io.IOException;

/**
 * A row source cannot go on: the file is damaged, cut off, of another kind, or beyond a cap. Intake makes it a finding
 * about the file as a whole, so that nothing of the file is delivered.
 */
public final class UnreadableFileException extends IOException {
    private static final long serialVersionUID = 1;
    private final Rule rule;
    private final long row;
    private final String suggestion;

    /**
     * @param rule what is wrong
     * @param row where, from 1; 0 for the file as a whole
     * @param reason in words
     * @param suggestion what to do; may be empty
     */
    public UnreadableFileException(Rule rule, long row, String reason, String suggestion) {
        super(reason);
        this.rule = rule;
        this.row = row;
        this.suggestion = suggestion;
    }

    public Rule rule() {
        return rule;
    }

    public long row() {
        return row;
    }

    public String suggestion() {
        return suggestion;
    }
}
