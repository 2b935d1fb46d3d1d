package io.mivrel.text;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Finds the words nearest to a mistyped one: fewest letters wrong, missing, too many, or swapped with a neighbour. */
public final class Nearest {
    private Nearest() {}

    /**
     * At most {@code most} of the candidates that are near enough to be meant, nearest first, without regard to case.
     * Empty when nothing is near.
     */
    public static List<String> to(String word, Collection<String> candidates, int most) {
        String wanted = word.toLowerCase(Locale.ROOT);
        int far = Math.max(1, Math.min(3, wanted.length() / 3));
        record Scored(String candidate, int distance, int shared) {}
        return candidates.stream()
                .map(c -> new Scored(c, distance(wanted, c.toLowerCase(Locale.ROOT)), sharedStart(wanted, c)))
                .filter(s -> s.distance <= far)
                .sorted(Comparator.comparingInt(Scored::distance)
                        .thenComparingInt(s -> -s.shared)
                        .thenComparing(Scored::candidate))
                .limit(most)
                .map(Scored::candidate)
                .toList();
    }

    /** The single nearest candidate, or {@code null} when nothing is near. */
    public static @Nullable String one(String word, Collection<String> candidates) {
        List<String> found = to(word, candidates, 1);
        return found.isEmpty() ? null : found.get(0);
    }

    // People seldom mistype the beginning, so candidates that begin alike come first.
    private static int sharedStart(String wanted, String candidate) {
        String other = candidate.toLowerCase(Locale.ROOT);
        int i = 0;
        while (i < wanted.length() && i < other.length() && wanted.charAt(i) == other.charAt(i)) {
            i++;
        }
        return i;
    }

    // Optimal string alignment distance: the edit distance in which swapping two neighbours counts once.
    private static int distance(String a, String b) {
        if (Math.abs(a.length() - b.length()) > 3) {
            return 4;
        }
        int[][] cost = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            cost[i][0] = i;
        }
        for (int j = 0; j <= b.length(); j++) {
            cost[0][j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            for (int j = 1; j <= b.length(); j++) {
                int change = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                int least = Math.min(cost[i - 1][j - 1] + change, Math.min(cost[i - 1][j], cost[i][j - 1]) + 1);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    least = Math.min(least, cost[i - 2][j - 2] + 1);
                }
                cost[i][j] = least;
            }
        }
        return cost[a.length()][b.length()];
    }
}
