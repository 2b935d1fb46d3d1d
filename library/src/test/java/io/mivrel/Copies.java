package io.mivrel;

import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** A workbook of held rows in the hands of a person: its sheets as texts, to change and save. */
final class Copies {
    final Map<String, List<List<String>>> sheets = new LinkedHashMap<>();
    private final Path file;
    private final Set<String> numbers = new HashSet<>();

    Copies(Path file) throws IOException {
        this.file = file;
        for (String name : Workbooks.shown(file)) {
            List<List<String>> rows = new ArrayList<>();
            try (RowSource source = Workbooks.open(file, name)) {
                for (Row row = source.next(); row != null; row = source.next()) {
                    List<String> cells = new ArrayList<>();
                    for (int i = 0; i < row.size(); i++) {
                        cells.add(row.text(i));
                    }
                    rows.add(cells);
                }
            }
            sheets.put(name, rows);
        }
    }

    /** The only workbook in the folder. */
    static Copies in(Path folder) throws IOException {
        try (var files = Files.list(folder)) {
            return new Copies(files.filter(f -> f.toString().endsWith(".xlsx"))
                    .max(java.util.Comparator.comparing(Path::toString))
                    .orElseThrow());
        }
    }

    /** Puts a value under a title, in the row that holds a text. */
    Copies put(String sheet, String rowWith, String title, String value) {
        List<List<String>> rows = sheets.get(sheet);
        int column = rows.get(0).indexOf(title);
        List<String> row = rows.stream()
                .filter(r -> r.contains(rowWith))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(rowWith + " is not in " + rows));
        while (row.size() <= column) {
            row.add("");
        }
        row.set(column, value);
        return this;
    }

    /** A value that is saved as a number. */
    Copies number(String sheet, String rowWith, String title, String value) {
        numbers.add(value);
        return put(sheet, rowWith, title, value);
    }

    /** Moves a column with its title to another place. */
    Copies move(String sheet, String title, int to) {
        int from = sheets.get(sheet).get(0).indexOf(title);
        for (List<String> row : sheets.get(sheet)) {
            while (row.size() <= Math.max(from, to)) {
                row.add("");
            }
            row.add(to, row.remove(from));
        }
        return this;
    }

    Copies insert(String sheet, int at, String title) {
        sheets.get(sheet)
                .forEach(row -> row.add(
                        Math.min(at, row.size()), row == sheets.get(sheet).get(0) ? title : ""));
        return this;
    }

    Copies rename(String sheet, String title, String other) {
        sheets.get(sheet).get(0).replaceAll(t -> t.equals(title) ? other : t);
        return this;
    }

    Copies decide(String sheet, String rowWith, String decision) {
        return put(sheet, rowWith, "Mivrel decision", decision)
                .put(sheet, rowWith, "Mivrel who", "A. Reed")
                .put(sheet, rowWith, "Mivrel why", "seen on paper");
    }

    void save() throws IOException {
        saveAs(file);
    }

    void saveAs(Path target) throws IOException {
        try (OutputStream out = Files.newOutputStream(target);
                Workbook book = new Workbook(out, "Test", "1.0")) {
            sheets.forEach((name, rows) -> {
                Worksheet sheet = book.newWorksheet(name);
                for (int r = 0; r < rows.size(); r++) {
                    for (int c = 0; c < rows.get(r).size(); c++) {
                        if (numbers.contains(rows.get(r).get(c))) {
                            sheet.value(r, c, new BigDecimal(rows.get(r).get(c)));
                        } else if (!rows.get(r).get(c).isEmpty()) {
                            sheet.value(r, c, rows.get(r).get(c));
                        }
                    }
                }
            });
        }
    }
}
