package io.mivrel.coding;

import io.mivrel.text.Spans;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * Finds many phrases in a text in one pass: the automaton of Aho and Corasick (Communications of the ACM 18, 1975) with
 * all transitions worked out beforehand. Its time grows with the text alone, however many phrases there are. Letters are
 * compared without regard to case, and every run of blanks counts as one. Immutable once built.
 */
final class PhraseAutomaton {
    /** Columns of a row of steps that tell the smallest owner of a phrase which the state ends, by direction. */
    private static final int IN = 0;

    private static final int OUT = 2;
    /** Beside them, that of a phrase which the next character may continue. */
    private static final int OPEN = 1;

    /** The columns after them are classes of characters; the first two, characters that stand in no phrase. */
    private static final char OTHER = 4;

    private static final char OTHER_WORD = 5;
    private static final char FIRST_LETTER = 6;

    private static final int NONE = Integer.MAX_VALUE;

    private static final char NO_BREAK_SPACE = 0xA0;

    /** The class of each character of the basic plane up to the last that stands in a phrase. */
    private final char[] classes;

    /** What a character of ASCII makes of an owner that it may not follow: all bits for a letter or digit, none else. */
    private final int[] goesOn;

    /** For each state, that is the place where its row begins: owners of the phrases it ends, and the next state by class. */
    private final int[] steps;

    private final int width;
    /** The phrases that each state ends. */
    private final Phrase[][] found;

    private PhraseAutomaton(char[] classes, int[] steps, int width, Phrase[][] found) {
        this.classes = classes;
        this.steps = steps;
        this.width = width;
        this.found = found;
        goesOn = new int[0x80];
        for (int c = 0; c < goesOn.length; c++) {
            goesOn[c] = Phrase.isWord(c) ? NONE : 0;
        }
    }

    /** For phrases that begin at the beginning of a word. */
    static PhraseAutomaton atWords(List<Phrase> phrases, Limits limits) {
        return new Builder(false, limits).build(phrases);
    }

    /** For phrases that may begin within a word too. */
    static PhraseAutomaton anywhere(List<Phrase> phrases, Limits limits) {
        return new Builder(true, limits).build(phrases);
    }

    /**
     * The smallest owner below {@code limit} with a phrase between {@code from} and {@code to} whose entry takes the amount;
     * {@code limit} when there is none.
     */
    int first(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        if (found.length == 1) {
            return limit;
        }
        // Which owner is the smallest is worked out without a branch: where a phrase ends is hard to foresee.
        final int[] table = steps;
        final char[] classOf = classes;
        final int owner = amount < 0 ? OUT : IN;
        int best = limit;
        int state = 0;
        int ended = NONE;
        for (int i = from; i < to; i++) {
            byte b = text[i];
            if (b < 0) {
                return byPhrase(text, from, to, limit, limits, amount);
            }
            best = Math.min(best, ended | goesOn[b]);
            state = table[state + classOf[b]];
            ended = table[state + owner];
            best = Math.min(best, table[state + owner + OPEN]);
        }
        best = Math.min(best, ended);
        return best == limit || limits.fit(best, amount) ? best : byPhrase(text, from, to, limit, limits, amount);
    }

    // The same by looking at each phrase found: for texts beyond ASCII and where the smallest owner takes other
    // amounts.
    private int byPhrase(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        int best = limit;
        int state = 0;
        int i = from;
        while (i < to) {
            int c = Spans.codePoint(text, i);
            i += Spans.length(text[i]);
            state = steps[state + classOf(c)];
            Phrase[] ends = found[state / width];
            if (ends.length > 0) {
                boolean wordGoesOn = i < to && isWord(text, i);
                for (Phrase phrase : ends) {
                    if (phrase.owner() < best
                            && (phrase.openEnd() || !wordGoesOn)
                            && limits.fit(phrase.owner(), amount)) {
                        best = phrase.owner();
                    }
                }
            }
        }
        return best;
    }

    private int classOf(int c) {
        return c < classes.length ? classes[c] : Character.isLetterOrDigit(c) ? OTHER_WORD : OTHER;
    }

    private static boolean isWord(byte[] text, int at) {
        int c = text[at];
        return c >= 0 ? Phrase.isWord(c) : Character.isLetterOrDigit(Spans.codePoint(text, at));
    }

    private static final class Builder {
        private final List<Map<Character, Integer>> children = new ArrayList<>();
        private final List<List<Phrase>> targets = new ArrayList<>();
        /** Where a text stands before a word, and within one that no phrase has begun; the same when that may be anywhere. */
        private final int start = newState();

        private final int within;

        private final Limits limits;

        Builder(boolean anywhere, Limits limits) {
            this.limits = limits;
            within = anywhere ? start : newState();
        }

        private int newState() {
            children.add(new HashMap<>());
            targets.add(new ArrayList<>());
            return children.size() - 1;
        }

        private void add(Phrase phrase) {
            int state = start;
            for (char c : phrase.text().toCharArray()) {
                Integer child = children.get(state).get(c);
                if (child == null) {
                    child = newState();
                    children.get(state).put(c, child);
                }
                state = child;
            }
            targets.get(state).add(phrase);
        }

        PhraseAutomaton build(List<Phrase> phrases) {
            phrases.forEach(this::add);
            String letters = children.stream()
                    .flatMap(map -> map.keySet().stream())
                    .distinct()
                    .sorted()
                    .map(String::valueOf)
                    .collect(Collectors.joining());
            char[] classes = classes(letters);
            int width = FIRST_LETTER + letters.length();
            int[] steps = new int[Math.multiplyExact(children.size(), width)];
            int[] fail = new int[children.size()];
            boolean[] endsInBlank = new boolean[children.size()];
            for (int c = OTHER; c < width; c++) {
                boolean word = c < FIRST_LETTER
                        ? c == OTHER_WORD
                        : Character.isLetterOrDigit(letters.charAt(c - FIRST_LETTER));
                steps[start * width + c] = steps[within * width + c] = word ? within * width : start * width;
            }
            ArrayDeque<Integer> queue = new ArrayDeque<>(List.of(start));
            while (!queue.isEmpty()) {
                int state = queue.remove();
                if (state != start) {
                    targets.get(state).addAll(targets.get(fail[state]));
                    System.arraycopy(steps, fail[state] * width, steps, state * width, width);
                    if (endsInBlank[state]) {
                        // A run of blanks counts as one.
                        steps[state * width + classes[' ']] = state * width;
                    }
                }
                for (Map.Entry<Character, Integer> child : children.get(state).entrySet()) {
                    int step = state * width + classes[child.getKey()];
                    // What the text would stand at if no phrase had begun here.
                    fail[child.getValue()] = steps[step] / width;
                    endsInBlank[child.getValue()] = child.getKey() == ' ';
                    steps[step] = child.getValue() * width;
                    queue.add(child.getValue());
                }
            }
            Phrase[][] found = new Phrase[children.size()][];
            for (int state = 0; state < found.length; state++) {
                found[state] = targets.get(state).toArray(Phrase[]::new);
                owners(found[state], steps, state * width);
            }
            return new PhraseAutomaton(classes, steps, width, found);
        }

        private void owners(Phrase[] ends, int[] steps, int row) {
            Arrays.fill(steps, row, row + OTHER, NONE);
            for (Phrase phrase : ends) {
                int open = phrase.openEnd() ? OPEN : 0;
                for (int direction : new int[] {IN, OUT}) {
                    if (limits.take(phrase.owner(), direction == OUT)) {
                        int column = row + direction + open;
                        steps[column] = Math.min(steps[column], phrase.owner());
                    }
                }
            }
        }

        // A capital letter has the class of its small one; those of ASCII belong to ASCII alone.
        private static char[] classes(String letters) {
            int last = letters.chars()
                    .map(c -> Math.max(c, Math.max(Character.toUpperCase(c), Character.toTitleCase(c))))
                    .max()
                    .orElse(0);
            int size = Math.max(NO_BREAK_SPACE, last) + 1;
            char[] classes = new char[size];
            for (int c = 0; c < size; c++) {
                classes[c] = Character.isLetterOrDigit(c) ? OTHER_WORD : OTHER;
            }
            for (int i = 0; i < letters.length(); i++) {
                classes[letters.charAt(i)] = (char) (FIRST_LETTER + i);
            }
            for (int i = 0; i < letters.length(); i++) {
                char small = letters.charAt(i);
                for (char capital : new char[] {Character.toUpperCase(small), Character.toTitleCase(small)}) {
                    if (classes[capital] <= OTHER_WORD && (capital >= 0x80 || small < 0x80)) {
                        classes[capital] = (char) (FIRST_LETTER + i);
                    }
                }
            }
            Arrays.fill(classes, 0, ' ', classes[' ']);
            classes[NO_BREAK_SPACE] = classes[' '];
            return classes;
        }
    }
}
