/**
 * Telling people and machines what a run did: {@link io.mivrel.report.SummaryText} for the screen, {@link
 * io.mivrel.report.OutcomeJson} with the same content for machines, and {@link io.mivrel.report.EvidenceFolder} for
 * whoever asks later, with the held rows to correct.
 */
@NullMarked
package io.mivrel.report;

import org.jspecify.annotations.NullMarked;
