package io.mivrel.intake;

import io.mivrel.model.Rule;

/**
 * Rows that were found to be wrong only when others had been read; the next pass holds them.
 *
 * @param first the first physical row
 * @param last the last of them
 * @param field what is probably wrong
 */
record BalanceFault(long first, long last, Rule rule, String field, String value, String reason, String suggestion) {
    /** One row. */
    BalanceFault(long row, Rule rule, String field, String value, String reason, String suggestion) {
        this(row, row, rule, field, value, reason, suggestion);
    }
}
