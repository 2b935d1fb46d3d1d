package io.mivrel.files.settings;

import io.mivrel.books.Nearest;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/** Collects the mistakes of all settings files of a run. For one thread. */
final class Problems {
    private final List<SettingsProblem> found = new ArrayList<>();

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
                what + " '" + word + "' is not known; allowed: " + String.join(", ", allowed),
                near == null ? "" : "was '" + near + "' meant?");
    }

    int count() {
        return found.size();
    }

    void throwIfAny() throws SettingsException {
        if (!found.isEmpty()) {
            throw new SettingsException(found);
        }
    }
}
