/**
 * From records to documents: {@link io.mivrel.drafting.Grouping} brings the records of one document together, also when
 * they stand apart in the file, and a {@link io.mivrel.drafting.Drafter} makes the document of them with its double
 * entry.
 */
package io.mivrel.drafting;
