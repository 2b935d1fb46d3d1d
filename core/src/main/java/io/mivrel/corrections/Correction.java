package io.mivrel.corrections;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a person made of one held row, or of what is wrong with a file as a whole. Immutable.
 *
 * @param place where it was written, for people
 * @param file the source file
 * @param row the row there when it was held; 0 for the file as a whole
 * @param key of the row as it stands in the source
 * @param cells the corrected cells; {@code null} when they are as they were
 * @param plain places of those cells that are numbers or days by the format they were saved in
 * @param account an account chosen for this line alone; {@code null} for none
 * @param decision {@code null} for none
 * @param who said so; empty only where nothing is decided
 * @param when the day on which it was said; empty when that is not told
 * @param why the reason; empty only where nothing is decided
 * @param titles of the cells; empty when the copy does not say
 * @param was the cells of the row as the source has them; {@code null} until the row is met
 */
public record Correction(
        String place,
        String file,
        long row,
        String key,
        @Nullable List<String> cells,
        Set<Integer> plain,
        @Nullable String account,
        @Nullable Decision decision,
        String who,
        String when,
        String why,
        List<String> titles,
        @Nullable List<String> was) {
    public Correction {
        cells = cells == null ? null : List.copyOf(cells);
        plain = Set.copyOf(plain);
        titles = List.copyOf(titles);
        was = was == null ? null : List.copyOf(was);
    }

    /** The same account by its code, where it was written otherwise. */
    public Correction ofAccount(String code) {
        return new Correction(place, file, row, key, cells, plain, code, decision, who, when, why, titles, was);
    }

    /** The same, once the row is met. */
    Correction inPlaceOf(List<String> row) {
        return new Correction(place, file, this.row, key, cells, plain, account, decision, who, when, why, titles, row);
    }

    /** The cells that it changed, by their titles, as they were; empty when there are none. */
    public String before() {
        return changed(true);
    }

    /** The same as they are now. */
    public String after() {
        return changed(false);
    }

    private String changed(boolean old) {
        List<String> found = new ArrayList<>();
        for (int i = 0; cells != null && was != null && i < Math.max(was.size(), cells.size()); i++) {
            String from = i < was.size() ? was.get(i) : "";
            String to = i < cells.size() ? cells.get(i) : "";
            if (!from.equals(to)) {
                found.add((i < titles.size() ? titles.get(i) : "column " + (i + 1)) + ": " + (old ? from : to));
            }
        }
        return String.join("; ", found);
    }

    /** What was done: {@code corrected}, {@code account 5010}, {@code kept} or {@code left out}. */
    public String done() {
        if (decision != null) {
            return decision == Decision.KEEP ? "kept" : "left out";
        }
        String chosen = account == null ? "" : "account " + account;
        return cells == null ? chosen : account == null ? "corrected" : "corrected, " + chosen;
    }

    /** In words: what was done, by whom and why. */
    public String words() {
        String said = who.isEmpty() ? "" : ", says " + who + (when.isEmpty() ? "" : " on " + when);
        return done() + said + (why.isEmpty() ? "" : ": " + why);
    }
}
