package io.mivrel.coding;

import io.mivrel.model.SourceRecord;
import java.util.List;
import java.util.Objects;

/**
 * One entry of a coding table.
 *
 * @param name the entry's own name, unique in its table
 * @param direction whether money came in or went out
 * @param words any of these phrases must stand in the narrative or payee as whole words, without regard to case; a star
 *     at an end of a phrase lets the word go on there. Empty when words do not matter
 * @param from smallest amount in minor units without sign; {@link SourceRecord#ABSENT} for none
 * @param to largest amount in minor units without sign; {@link SourceRecord#ABSENT} for none
 * @param account account code given
 * @param taxCode tax contained in the amount; {@code null} for none
 * @param party customer or supplier code; {@code null} for none
 * @param narrative text to use instead of the bank's; {@code null} to keep that
 */
public record CodingEntry(
        String name,
        Direction direction,
        List<String> words,
        long from,
        long to,
        String account,
        String taxCode,
        String party,
        String narrative) {

    public CodingEntry {
        Objects.requireNonNull(name);
        Objects.requireNonNull(direction);
        Objects.requireNonNull(account);
        words = List.copyOf(words);
    }

    /** An entry that goes by words only. */
    public static CodingEntry words(String name, Direction direction, String account, String... words) {
        return new CodingEntry(
                name, direction, List.of(words), SourceRecord.ABSENT, SourceRecord.ABSENT, account, null, null, null);
    }
}
