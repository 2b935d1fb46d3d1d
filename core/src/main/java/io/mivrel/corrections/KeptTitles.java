package io.mivrel.corrections;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The title of a column in copies of held rows that keeps the titles of the source in their order: columns may be moved. */
public final class KeptTitles {
    /** How the title begins. */
    public static final String BEGINS = "Mivrel titles";

    /** Somewhat less than a cell of a workbook holds (ECMA-376 part 1, 18.3.1.4: 32,767 characters). */
    private static final int MOST = 30_000;

    private KeptTitles() {}

    /** A title as it is compared: a spreadsheet writes line ends and blanks within it as it likes. */
    public static String plain(String title) {
        return title.replaceAll("\\s+", " ").strip();
    }

    /** The title that keeps these. */
    public static String of(List<String> titles) {
        // A copy of a copy has such columns among its own, and then their places count.
        String kept = titles.stream()
                .map(title -> plain(title).replace("\\", "\\\\").replace("|", "\\p"))
                .collect(Collectors.joining("|"));
        boolean copied = titles.stream().anyMatch(title -> title.startsWith("Mivrel "));
        return copied || kept.isEmpty() || kept.length() > MOST ? BEGINS : BEGINS + " " + kept;
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
