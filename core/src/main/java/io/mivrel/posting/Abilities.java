package io.mivrel.posting;

import java.util.Set;

/**
 * What a ledger can do, and its limits.
 *
 * @param drafts entries can wait as drafts
 * @param finals entries can be posted for good
 * @param replaces an entry can be replaced under its key
 * @param withdraws a batch can be taken back
 * @param rehearses it says beforehand what it would answer
 * @param createsParties customers and suppliers can be created
 * @param kinds the kinds of documents that it takes, in the words of {@link Entry#kind}; empty for any kind
 * @param entriesAtMost entries that one call takes, at least 1
 * @param linesAtMost lines of one entry
 * @param textAtMost characters of a narrative
 * @param referenceAtMost characters of a reference
 */
public record Abilities(
        boolean drafts,
        boolean finals,
        boolean replaces,
        boolean withdraws,
        boolean rehearses,
        boolean createsParties,
        Set<String> kinds,
        int entriesAtMost,
        int linesAtMost,
        int textAtMost,
        int referenceAtMost) {
    public Abilities {
        kinds = Set.copyOf(kinds);
        if (entriesAtMost < 1) {
            throw new IllegalArgumentException("a ledger takes at least one entry a call");
        }
    }

    /** True when it takes documents of this kind. */
    public boolean takes(String kind) {
        return kinds.isEmpty() || kinds.contains(kind);
    }
}
