package io.mivrel.cli;

import io.mivrel.Company;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** Lines to paste where a command was used wrongly: the run sheets that are near. */
final class NextLine {
    private static final int MOST = 8;

    private NextLine() {}

    /** The command with each run sheet of a folder, or of those right below it where it has none. */
    static List<String> withRunSheets(String command, Path folder) {
        List<String> lines = new ArrayList<>();
        for (Path sheet : runSheets(folder)) {
            lines.add("  mivrel " + command + " " + Shell.quoted(sheet.toString()));
        }
        return lines.subList(0, Math.min(MOST, lines.size()));
    }

    private static List<Path> runSheets(Path folder) {
        List<Path> found = new ArrayList<>(of(folder));
        if (found.isEmpty()) {
            folders(folder).forEach(below -> found.addAll(of(below)));
        }
        return found;
    }

    /** Folders right below one that have run sheets. */
    static List<Path> companies(Path folder) {
        return folders(folder).stream().filter(below -> !of(below).isEmpty()).toList();
    }

    private static List<Path> of(Path folder) {
        try {
            Path named = folder.toString().isEmpty() ? Path.of(".") : folder;
            return Company.in(named).runSheets().stream()
                    .map(sheet -> folder.resolve(sheet.getFileName()))
                    .toList();
        } catch (IOException nothingToSuggest) {
            return List.of();
        }
    }

    private static List<Path> folders(Path folder) {
        try (Stream<Path> inside = Files.list(folder.toString().isEmpty() ? Path.of(".") : folder)) {
            return inside.filter(Files::isDirectory)
                    .map(below -> folder.resolve(below.getFileName()))
                    .sorted()
                    .limit(50)
                    .toList();
        } catch (IOException nothingToSuggest) {
            return List.of();
        }
    }
}
