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
    /** Classes of characters that stand in no phrase. */
    private static final char OTHER = 0;

    private static final char OTHER_WORD = 1;

    private static final char NO_BREAK_SPACE = 0xA0;

    /** The class of each character of the basic plane up to the last that stands in a phrase. */
    private final char[] classes;

    private final int shift;
    /** Where each state goes by each class. */
    private final int[] next;

    private final Phrase[][] found;
    /** The smallest owner of a phrase that each state ends. */
    private final int[] firstOwner;

    /** The first state, shifted as all are, that ends a phrase; all after it do too. */
    private final int firstFound;

    private PhraseAutomaton(char[] classes, int shift, int[] next, Phrase[][] found, int firstFound) {
        this.classes = classes;
        this.shift = shift;
        this.next = next;
        this.found = found;
        this.firstOwner = Arrays.stream(found)
                .mapToInt(ends ->
                        Arrays.stream(ends).mapToInt(Phrase::owner).min().orElse(Integer.MAX_VALUE))
                .toArray();
        this.firstFound = firstFound;
    }

    /** For phrases that begin at the beginning of a word. */
    static PhraseAutomaton atWords(List<Phrase> phrases) {
        return new Builder(false).build(phrases);
    }

    /** For phrases that may begin within a word too. */
    static PhraseAutomaton anywhere(List<Phrase> phrases) {
        return new Builder(true).build(phrases);
    }

    /**
     * The smallest owner below {@code limit} with a phrase between {@code from} and {@code to} whose entry takes the amount;
     * {@code limit} when there is none.
     */
    int first(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        if (firstFound == next.length) {
            return limit;
        }
        final int[] steps = next;
        final char[] classOf = classes;
        final int ends = firstFound;
        int best = limit;
        int state = 0;
        for (int i = from; i < to; i++) {
            byte b = text[i];
            if (b < 0) {
                return firstWide(text, from, to, limit, limits, amount);
            }
            state = steps[state + classOf[b]];
            if (state >= ends && firstOwner[state >>> shift] < best) {
                best = best(text, i + 1, to, state, best, limits, amount);
            }
        }
        return best;
    }

    // The same for texts with characters beyond ASCII, from the beginning.
    private int firstWide(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        int best = limit;
        int state = 0;
        int i = from;
        while (i < to) {
            int c = Spans.codePoint(text, i);
            i += Spans.length(text[i]);
            state = next[state + classOf(c)];
            if (state >= firstFound) {
                best = best(text, i, to, state, best, limits, amount);
            }
        }
        return best;
    }

    private int classOf(int c) {
        return c < classes.length ? classes[c] : Character.isLetterOrDigit(c) ? OTHER_WORD : OTHER;
    }

    private int best(byte[] text, int end, int to, int state, int before, Limits limits, long amount) {
        boolean wordGoesOn = end < to && isWord(text, end);
        int best = before;
        for (Phrase phrase : found[state >>> shift]) {
            if (phrase.owner() < best && (phrase.openEnd() || !wordGoesOn) && limits.fit(phrase.owner(), amount)) {
                best = phrase.owner();
            }
        }
        return best;
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

        Builder(boolean anywhere) {
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
            int width = letters.length() + 2;
            int[] next = new int[children.size() * width];
            int[] fail = new int[children.size()];
            boolean[] endsInBlank = new boolean[children.size()];
            int blank = letters.indexOf(' ') + 2;
            for (int c = 0; c < width; c++) {
                boolean word = c < 2 ? c == OTHER_WORD : Character.isLetterOrDigit(letters.charAt(c - 2));
                next[start * width + c] = word ? within : start;
                next[within * width + c] = word ? within : start;
            }
            ArrayDeque<Integer> queue = new ArrayDeque<>(List.of(start));
            while (!queue.isEmpty()) {
                int state = queue.remove();
                if (state != start) {
                    targets.get(state).addAll(targets.get(fail[state]));
                    System.arraycopy(next, fail[state] * width, next, state * width, width);
                    if (endsInBlank[state]) {
                        // A run of blanks counts as one.
                        next[state * width + blank] = state;
                    }
                }
                for (Map.Entry<Character, Integer> child : children.get(state).entrySet()) {
                    int step = state * width + letters.indexOf(child.getKey()) + 2;
                    // What the text would stand at if no phrase had begun here.
                    fail[child.getValue()] = next[step];
                    endsInBlank[child.getValue()] = child.getKey() == ' ';
                    next[step] = child.getValue();
                    queue.add(child.getValue());
                }
            }
            return renumbered(classes(letters), width, next);
        }

        // States that end a phrase come last, so that one comparison tells them. A row of steps has a power of two of
        // places, and a state is the place where its row begins.
        private PhraseAutomaton renumbered(char[] classes, int width, int[] next) {
            int states = children.size();
            int[] number = new int[states];
            int given = 0;
            for (int s = 0; s < states; s++) {
                if (targets.get(s).isEmpty()) {
                    number[s] = given++;
                }
            }
            int firstFound = given;
            for (int s = 0; s < states; s++) {
                if (!targets.get(s).isEmpty()) {
                    number[s] = given++;
                }
            }
            Phrase[][] found = new Phrase[states][];
            int shift = 32 - Integer.numberOfLeadingZeros(width - 1);
            int[] steps = new int[states << shift];
            for (int s = 0; s < states; s++) {
                found[number[s]] = targets.get(s).toArray(Phrase[]::new);
                for (int c = 0; c < width; c++) {
                    steps[(number[s] << shift) + c] = number[next[s * width + c]] << shift;
                }
            }
            return new PhraseAutomaton(classes, shift, steps, found, firstFound << shift);
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
                classes[letters.charAt(i)] = (char) (i + 2);
            }
            for (int i = 0; i < letters.length(); i++) {
                char small = letters.charAt(i);
                for (char capital : new char[] {Character.toUpperCase(small), Character.toTitleCase(small)}) {
                    if (classes[capital] <= OTHER_WORD && (capital >= 0x80 || small < 0x80)) {
                        classes[capital] = (char) (i + 2);
                    }
                }
            }
            Arrays.fill(classes, 0, ' ', classes[' ']);
            classes[NO_BREAK_SPACE] = classes[' '];
            return classes;
        }
    }
}
