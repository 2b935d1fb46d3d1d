package io.mivrel.survey;

import io.mivrel.model.Kind;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a person says of a file: answers to a survey's questions, by what they are about, whether the survey would ask them or
 * not. Immutable.
 */
public record Answers(Map<String, String> all) {
    /** Nothing is said. */
    public static final Answers NONE = new Answers(Map.of());

    /** What a survey reads anew by; other answers only take the place of their question. */
    private static final Set<String> READ_BY = Set.of(
            "gives",
            "currency",
            "date",
            "language",
            "numbers",
            "signs",
            "amount",
            "leave out",
            "opening",
            "closing",
            "sheet",
            "encoding");

    public Answers {
        all = Map.copyOf(all);
    }

    /** The same with one answer more. */
    public Answers with(String about, String answer) {
        Map<String, String> more = new LinkedHashMap<>(all);
        more.put(about, answer);
        return new Answers(more);
    }

    /** What changes how a file is read, whether it is asked or not. */
    public static Set<String> readBy() {
        return READ_BY;
    }

    /** {@code null} when nothing was said about it. */
    public @Nullable String of(String about) {
        return all.get(about);
    }

    /** Which of the kinds its records are of; {@code null} when nobody said. */
    public @Nullable Kind gives(List<Kind> kinds) {
        String word = all.get("gives");
        return kinds.stream()
                .filter(kind -> kind.name().equals(word))
                .findFirst()
                .orElse(null);
    }

    /** The currency of amounts in a file that states none; {@code null} when nobody said. */
    public @Nullable Currency currency() {
        String code = all.get("currency");
        return code == null ? null : Currency.getInstance(code);
    }
}
