package io.mivrel.corrections;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The title of a column in copies of held rows that keeps the titles of the source in their order: columns may be moved. */
public final class KeptTitles {
    private static final String BEGINS = "Mivrel titles ";

    private KeptTitles() {}

    /** The title that keeps these. */
    public static String of(List<String> titles) {
        return BEGINS
                + titles.stream()
                        .map(title -> title.strip().replace("\\", "\\\\").replace("|", "\\p"))
                        .collect(Collectors.joining("|"));
    }

    /** What is kept by one of these titles; {@code null} when none of them keeps any. */
    public static @Nullable List<String> in(List<String> titles) {
        for (String title : titles) {
            if (title.startsWith(BEGINS)) {
                return Stream.of(title.substring(BEGINS.length()).split("\\|", -1))
                        .map(t -> t.replace("\\p", "|").replace("\\\\", "\\"))
                        .toList();
            }
        }
        return null;
    }
}
