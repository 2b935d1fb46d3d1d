package io.mivrel.intake;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * What one statement, or one file with a running balance, covers. Amounts in minor units.
 *
 * @param name the statement's own number; empty for a file without statements
 * @param opening balance before it; {@link io.mivrel.model.SourceRecord#ABSENT} when not known
 * @param movement sum of its entries
 * @param closing balance after it; {@link io.mivrel.model.SourceRecord#ABSENT} when not known
 * @param from first day; {@code null} when not known
 * @param to last day; {@code null} when not known
 */
public record StatementSpan(
        String name,
        long opening,
        long movement,
        long closing,
        @Nullable LocalDate from,
        @Nullable LocalDate to) {}
