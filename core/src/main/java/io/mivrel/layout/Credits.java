package io.mivrel.layout;

import java.util.Arrays;
import java.util.List;

/** How a list of documents writes the figures of its credits; records have them positive. */
public enum Credits {
    POSITIVE("positive"),
    NEGATIVE("negative"),
    /** They stand in a column of their own, which the layout takes off. */
    BOTH_SIDES("both sides");

    private final String word;

    Credits(String word) {
        this.word = word;
    }

    /** True when the figures of a credit are below nil once they are read. */
    public boolean turned() {
        return this != POSITIVE;
    }

    /** As layouts write it. */
    public String word() {
        return word;
    }

    public static Credits of(String word) {
        return Arrays.stream(values())
                .filter(c -> c.word.equals(word))
                .findFirst()
                .orElseThrow();
    }

    public static List<String> words() {
        return Arrays.stream(values()).map(Credits::word).toList();
    }
}
