/**
 * The ideas that a run is made of: a {@link io.mivrel.model.Kind} with its {@link io.mivrel.model.FieldTable} and {@link
 * io.mivrel.model.Drafter}; a typed row ({@link io.mivrel.model.SourceRecord}); what rows become ({@link
 * io.mivrel.model.Document}, a tree of {@link io.mivrel.model.Line}s); and what is noticed on the way ({@link
 * io.mivrel.model.Finding} of a {@link io.mivrel.model.Rule}).
 *
 * <p>Amounts are {@code long} minor units, and their currency stands beside them; debit is positive, credit negative.
 */
@NullMarked
package io.mivrel.model;

import org.jspecify.annotations.NullMarked;
