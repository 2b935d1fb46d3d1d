/**
 * What came before: in the same run, in the files of earlier ones, and in what was delivered. {@link
 * io.mivrel.history.DocumentHistory} is what the register knows; {@code RepeatedDocuments} finds documents that are in a run
 * twice, {@code RepeatFinding} words it; {@code Overlaps} tells rows that two files share, {@code Continuity} whether statements
 * follow one another, {@code Transfers} the other ends of transfers. Equal lines within one document are a check's ({@code
 * checking}).
 */
@NullMarked
package io.mivrel.history;

import org.jspecify.annotations.NullMarked;
