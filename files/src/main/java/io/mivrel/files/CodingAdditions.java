package io.mivrel.files;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.coding.CodingEntry;
import io.mivrel.coding.CodingTable;
import io.mivrel.files.UncodedSheets.Filled;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsFiles;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Entries that people filled in on the sheets of uncoded groups, as they would stand at the end of a coding table. The table is
 * only changed by {@link #append}, which checks the whole of it before it takes the place of the old one.
 */
public final class CodingAdditions {
    private final Path table;
    private final Books books;
    private final List<Filled> fresh = new ArrayList<>();

    private CodingAdditions(Path table, Books books) {
        this.table = table;
        this.books = books;
    }

    /**
     * What is filled in and not in the table yet.
     *
     * @param table a coding table, a CSV file
     * @param corrections the folder with the workbooks
     */
    public static CodingAdditions of(Path table, Path corrections, Books books) throws SettingsException {
        CodingAdditions additions = new CodingAdditions(table, books);
        CodingTable now = SettingsFiles.coding(table, books);
        Set<String> names = new HashSet<>();
        Set<String> known = new HashSet<>();
        for (CodingEntry entry : now.entries()) {
            names.add(entry.name());
            known.add(key(entry.direction().name(), String.join(" | ", entry.words())));
        }
        for (Filled one : UncodedSheets.in(corrections)) {
            Map<String, String> cells = new LinkedHashMap<>(one.cells());
            String words = cells.getOrDefault("words", "");
            if (known.add(key(cells.getOrDefault("direction", "either"), words))) {
                cells.put("entry", name(words, names));
                cells.put("account", additions.code(cells.getOrDefault("account", "")));
                additions.fresh.add(new Filled(one.place(), cells, one.lines()));
            }
        }
        return additions;
    }

    private static String key(String direction, String words) {
        return direction.toLowerCase(Locale.ROOT) + " " + words.toLowerCase(Locale.ROOT);
    }

    private static String name(String words, Set<String> taken) {
        String name = words.toLowerCase(Locale.ROOT);
        for (int n = 2; !taken.add(name); n++) {
            name = words.toLowerCase(Locale.ROOT) + " " + n;
        }
        return name;
    }

    // The list of accounts in the workbook shows code and name, and people copy both.
    private String code(String written) {
        return books.accounts().stream()
                .filter(account -> account.label().equalsIgnoreCase(written))
                .map(Account::code)
                .findFirst()
                .orElse(written);
    }

    /** The new entries, each with where it was written. */
    public List<Filled> entries() {
        return List.copyOf(fresh);
    }

    /** Adds them to the table. Throws with every mistake, and then the table is as it was. */
    public void append() throws SettingsException, IOException {
        String text = Files.readString(table);
        String ends = text.contains("\r\n") ? "\r\n" : "\n";
        List<String> titles = List.of(text.lines()
                        .findFirst()
                        .orElse("")
                        .replace("\uFEFF", "")
                        .split(",", -1))
                .stream()
                .map(title -> title.strip().replace("\"", ""))
                .toList();
        StringWriter more = new StringWriter();
        try (CsvWriter csv = CsvWriter.builder()
                .lineDelimiter(ends.length() == 2 ? LineDelimiter.CRLF : LineDelimiter.LF)
                .build(more)) {
            for (Filled one : fresh) {
                csv.writeRecord(titles.stream()
                        .map(title -> one.cells().getOrDefault(title, ""))
                        .toList());
            }
        }
        Path whole = table.resolveSibling("." + table.getFileName() + ".new");
        try {
            Files.writeString(whole, text + (text.endsWith("\n") ? "" : ends) + more, StandardCharsets.UTF_8);
            SettingsFiles.coding(whole, books);
            Files.move(whole, table, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(whole);
        }
    }
}
