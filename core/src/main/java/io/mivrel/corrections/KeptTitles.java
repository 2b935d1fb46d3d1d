package io.mivrel.corrections;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The title of a column in copies of held rows that keeps the titles of the source in their order: columns may be moved. */
public final class KeptTitles {
    /** How the title begins. */
    public static final String BEGINS = "Mivrel titles";

    private KeptTitles() {}

    /** The title that keeps these. */
    public static String of(List<String> titles) {
        // A copy of a copy has such columns among its own, and then their places count.
        if (titles.stream().anyMatch(title -> title.startsWith("Mivrel "))) {
            return BEGINS;
        }
        return BEGINS + " "
                + titles.stream()
                        .map(title -> title.strip().replace("\\", "\\\\").replace("|", "\\p"))
                        .collect(Collectors.joining("|"));
    }

    /** What is kept by one of these titles; {@code null} when none of them keeps any. */
    public static @Nullable List<String> in(List<String> titles) {
        String last = titles.stream().filter(title -> title.startsWith(BEGINS)).reduce(BEGINS, (a, b) -> b);
        return last.equals(BEGINS)
                ? null
                : Stream.of(last.substring(BEGINS.length() + 1).split("\\|", -1))
                        .map(t -> t.replace("\\p", "|").replace("\\\\", "\\"))
                        .toList();
    }
}
