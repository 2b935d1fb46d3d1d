package io.mivrel.intake;

import io.mivrel.model.Rule;

/**
 * A row that was found to be wrong only when rows behind it had been read; the next pass holds it.
 *
 * @param row its first physical row
 * @param field what is probably wrong
 */
record Culprit(long row, Rule rule, String field, String value, String reason, String suggestion) {}
