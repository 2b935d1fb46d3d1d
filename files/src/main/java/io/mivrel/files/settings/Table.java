package io.mivrel.files.settings;

import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A small CSV file with titles in its first row, read whole: books and coding tables. */
final class Table {
    final String file;
    private final Problems problems;
    private final List<String> titles = new ArrayList<>();
    private final List<Line> lines = new ArrayList<>();

    /** One row: its cells by title, blank ones left out. */
    final class Line {
        private final long number;
        private final Map<String, String> cells = new HashMap<>();

        private Line(long number) {
            this.number = number;
        }

        /** The cell under a title, or {@code null} when it is blank. */
        String text(String title) {
            return cells.get(title);
        }

        /** The cell under a title; {@code null}, with the problem reported, when it is blank. */
        String required(String title) {
            String text = cells.get(title);
            if (text == null) {
                wrong("'" + title + "' is blank", "");
            }
            return text;
        }

        /** One of the allowed words, {@code otherwise} when blank or wrong. */
        String choice(String title, String otherwise, Collection<String> allowed) {
            String text = cells.get(title);
            if (text == null) {
                return otherwise;
            }
            if (!allowed.contains(text)) {
                problems.notAllowed(file, (int) number, titles.indexOf(title) + 1, "'" + title + "':", text, allowed);
                return otherwise;
            }
            return text;
        }

        String choice(String title, String otherwise, String... allowed) {
            return choice(title, otherwise, Arrays.asList(allowed));
        }

        void wrong(String message, String suggestion) {
            problems.add(file, (int) number, 0, message, suggestion);
        }

        void notAllowed(String title, String word, Collection<String> allowed) {
            problems.notAllowed(file, (int) number, titles.indexOf(title) + 1, "'" + title + "':", word, allowed);
        }
    }

    private Table(String file, Problems problems) {
        this.file = file;
        this.problems = problems;
    }

    /**
     * Reads a table whose titles are among {@code required} and {@code optional}; answers {@code null}, with the
     * problems reported, when it cannot be used.
     */
    static Table read(Path path, String shown, List<String> required, List<String> optional, Problems problems) {
        Table table = new Table(shown, problems);
        if (!Files.isRegularFile(path)) {
            problems.add(
                    shown,
                    0,
                    0,
                    Files.isDirectory(path) ? "is a folder, a file was expected" : "there is no such file",
                    "");
            return null;
        }
        try (SeparatedRows rows = SeparatedRows.open(path, ',', FileFormat.AUTO)) {
            Row first = rows.next();
            if (first == null || first.fault() != null || !table.readTitles(first, required, optional)) {
                if (first == null || first.fault() != null) {
                    problems.add(
                            shown,
                            first == null ? 0 : 1,
                            0,
                            "has no titles that can be read",
                            String.join(",", required));
                }
                return null;
            }
            for (Row row = rows.next(); row != null; row = rows.next()) {
                table.readLine(row);
            }
            return table;
        } catch (IOException e) {
            problems.add(shown, 0, 0, "cannot be read: " + e.getMessage(), "");
            return null;
        }
    }

    private boolean readTitles(Row row, List<String> required, List<String> optional) {
        List<String> allowed = new ArrayList<>(required);
        allowed.addAll(optional);
        int before = problems.count();
        for (int i = 0; i < row.size(); i++) {
            String title = row.trimmed(i);
            if (!allowed.contains(title)) {
                problems.notAllowed(file, 1, i + 1, "title", title, allowed);
            } else if (titles.contains(title)) {
                problems.add(file, 1, i + 1, "the title '" + title + "' stands twice", "");
            }
            titles.add(title);
        }
        for (String title : required) {
            if (!titles.contains(title)) {
                problems.add(file, 1, 0, "the title '" + title + "' is missing", "");
            }
        }
        return problems.count() == before;
    }

    private void readLine(Row row) {
        if (row.isBlank()) {
            return;
        }
        if (row.fault() != null) {
            problems.add(file, (int) row.number(), 0, "the row " + row.fault().reason(), "");
            return;
        }
        if (row.size() > titles.size()) {
            problems.add(
                    file,
                    (int) row.number(),
                    0,
                    "has " + row.size() + " cells, but there are " + titles.size() + " titles",
                    "quote a text that holds a comma");
            return;
        }
        Line line = new Line(row.number());
        for (int i = 0; i < row.size(); i++) {
            String text = row.trimmed(i);
            if (!text.isEmpty()) {
                line.cells.put(titles.get(i), text);
            }
        }
        lines.add(line);
    }

    List<Line> lines() {
        return lines;
    }
}
