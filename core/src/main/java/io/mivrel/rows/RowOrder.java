package io.mivrel.rows;

import java.util.Arrays;
import java.util.List;

/** In which order of time the rows of a file stand. */
public enum RowOrder {
    OLDEST_FIRST("oldest first"),
    NEWEST_FIRST("newest first"),
    /** The latest day comes first, but the rows of a day stand as they were booked. */
    NEWEST_DAY_FIRST("newest day first");

    private final String word;

    RowOrder(String word) {
        this.word = word;
    }

    /** As layouts write it. */
    public String word() {
        return word;
    }

    /** The order of a word; throws when there is none. */
    public static RowOrder of(String word) {
        return Arrays.stream(values())
                .filter(o -> o.word.equals(word))
                .findFirst()
                .orElseThrow();
    }

    /** All words. */
    public static List<String> words() {
        return Arrays.stream(values()).map(RowOrder::word).toList();
    }
}
