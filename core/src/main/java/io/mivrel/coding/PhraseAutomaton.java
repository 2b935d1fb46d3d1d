package io.mivrel.coding;

import io.mivrel.text.Spans;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

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

    private final Trie trie;
    /** Per state, at the place where its row begins: owners of the phrases it ends, and by class the place of the next. */
    private final int @Nullable [] steps;

    private PhraseAutomaton(char[] classes, Trie trie, int @Nullable [] steps) {
        this.classes = classes;
        this.trie = trie;
        this.steps = steps;
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
        if (trie.isEmpty()) {
            return limit;
        }
        final int[] table = steps;
        if (table == null) {
            return byPhrase(text, from, to, limit, limits, amount);
        }
        // Which owner is the smallest is worked out without a branch: where a phrase ends is hard to foresee.
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

    // The same by looking at each phrase found: for texts beyond ASCII, where the smallest owner takes other amounts,
    // and
    // for tables so large that not every state has a row of its own.
    private int byPhrase(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        int best = limit;
        int state = trie.start;
        int i = from;
        while (i < to) {
            int c = Spans.codePoint(text, i);
            i += Spans.length(text[i]);
            state = trie.step(state, classOf(c));
            for (int at = trie.ending(state); at >= 0; at = trie.ending(trie.fail[at])) {
                boolean wordGoesOn = i < to && isWord(text, i);
                for (Phrase phrase : trie.ends(at)) {
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

    /**
     * The phrases as a tree of classes of characters, each state with where the text stands when none of its children follows.
     */
    private static final class Trie {
        private final boolean[] isWord;
        private final char blank;
        /** Where a text stands before a word, and within one that no phrase has begun; the same when that may be anywhere. */
        final int start;

        private final int within;
        private int size;
        private int[] child = new int[64];
        private int[] sibling = new int[64];
        private char[] label = new char[64];
        private int[] fail = new int[64];
        private final Map<Integer, List<Phrase>> ends = new HashMap<>();

        Trie(boolean anywhere, boolean[] isWord, char blank) {
            this.isWord = isWord;
            this.blank = blank;
            start = newState(OTHER);
            within = anywhere ? start : newState(OTHER);
        }

        boolean isEmpty() {
            return ends.isEmpty();
        }

        private int newState(char of) {
            if (size == child.length) {
                child = Arrays.copyOf(child, size * 2);
                sibling = Arrays.copyOf(sibling, size * 2);
                label = Arrays.copyOf(label, size * 2);
                fail = Arrays.copyOf(fail, size * 2);
            }
            child[size] = -1;
            sibling[size] = -1;
            label[size] = of;
            return size++;
        }

        void add(Phrase phrase, char[] classes) {
            int state = start;
            for (char c : phrase.text().toCharArray()) {
                int next = childOf(state, classes[c]);
                if (next < 0) {
                    next = newState(classes[c]);
                    sibling[next] = child[state];
                    child[state] = next;
                }
                state = next;
            }
            ends.computeIfAbsent(state, s -> new ArrayList<>(1)).add(phrase);
        }

        private int childOf(int state, int of) {
            int found = child[state];
            while (found >= 0 && label[found] != of) {
                found = sibling[found];
            }
            return found;
        }

        // Breadth first, so that a state shorter than another one is finished before it.
        void link() {
            int[] order = new int[size];
            int queued = 0;
            order[queued++] = start;
            for (int at = 0; at < queued; at++) {
                int state = order[at];
                for (int next = child[state]; next >= 0; next = sibling[next]) {
                    // What the text would stand at if no phrase had begun here.
                    fail[next] = state == start ? atRoot(label[next]) : step(fail[state], label[next]);
                    order[queued++] = next;
                }
            }
        }

        private int atRoot(int of) {
            return isWord[of] ? within : start;
        }

        int step(int from, int of) {
            int state = from;
            while (state != start && state != within) {
                int next = childOf(state, of);
                if (next >= 0) {
                    return next;
                }
                if (of == blank && label[state] == blank) {
                    // A run of blanks counts as one.
                    return state;
                }
                state = fail[state];
            }
            int next = state == start ? childOf(start, of) : -1;
            return next >= 0 ? next : atRoot(of);
        }

        /** The state itself or the longest end of it that ends a phrase; -1 when there is none. */
        int ending(int from) {
            int state = from;
            while (state != start && state != within && !ends.containsKey(state)) {
                state = fail[state];
            }
            return state == start || state == within ? -1 : state;
        }

        List<Phrase> ends(int state) {
            return ends.getOrDefault(state, List.of());
        }
    }

    private static final class Builder {
        /** Beyond so many places, about 16 MB, states have no rows. */
        private static final long MOST_PLACES = 4 << 20;

        private final boolean anywhere;
        private final Limits limits;

        Builder(boolean anywhere, Limits limits) {
            this.anywhere = anywhere;
            this.limits = limits;
        }

        PhraseAutomaton build(List<Phrase> phrases) {
            String letters = phrases.stream()
                    .flatMapToInt(phrase -> phrase.text().chars())
                    .distinct()
                    .sorted()
                    .mapToObj(c -> String.valueOf((char) c))
                    .collect(Collectors.joining());
            char[] classes = classes(letters);
            int width = FIRST_LETTER + letters.length();
            boolean[] isWord = new boolean[width];
            for (int c = OTHER; c < width; c++) {
                isWord[c] = c < FIRST_LETTER
                        ? c == OTHER_WORD
                        : Character.isLetterOrDigit(letters.charAt(c - FIRST_LETTER));
            }
            Trie trie = new Trie(anywhere, isWord, classes[' ']);
            phrases.forEach(phrase -> trie.add(phrase, classes));
            trie.link();
            boolean rows = (long) trie.size * width <= MOST_PLACES;
            return new PhraseAutomaton(classes, trie, rows ? steps(trie, width) : null);
        }

        private int[] steps(Trie trie, int width) {
            int[] steps = new int[trie.size * width];
            for (int state = 0; state < trie.size; state++) {
                for (int c = OTHER; c < width; c++) {
                    steps[state * width + c] = trie.step(state, c) * width;
                }
                Arrays.fill(steps, state * width, state * width + OTHER, NONE);
                for (int at = trie.ending(state); at >= 0; at = trie.ending(trie.fail[at])) {
                    owners(trie.ends(at), steps, state * width);
                }
            }
            return steps;
        }

        private void owners(List<Phrase> ends, int[] steps, int row) {
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
