package io.mivrel.corrections;

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
        String why) {
    public Correction {
        cells = cells == null ? null : List.copyOf(cells);
        plain = Set.copyOf(plain);
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
