package io.mivrel.files;

import io.mivrel.corrections.Correction;
import io.mivrel.corrections.Decision;
import io.mivrel.corrections.KeptTitles;
import io.mivrel.corrections.RowKey;
import io.mivrel.files.lines.HandedBack;
import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.files.settings.SettingsProblem;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Reads what people made of held rows: the workbooks and text copies in a folder, in any order and number. A row that is as
 * it was handed out says nothing. One that was corrected in several rounds has its last form: each copy knows what it showed.
 */
public final class CorrectionFiles {
    private static final List<String> ENDINGS = List.of(".xlsx", ".ods", ".xls", ".csv", ".txt", ".tsv");
    private static final List<String> TEXTS = List.of(".csv", ".txt", ".tsv");
    private static final int MOST_ABOVE = 60;
    /** File systems keep times to within so much. */
    private static final Duration SAME_TIME = Duration.ofSeconds(2);

    private final Map<String, FileFormat> forms;
    private final List<SettingsProblem> problems = new ArrayList<>();
    private final List<Finding> notes = new ArrayList<>();
    private final RowKey keys = new RowKey();
    /** When the file that is being read was saved. */
    private Instant saved = Instant.EPOCH;
    /** Where the columns of the source stand in the copy that is read; {@code null} for one that does not say. */
    private @Nullable List<Integer> own;
    /** The titles of the source, as that copy keeps them. */
    private List<String> titles = List.of();

    private int beyond;
    /** By file, row and key. */
    private final Map<String, List<Said>> said = new LinkedHashMap<>();

    /** What one copy says of one row. {@code shown} is the key of the row as it was handed out. */
    private record Said(
            String place,
            String file,
            long row,
            String key,
            String shown,
            List<String> cells,
            Set<Integer> plain,
            Decided decided,
            List<String> titles,
            Instant saved) {}

    /** What a person decided; {@code when} is the day on which the copy was saved. */
    private record Decided(String decision, String who, String when, String why) {}

    private CorrectionFiles(Map<String, FileFormat> forms) {
        this.forms = forms;
    }

    /**
     * Reads all files of the folder, none when it is not there.
     *
     * @param forms of the source files, by their plain names: text copies have their form
     */
    public static Taken read(Path folder, Map<String, FileFormat> forms) {
        CorrectionFiles files = new CorrectionFiles(forms);
        for (Path file : in(folder)) {
            files.read(file);
        }
        List<Correction> corrections = new ArrayList<>();
        files.said.values().forEach(rounds -> files.settle(rounds, corrections));
        return new Taken(corrections, files.problems, files.notes);
    }

    /**
     * What the files say.
     *
     * @param corrections what people made of rows
     * @param problems every mistake
     * @param notes texts that Mivrel did not hand out, and what newer copies have replaced
     */
    public record Taken(List<Correction> corrections, List<SettingsProblem> problems, List<Finding> notes) {}

    /** The files that are read there. */
    public static List<Path> in(Path folder) {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> inside = Files.list(folder)) {
            return inside.filter(Files::isRegularFile)
                    .filter(CorrectionFiles::isCopy)
                    .sorted()
                    .toList();
        } catch (IOException unreadable) {
            return List.of();
        }
    }

    // A spreadsheet program leaves a file of its own beside one that is open.
    private static boolean isCopy(Path file) {
        String name = file.getFileName().toString();
        return !name.startsWith(".")
                && !name.startsWith("~")
                && ENDINGS.stream().anyMatch(name.toLowerCase(Locale.ROOT)::endsWith);
    }

    private void read(Path file) {
        String name = file.getFileName().toString();
        try {
            saved = Files.getLastModifiedTime(file).toInstant();
            String head = ContentSniffer.look(file).handedBack();
            if (!head.isEmpty()) {
                FileFormat form = HandedBack.asSaved(file, head, forms.getOrDefault(name, FileFormat.csv()));
                try (RowSource rows = SeparatedRows.open(file, form.separator(), form.encoding())) {
                    read(rows, "corrections/" + name);
                }
                return;
            }
            if (TEXTS.stream().anyMatch(name.toLowerCase(Locale.ROOT)::endsWith)) {
                note(
                        "corrections/" + name,
                        0,
                        "the text has no rows that Mivrel handed out, and was passed over",
                        "put it elsewhere");
                return;
            }
            boolean any = false;
            for (String sheet : Workbooks.shown(file)) {
                try (RowSource rows = Workbooks.open(file, sheet)) {
                    any |= read(rows, "corrections/" + name + " sheet " + sheet);
                }
            }
            if (!any) {
                wrong("corrections/" + name, 0, "holds no rows that Mivrel handed out", "put it elsewhere");
            }
        } catch (IOException e) {
            wrong("corrections/" + name, 0, "cannot be read: " + e.getMessage(), "save it again as a workbook (XLSX)");
        }
    }

    private void wrong(String file, long row, String message, String suggestion) {
        problems.add(new SettingsProblem(file, (int) row, 0, message, suggestion));
    }

    private void note(String file, long row, String reason, String suggestion) {
        notes.add(new Finding(Rule.CORRECTION_UNUSED, Origin.of(file, row), "", "", reason, suggestion));
    }

    // False when the rows are none that were handed out.
    private boolean read(RowSource rows, String place) throws IOException {
        Map<String, Integer> columns = new HashMap<>();
        boolean fits = true;
        for (Row row = rows.next(); row != null; row = rows.next()) {
            if (!columns.isEmpty()) {
                if (fits) {
                    row(row, columns, place);
                }
                continue;
            }
            List<String> cells = RowKey.cells(row);
            if (cells.contains(HandedBack.MARK)) {
                for (int i = 0; i < cells.size(); i++) {
                    if (cells.get(i).startsWith("Mivrel ")) {
                        columns.put(cells.get(i).startsWith(KeptTitles.BEGINS) ? KeptTitles.BEGINS : cells.get(i), i);
                    }
                }
                if (!columns.containsKey("Mivrel key")) {
                    return false;
                }
                fits = findOwn(cells, place, row.number());
            } else if (row.number() > MOST_ABOVE) {
                return false;
            }
        }
        return !columns.isEmpty();
    }

    // Where the columns of the source stand now, in the order of the source. Copies of earlier days do not keep it.
    private boolean findOwn(List<String> cells, String place, long number) {
        List<String> kept = KeptTitles.in(cells);
        titles = kept == null ? List.of() : kept;
        own = null;
        if (kept == null) {
            return true;
        }
        List<String> left = new ArrayList<>(cells);
        left.replaceAll(title -> title.startsWith("Mivrel ") ? "\0" : KeptTitles.plain(title));
        int last = cells.lastIndexOf(
                cells.stream().filter(title -> title.startsWith("Mivrel ")).reduce("", (a, b) -> b));
        List<Integer> places = new ArrayList<>();
        for (String title : kept) {
            int at = left.indexOf(title);
            if (at < 0) {
                wrong(place, number, "the column '" + title + "' is not there", "give it its title again");
                return false;
            }
            places.add(at);
            left.set(at, "\0");
        }
        for (int at = 0; at < left.size(); at++) {
            // Cells beyond the titles of the source stand at the end, without a title.
            if (!left.get(at).equals("\0") && (at < last || !left.get(at).isEmpty())) {
                wrong(
                        place,
                        number,
                        "column " + (at + 1) + ", '" + left.get(at) + "', is none that was handed out"
                                + (kept.contains(left.get(at)) ? ": its title is there twice" : ""),
                        "take it out again");
                return false;
            }
        }
        for (int at = last + 1; at < left.size(); at++) {
            places.add(at);
        }
        beyond = last + 1;
        own = places;
        return true;
    }

    private List<Integer> places(List<String> all, Map<String, Integer> columns) {
        List<Integer> places = own == null ? new ArrayList<>() : new ArrayList<>(own);
        int first = columns.values().stream().mapToInt(Integer::intValue).min().orElse(0);
        int last = columns.values().stream().mapToInt(Integer::intValue).max().orElse(0);
        for (int at = 0; at < all.size(); at++) {
            boolean ofOld = own == null && (at < first || at > last);
            boolean more = own != null && at >= beyond && !own.contains(at);
            if (ofOld || more) {
                places.add(at);
            }
        }
        return places;
    }

    private void row(Row source, Map<String, Integer> columns, String place) {
        List<String> all = RowKey.cells(source);
        long number = source.number();
        if (all.stream().allMatch(String::isBlank)) {
            return;
        }
        String key = cell(all, columns, "Mivrel key");
        String row = cell(all, columns, "Mivrel row");
        String file = cell(all, columns, "Mivrel file");
        if (!key.matches("[0-9a-f]{20}(/[0-9a-f]{20})?") || !row.matches("[0-9]{1,18}") || file.isEmpty()) {
            boolean footer = key.isEmpty() && row.isEmpty() && file.isEmpty();
            if (!footer) {
                wrong(
                        place,
                        number,
                        "'Mivrel row', 'Mivrel key' and 'Mivrel file' tell which row it is, and were changed",
                        "copy them from the row as it was handed out");
            } else if (!all.get(0).startsWith("and more rows") && columns.getOrDefault(HandedBack.MARK, 0) > 0) {
                wrong(
                        place,
                        number,
                        "a row was added that was not handed out",
                        "a row that is missing belongs into the source");
            }
            return;
        }
        List<String> cells = new ArrayList<>();
        Set<Integer> plain = new HashSet<>();
        for (int at : places(all, columns)) {
            if (at < all.size() && source.isPlain(at)) {
                plain.add(cells.size());
            }
            cells.add(at < all.size() ? all.get(at) : "");
        }
        while (!cells.isEmpty() && cells.get(cells.size() - 1).equals(Row.NO_CELL)) {
            cells.remove(cells.size() - 1);
        }
        int slash = key.indexOf('/');
        String original = slash < 0 ? key : key.substring(0, slash);
        said.computeIfAbsent(file + "\n" + row + "\n" + original, k -> new ArrayList<>())
                .add(new Said(
                        place + " row " + number,
                        file,
                        Long.parseLong(row),
                        original,
                        slash < 0 ? key : key.substring(slash + 1),
                        cells,
                        plain,
                        new Decided(
                                cell(all, columns, "Mivrel decision"),
                                cell(all, columns, "Mivrel who"),
                                LocalDate.ofInstant(saved, ZoneId.systemDefault())
                                        .toString(),
                                cell(all, columns, "Mivrel why")),
                        titles,
                        saved));
    }

    private static String cell(List<String> cells, Map<String, Integer> columns, String title) {
        int at = columns.getOrDefault(title, Integer.MAX_VALUE);
        return at < cells.size() ? cells.get(at).strip() : "";
    }

    // From what the source has, through each form that a copy showed, to the last one.
    private void settle(List<Said> rounds, List<Correction> corrections) {
        Said any = rounds.get(0);
        String now = any.key();
        @Nullable Said last = null;
        for (int steps = 0; steps <= rounds.size(); steps++) {
            Said next = null;
            for (Said round : rounds) {
                boolean changed = round.row() > 0
                        && round.shown().equals(now)
                        && !keys.of(round.cells()).equals(now);
                if (!changed) {
                    continue;
                }
                next = next != null && !keys.of(next.cells()).equals(keys.of(round.cells()))
                        ? newer(next, round, "corrects the same row otherwise than ")
                        : round;
            }
            if (next == null) {
                break;
            }
            last = next;
            now = keys.of(next.cells());
        }
        decide(rounds, last, corrections);
    }

    // What was saved last counts, and that is said; of copies saved at the same time nobody knows which is meant.
    private Said newer(Said one, Said other, String differs) {
        Duration apart = Duration.between(one.saved(), other.saved());
        if (apart.abs().compareTo(SAME_TIME) < 0) {
            wrong(other.place(), 0, differs + one.place(), "leave one of the two, or save the one that counts again");
            return other;
        }
        Said newer = apart.isNegative() ? one : other;
        Said older = newer == one ? other : one;
        note(
                newer.file(),
                newer.row(),
                newer.place() + " " + differs + older.place() + ", and counts, because it was saved later",
                "if the earlier one is right, save it again");
        return newer;
    }

    private void decide(List<Said> rounds, @Nullable Said corrected, List<Correction> corrections) {
        Said decided = null;
        for (Said round : rounds) {
            if (round.decided().decision().isEmpty()) {
                continue;
            }
            String decision = round.decided().decision();
            decided = decided != null && !decided.decided().decision().equals(decision)
                    ? newer(decided, round, "decides otherwise than ")
                    : round;
        }
        Said from = decided == null ? corrected : decided;
        if (from == null) {
            return;
        }
        String word = decided == null ? "" : decided.decided().decision();
        Decision decision = Decision.of(word).orElse(null);
        if (decision != null
                && (from.decided().who().isEmpty() || from.decided().why().isEmpty())) {
            wrong(
                    from.place(),
                    0,
                    "'" + word + "' needs 'Mivrel who' and 'Mivrel why'",
                    "fill in who decides it, and the reason");
        }
        if (decision == Decision.LEAVE_OUT && from.row() == 0) {
            wrong(from.place(), 0, "a whole file is not left out here", "take it out of the intake");
        }
        corrections.add(new Correction(
                from.place(),
                from.file(),
                from.row(),
                from.key(),
                corrected == null ? null : corrected.cells(),
                corrected == null ? Set.of() : corrected.plain(),
                decision == null && !word.isEmpty() ? word : null,
                decision,
                from.decided().who(),
                from.decided().when(),
                from.decided().why(),
                corrected == null ? List.of() : corrected.titles(),
                null));
    }
}
