package io.mivrel.files.settings;

import io.mivrel.text.Nearest;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;

/** Collects the mistakes of all settings files of a run, and the tables that these name and that were read with them. For one thread. */
final class Problems {
    private static final int MOST_SHOWN = 16;
    private static final int NEAREST = 5;

    private final List<SettingsProblem> found = new ArrayList<>();
    private final List<Path> tables = new ArrayList<>();

    void table(Path read) {
        tables.add(read);
    }

    /** Files that settings files name, and that were read with them. */
    List<Path> tables() {
        return tables;
    }

    void add(String file, int line, int column, String message, String suggestion) {
        found.add(new SettingsProblem(file, line, column, message, suggestion));
    }

    /** A word that is not among the allowed ones. */
    void notAllowed(String file, int line, int column, String what, String word, Collection<String> allowed) {
        String near = Nearest.one(word, allowed);
        add(
                file,
                line,
                column,
                what + " '" + word + "' is not known; allowed: " + shown(word, allowed),
                near == null ? "" : "was '" + near + "' meant?");
    }

    // A chart of accounts is too long to recite: those that begin most like the word.
    private static String shown(String word, Collection<String> allowed) {
        if (allowed.size() <= MOST_SHOWN) {
            return String.join(", ", allowed);
        }
        String nearest = allowed.stream()
                .sorted(Comparator.comparingInt((String one) -> -sharedStart(word, one)))
                .limit(NEAREST)
                .collect(Collectors.joining(", "));
        return nearest + " and " + (allowed.size() - NEAREST) + " more";
    }

    private static int sharedStart(String word, String other) {
        int shared = 0;
        while (shared < Math.min(word.length(), other.length()) && word.charAt(shared) == other.charAt(shared)) {
            shared++;
        }
        return shared;
    }

    int count() {
        return found.size();
    }

    void throwIfAny() throws SettingsException {
        if (!found.isEmpty()) {
            // File by file in the order they were read, and down each file.
            List<String> files =
                    found.stream().map(SettingsProblem::file).distinct().toList();
            found.sort(Comparator.<SettingsProblem>comparingInt(p -> files.indexOf(p.file()))
                    .thenComparingInt(SettingsProblem::line)
                    .thenComparingInt(SettingsProblem::column));
            throw new SettingsException(found);
        }
    }
}
