package io.mivrel.files.settings;

import java.nio.file.Path;
import java.util.Map;

/** Reads answers to questions from YAML: a line for each, {@code currency: GBP}. */
public final class AnswersFile {
    private AnswersFile() {}

    /** The answers by what they are about; throws with every mistake of the file. */
    public static Map<String, String> read(Path file) throws SettingsException {
        Problems problems = new Problems();
        SettingsNode form = SettingsNode.open(file, file.toString(), problems);
        Map<String, String> answers = form == null ? Map.of() : form.all();
        problems.throwIfAny();
        return answers;
    }
}
