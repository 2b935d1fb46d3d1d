package io.mivrel.files;

import io.mivrel.corrections.RowKey;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.run.UncodedGroups;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Reads what people filled in on the sheets of uncoded groups: the accounts that lines with some words go to. */
public final class UncodedSheets {
    private UncodedSheets() {}

    /**
     * A group that was given an account.
     *
     * @param place where it was written, for people
     * @param cells the cells of a coding table by its titles, those that are blank left out
     * @param lines how many lines the run held for want of it
     */
    public record Filled(String place, Map<String, String> cells, String lines) {}

    /** All groups with an account, workbook by workbook; those that cannot be read are told when a run takes them in. */
    public static List<Filled> in(Path folder) {
        List<Filled> filled = new ArrayList<>();
        for (Path file : CorrectionFiles.in(folder)) {
            String name = file.getFileName().toString();
            if (!name.toLowerCase(Locale.ROOT).matches(".*\\.(xlsx|ods|xls)")) {
                continue;
            }
            try {
                if (Workbooks.shown(file).contains(UncodedGroups.SHEET)) {
                    try (RowSource rows = Workbooks.open(file, UncodedGroups.SHEET)) {
                        read(rows, "corrections/" + name, filled);
                    }
                }
            } catch (IOException toldByTheRun) {
                // A workbook that cannot be read holds the run.
            }
        }
        return filled;
    }

    private static void read(RowSource rows, String place, List<Filled> filled) throws IOException {
        List<String> titles = List.of();
        for (Row row = rows.next(); row != null; row = rows.next()) {
            List<String> cells = RowKey.cells(row);
            if (titles.isEmpty()) {
                titles = cells;
                continue;
            }
            Map<String, String> found = new LinkedHashMap<>();
            for (int i = 0; i < Math.min(titles.size(), cells.size()); i++) {
                if (!cells.get(i).isBlank()) {
                    found.put(titles.get(i), cells.get(i).strip());
                }
            }
            String lines = found.getOrDefault("lines", "");
            found.keySet().removeAll(List.of("lines", "amount", "example"));
            if (found.containsKey("account")) {
                filled.add(new Filled(place + " sheet " + UncodedGroups.SHEET + " row " + row.number(), found, lines));
            }
        }
    }
}
