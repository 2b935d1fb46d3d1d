package io.mivrel.corrections;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** What a person can say of a held row, besides correcting its cells or choosing its account. */
public enum Decision {
    /** It is right as it stands; what held it is overridden. */
    KEEP("keep"),
    /** It is no document of this run. */
    LEAVE_OUT("leave out");

    private final String word;

    Decision(String word) {
        this.word = word;
    }

    /** As it is written down. */
    public String word() {
        return word;
    }

    public static Optional<Decision> of(String word) {
        return Arrays.stream(values())
                .filter(d -> d.word.equalsIgnoreCase(word.strip()))
                .findFirst();
    }

    public static List<String> words() {
        return Arrays.stream(values()).map(Decision::word).toList();
    }
}
