package io.mivrel.start;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Something that only a person can say.
 *
 * @param about what it is called where answers are written down, such as {@code account} or {@code current: account}
 * @param words the question
 * @param usual the answer that is taken when none is given; {@code null} when there is none that the files speak for
 * @param choices the allowed answers, each with what it means behind a tab; empty when others are allowed too
 * @param help lines to show with it, such as samples; empty for none
 */
public record StartQuestion(
        String about, String words, @Nullable String usual, List<String> choices, List<String> help) {
    public StartQuestion {
        choices = List.copyOf(choices);
        help = List.copyOf(help);
    }

    static StartQuestion of(String about, String words) {
        return new StartQuestion(about, words, null, List.of(), List.of());
    }

    StartQuestion usually(@Nullable String answer) {
        return new StartQuestion(about, words, answer, choices, help);
    }

    StartQuestion choosing(List<String> among) {
        return new StartQuestion(about, words, usual, among, help);
    }

    StartQuestion showing(List<String> lines) {
        return new StartQuestion(about, words, usual, choices, lines);
    }
}
