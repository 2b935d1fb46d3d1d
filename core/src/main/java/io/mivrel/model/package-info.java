/**
 * The values that travel through a run: what a field is ({@link io.mivrel.model.Field}, declared once in the tables
 * {@link io.mivrel.kinds.BankLines}, {@link io.mivrel.model.JournalLines} and {@link io.mivrel.model.InvoiceLines}),
 * a typed row ({@link io.mivrel.model.SourceRecord}), what rows become ({@link io.mivrel.model.Document}), and what is
 * noticed on the way ({@link io.mivrel.model.Finding} of a {@link io.mivrel.model.Rule}).
 *
 * <p>Amounts are {@code long} minor units of the books' currency; debit is positive, credit negative. Everything here
 * is immutable once built, except {@link io.mivrel.model.Totals}, which is a counter.
 */
package io.mivrel.model;
