/**
 * The kinds of documents that ship, each with its table of fields, its {@link io.mivrel.model.Kind} and its drafter: bank
 * transactions ({@link io.mivrel.kinds.BankLines}), journals ({@link io.mivrel.kinds.JournalLines}) and invoices ({@link
 * io.mivrel.kinds.InvoiceLines}). {@link io.mivrel.kinds.Kinds} lists them. A further kind stands here, or in the code of
 * whoever needs it.
 */
@NullMarked
package io.mivrel.kinds;

import org.jspecify.annotations.NullMarked;
