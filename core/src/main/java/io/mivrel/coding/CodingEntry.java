package io.mivrel.coding;

import io.mivrel.model.Posting;
import io.mivrel.model.SourceRecord;
import io.mivrel.model.Split;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One entry of a coding table.
 *
 * @param name the entry's own name, unique in its table
 * @param direction whether money came in or went out
 * @param words any of these phrases must stand in the narrative or payee as whole words, without regard to case; a star
 *     at an end of a phrase lets the word go on there. Empty when words do not matter
 * @param from smallest amount in minor units without sign; {@link SourceRecord#ABSENT} for none
 * @param to largest amount in minor units without sign; {@link SourceRecord#ABSENT} for none
 * @param narrative text to use instead of the bank's; {@code null} to keep that
 * @param postings where the amount goes, each with an account; several split it
 */
public record CodingEntry(
        String name,
        Direction direction,
        List<String> words,
        long from,
        long to,
        @Nullable String narrative,
        List<Posting> postings) {
    /** Throws {@link IllegalArgumentException} when the postings do not come to the whole amount. */
    public CodingEntry {
        Objects.requireNonNull(name);
        Objects.requireNonNull(direction);
        words = List.copyOf(words);
        postings = List.copyOf(postings);
        postings.forEach(posting -> Objects.requireNonNull(posting.account()));
        String gap = postings.isEmpty() ? "it has no posting" : Split.gap(postings);
        if (gap != null) {
            throw new IllegalArgumentException("coding entry '" + name + "': " + gap);
        }
    }

    /** An entry that goes by words only and posts the whole amount. */
    public static CodingEntry words(String name, Direction direction, String account, String... words) {
        return new CodingEntry(
                name,
                direction,
                List.of(words),
                SourceRecord.ABSENT,
                SourceRecord.ABSENT,
                null,
                List.of(Posting.whole(account, null, null)));
    }

    /** The same, posting to these. */
    public CodingEntry postingTo(Posting... split) {
        return new CodingEntry(name, direction, words, from, to, narrative, List.of(split));
    }
}
