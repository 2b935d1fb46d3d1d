package io.mivrel.files.settings;

import io.mivrel.text.Printable;

/**
 * One mistake in a settings file.
 *
 * @param file the file as the user knows it
 * @param line from 1; 0 for the file as a whole
 * @param column from 1; 0 when only the line is known
 * @param message what is wrong and what is allowed
 * @param suggestion the nearest allowed word, or what to do; empty for none
 */
public record SettingsProblem(String file, int line, int column, String message, String suggestion) {

    @Override
    public String toString() {
        String place = line == 0 ? file : column == 0 ? file + ":" + line : file + ":" + line + ":" + column;
        return Printable.of(place + ": " + message)
                + (suggestion.isEmpty() ? "" : "\n    -> " + Printable.of(suggestion));
    }
}
