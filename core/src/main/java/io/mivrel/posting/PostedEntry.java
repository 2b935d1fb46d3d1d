package io.mivrel.posting;

import org.jspecify.annotations.Nullable;

/**
 * An entry as it stands in a ledger.
 *
 * @param number the ledger's own number
 * @param batch key of the batch it came with; {@code null} for one that was entered otherwise
 * @param recorded its place in the order in which the ledger recorded things; see {@link Ledger#mark}
 * @param removed the place of its removal in that order; 0 when it was not removed
 * @param reverses number of the entry that it reverses; {@code null} for none
 */
public record PostedEntry(
        Entry entry,
        String number,
        @Nullable String batch,
        Standing standing,
        long recorded,
        long removed,
        @Nullable String reverses) {}
