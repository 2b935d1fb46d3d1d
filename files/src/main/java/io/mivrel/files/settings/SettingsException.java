package io.mivrel.files.settings;

import java.util.List;
import java.util.stream.Collectors;

/** The settings are wrong: all mistakes of all files, found before any data was read. */
public final class SettingsException extends Exception {
    private static final long serialVersionUID = 1L;

    private final transient List<SettingsProblem> problems;

    public SettingsException(List<SettingsProblem> problems) {
        super(problems.stream().map(SettingsProblem::toString).collect(Collectors.joining("\n")));
        this.problems = List.copyOf(problems);
    }

    /** At least one. */
    public List<SettingsProblem> problems() {
        return problems;
    }
}
