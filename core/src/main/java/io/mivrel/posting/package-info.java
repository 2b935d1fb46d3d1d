/**
 * From clear documents to entries in a ledger, exactly once, and back out; and the arithmetic that proves both. {@link
 * io.mivrel.posting.Ledger} is the interface of the receiving books, {@link io.mivrel.posting.PostingLog} the memory of what
 * was sent; {@link io.mivrel.posting.Poster} sends.
 */
@NullMarked
package io.mivrel.posting;

import org.jspecify.annotations.NullMarked;
