package io.mivrel.posting;

import org.jspecify.annotations.Nullable;

/**
 * What a ledger says of one entry that was posted, rehearsed or withdrawn.
 *
 * @param key of the entry
 * @param number the ledger's own number for it; {@code null} when it has none
 * @param code the ledger's code of a refusal; {@code null} for none
 * @param words the ledger's words; {@code null} for none
 * @param line place of the line that it is about, from 1; 0 for the whole entry
 */
public record Answer(
        String key,
        Result result,
        @Nullable String number,
        @Nullable String code,
        @Nullable String words,
        int line) {

    /** What was done. */
    public enum Result {
        ADDED,
        REPLACED,
        /** It is there with the same content; nothing was done. */
        THERE,
        /** It is there with other content and stays so, as {@link PostMode#SKIP_EXISTING} asks. */
        SKIPPED,
        /** It is there with other content, and nothing was done. */
        DIFFERS,
        REFUSED,
        /** A draft that was taken out. */
        REMOVED,
        /** A final entry that was reversed. */
        REVERSED
    }

    public static Answer of(String key, Result result, @Nullable String number) {
        return new Answer(key, result, number, null, null, 0);
    }

    public static Answer refused(String key, String code, String words, int line) {
        return new Answer(key, Result.REFUSED, null, code, words, line);
    }
}
