package io.mivrel.run;

import io.mivrel.coding.Coder;
import io.mivrel.kinds.BankLines;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.DateNames;
import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Bank lines that no entry of the coding table decides, brought together by how their texts begin: up to two words that
 * are not the trade's own, such as "card payment", and before the first that has a figure in it. Largest groups first, so that few new entries code most of what is left.
 * For one thread.
 */
public final class UncodedGroups implements HeldDocuments {
    /** The sheet of a workbook of held rows that they stand on. */
    public static final String SHEET = "Uncoded";

    private static final int MOST_GROUPS = 5000;
    private static final int MOST_WORDS = 4;
    private static final int TELLING_WORDS = 2;
    private static final int LONG = 4;
    private static final Pattern BLANKS = Pattern.compile("[\\s/*:;,#|]+");
    private static final Pattern FIGURE = Pattern.compile(".*[0-9].*");

    private final Map<String, Group> groups = new LinkedHashMap<>();

    /**
     * Lines with the same words and direction.
     *
     * @param words what they have in common; fit for a coding table
     * @param direction {@code in} or {@code out}
     * @param lines how many
     * @param sum of their amounts in minor units, without sign
     * @param example the whole text of the first one
     */
    public record Group(String words, String direction, long lines, long sum, String example) {
        Group and(Group other) {
            return new Group(words, direction, lines + other.lines, Math.addExact(sum, other.sum), example);
        }
    }

    /** The groups, those with the most lines first, and of equally many those with the largest sum. */
    public List<Group> groups() {
        List<Group> all = new ArrayList<>(groups.values());
        all.sort(Comparator.comparingLong(Group::lines)
                .reversed()
                .thenComparing(Comparator.comparingLong(Group::sum).reversed()));
        return all;
    }

    @Override
    public void take(Document document, List<Finding> found) {
        if (found.stream().anyMatch(finding -> finding.rule() == Rule.UNCODED)) {
            String text = document.heading().text(BankLines.NARRATIVE);
            take(text == null ? "" : text, document.records().get(0).number(BankLines.AMOUNT));
        }
    }

    @Override
    public void startOver() {
        groups.clear();
    }

    // What has no words that a coding table could use is left.
    private void take(String text, long amount) {
        String words = words(text);
        if (words != null && amount != SourceRecord.ABSENT && groups.size() < MOST_GROUPS) {
            String direction = amount < 0 ? "out" : "in";
            groups.merge(
                    direction + " " + words.toLowerCase(Locale.ROOT),
                    new Group(words, direction, 1, Math.abs(amount), text),
                    Group::and);
        }
    }

    // Figures and months are others next time.
    private static boolean isLasting(String word) {
        return !FIGURE.matcher(word).matches() && !DateNames.isMonth(word);
    }

    private static @Nullable String words(String text) {
        List<String> all = Arrays.stream(BLANKS.split(text.strip()))
                .filter(word -> !word.isEmpty())
                .toList();
        List<String> kept = new ArrayList<>();
        int telling = 0;
        for (String word : all) {
            if (!isLasting(word) || telling == TELLING_WORDS || kept.size() == MOST_WORDS) {
                break;
            }
            kept.add(word);
            telling += word.length() >= LONG && !TradeWords.knows(word) ? 1 : 0;
        }
        if (kept.isEmpty()) {
            kept = all.stream()
                    .filter(word -> isLasting(word) && word.length() > 2)
                    .limit(1)
                    .toList();
        }
        String words = String.join(" ", kept);
        return kept.isEmpty() || !Coder.isUsablePhrase(words) ? null : words;
    }
}
