/**
 * From records to documents: {@link io.mivrel.drafting.Grouping} brings the records of one document together, also when
 * they stand apart in the file, and {@link io.mivrel.drafting.DocumentTree} makes the tree of a document of them, for the
 * {@link io.mivrel.model.Drafter} of its kind.
 */
@NullMarked
package io.mivrel.drafting;

import org.jspecify.annotations.NullMarked;
