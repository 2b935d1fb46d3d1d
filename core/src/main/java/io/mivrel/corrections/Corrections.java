package io.mivrel.corrections;

import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Overrides;
import io.mivrel.model.Rule;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * All corrections of a run. Each is bound to the content of its row: it takes the place of that row wherever it stands in
 * the file, is of no use once the row was corrected at the source, and can never be spent on another. Safe for the threads
 * of a run.
 */
public final class Corrections implements Overrides {
    /**
     * Rules that a person may override: what they notice can be right all the same, and every value of the document is known.
     * All others cannot: a date that could not be read is corrected, not kept.
     */
    private static final Set<Rule> OVERRIDABLE = EnumSet.of(
            Rule.DOCUMENT_REPEATED,
            Rule.LINES_REPEATED,
            Rule.ENTRY_TWICE,
            Rule.ENTRY_OUTSIDE_STATEMENT,
            Rule.DATE_OUT_OF_ORDER,
            Rule.BALANCE_BROKEN,
            Rule.BALANCE_CARRIED,
            Rule.BALANCE_CLOSING,
            Rule.TOTAL_WITHIN_DIFFERS,
            Rule.CONTROL_TOTAL_DIFFERS,
            Rule.STATEMENT_GAP,
            Rule.ROW_CUT_OFF,
            Rule.TRANSFER_BOOKED,
            Rule.TRANSFER_OPEN,
            Rule.TWO_ENTRIES,
            Rule.NET_DIFFERS,
            Rule.TAX_DIFFERS);

    private final List<Correction> all;
    private final List<Finding> notes;
    /** Of files that this run does not read by that name. */
    private final List<Correction> others;
    /** Those of them whose file is gone: their rows are looked for in all that it reads. */
    private final List<Correction> strays;

    private final Map<String, Map<Place, Correction>> placed = new ConcurrentHashMap<>();
    private final Map<String, Correction> ofFiles = new HashMap<>();
    private final Set<Correction> used = ConcurrentHashMap.newKeySet();
    /** The same with what the rows had before. */
    private final Map<Correction, Correction> done = new ConcurrentHashMap<>();

    /** A row of a file; {@code nth} counts those that one physical row was made into. */
    record Place(long row, int nth) {}

    /**
     * @param corrections of this run, also of files that it reads no more, or by another name
     * @param files the files of this run
     * @param notes what else is to be said of the files that people left there
     * @param exists whether another file is there by its name: one that is gone was perhaps renamed
     */
    public Corrections(
            Collection<Correction> corrections,
            Collection<String> files,
            Collection<Finding> notes,
            Predicate<String> exists) {
        this.notes = List.copyOf(notes);
        Set<String> known = Set.copyOf(files);
        this.all = List.copyOf(corrections);
        this.others = all.stream().filter(c -> !known.contains(c.file())).toList();
        this.strays = others.stream()
                .filter(c -> c.row() > 0 && !exists.test(c.file()))
                .toList();
        all.stream().filter(c -> c.row() == 0).forEach(c -> ofFiles.put(c.key(), c));
    }

    /** Nothing was corrected. */
    public static Corrections none() {
        return new Corrections(List.of(), List.of(), List.of(), file -> true);
    }

    /** True for a rule whose findings a person may override. */
    public static boolean mayOverride(Finding finding) {
        return finding.rule() instanceof Rule rule && OVERRIDABLE.contains(rule);
    }

    /** Opens a file anew. */
    @FunctionalInterface
    public interface Opener {
        RowSource open() throws IOException;
    }

    /** Opens a file with its rows corrected; answers {@code null} where there is nothing to correct. */
    public @Nullable Opener correct(String file, Opener opener) {
        List<Correction> own = new ArrayList<>(
                all.stream().filter(c -> c.row() > 0 && c.file().equals(file)).toList());
        own.addAll(strays);
        return own.isEmpty() ? null : () -> new CorrectedRows(opener.open(), places(file, opener, own), this::use);
    }

    private void use(Correction correction, Correction withOld) {
        used.add(correction);
        done.put(correction, withOld);
    }

    // Where the rows stand now. Equal rows are told apart by where they stood, as long as they still do.
    private Map<Place, Correction> places(String file, Opener opener, List<Correction> own) throws IOException {
        Map<Place, Correction> known = placed.get(file);
        if (known != null) {
            return known;
        }
        Set<String> wanted = new HashSet<>();
        own.forEach(c -> wanted.add(c.key()));
        Map<String, List<Place>> found = new HashMap<>();
        RowKey keys = new RowKey();
        try (RowSource rows = opener.open()) {
            PlaceCounter counter = new PlaceCounter();
            for (Row row = rows.next(); row != null; row = rows.next()) {
                Place place = counter.of(row);
                if (CorrectedRows.isData(row)) {
                    String key = keys.of(row);
                    if (wanted.contains(key)) {
                        found.computeIfAbsent(key, k -> new ArrayList<>()).add(place);
                    }
                }
            }
        } catch (UnreadableFileException toldByTheRun) {
            // What could be read before it is corrected all the same.
        }
        Map<Place, Correction> places = new HashMap<>();
        List<Correction> moved = new ArrayList<>();
        for (Correction correction : own) {
            if (strays.contains(correction) && used.contains(correction)) {
                // It found its row in another file already.
                continue;
            }
            List<Place> here = found.getOrDefault(correction.key(), List.of());
            Place same = here.stream()
                    .filter(p -> p.row() == correction.row() && !places.containsKey(p))
                    .findFirst()
                    .orElse(null);
            if (same == null) {
                moved.add(correction);
            } else {
                places.put(same, correction);
            }
        }
        for (Correction correction : moved) {
            found.getOrDefault(correction.key(), List.of()).stream()
                    .filter(p -> !places.containsKey(p))
                    .findFirst()
                    .ifPresent(p -> places.put(p, correction));
        }
        placed.put(file, places);
        return places;
    }

    /** Counts the rows that one physical row was made into. */
    static final class PlaceCounter {
        private long number = -1;
        private int nth;

        Place of(Row row) {
            nth = row.number() == number ? nth + 1 : 0;
            number = row.number();
            return new Place(number, nth);
        }
    }

    /** True when an account was chosen for some line. */
    public boolean chooses() {
        return all.stream().anyMatch(c -> c.account() != null);
    }

    /** The account that was chosen for one line; {@code null} for none. */
    public @Nullable String account(String file, long row) {
        Correction correction = at(file, row);
        return correction == null ? null : correction.account();
    }

    private @Nullable Correction at(String file, long row) {
        Map<Place, Correction> places = placed.get(file);
        if (places == null || places.isEmpty()) {
            return null;
        }
        Correction first = places.get(new Place(row, 0));
        // A row that was fanned out is named by its number alone.
        return first != null
                ? first
                : places.entrySet().stream()
                        .filter(place -> place.getKey().row() == row)
                        .map(Map.Entry::getValue)
                        .findFirst()
                        .orElse(null);
    }

    @Override
    public Finding judge(Finding finding) {
        if (all.isEmpty() || !finding.blocks() || !mayOverride(finding)) {
            return finding;
        }
        Correction correction = at(finding.origin().file(), finding.origin().row());
        if (correction == null) {
            correction = ofFiles.get(new RowKey().of(finding));
        }
        if (correction == null || correction.decision() != Decision.KEEP) {
            return finding;
        }
        used.add(correction);
        return new Finding(
                Rule.KEPT_BY_DECISION,
                finding.origin(),
                finding.field(),
                finding.value(),
                correction.words() + "; it would be held as " + finding.rule().id() + ": " + finding.reason(),
                "");
    }

    /** Those that were used, in their order. */
    public List<Correction> used() {
        return all.stream()
                .filter(used::contains)
                .map(one -> done.getOrDefault(one, one))
                .toList();
    }

    /** Notes of those that found nothing to correct; once all files are read. Those of a file that is not read are one note. */
    public List<Finding> unused() {
        Map<String, Finding> unused = new LinkedHashMap<>();
        Map<String, Long> left = others.stream()
                .filter(c -> !used.contains(c))
                .collect(Collectors.groupingBy(Correction::file, Collectors.counting()));
        for (Correction correction : this.all) {
            if (used.contains(correction)) {
                continue;
            }
            Long ofFile = left.get(correction.file());
            unused.putIfAbsent(
                    ofFile == null ? correction.place() : correction.file(),
                    new Finding(
                            Rule.CORRECTION_UNUSED,
                            Origin.of(correction.file(), correction.row()),
                            "",
                            "",
                            "the correction in " + correction.place()
                                    + (ofFile == null
                                            ? " was not used: its row is no longer in the file as it was held"
                                            : (ofFile == 1 ? "" : " and " + (ofFile - 1) + " more of its file")
                                                    + " found no row: this run reads no file of this name"),
                            "if it was corrected at the source, or is of another month, nothing is to do"));
        }
        List<Finding> all = new ArrayList<>(unused.values());
        all.addAll(notes);
        return all;
    }
}
