package io.mivrel.coding;

import io.mivrel.text.Spans;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Finds many phrases in a text in one pass: the automaton of Aho and Corasick (Communications of the ACM 18, 1975) with
 * all transitions worked out beforehand. Its time grows with the text alone, however many phrases there are. Letters are
 * compared without regard to case, and every run of blanks counts as one. Immutable once built.
 */
final class PhraseAutomaton {
    /** The class of each character of the basic plane that stands in a phrase; all others have class 0. */
    private final char[] classes;

    private final int shift;
    /** Where each state goes by each class; in the small form when it fits, which the processor keeps at hand. */
    private final char[] smallNext;

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
        this.smallNext = next.length <= Character.MAX_VALUE ? new char[next.length] : null;
        for (int i = 0; smallNext != null && i < next.length; i++) {
            smallNext[i] = (char) next[i];
        }
        this.found = found;
        this.firstOwner = Arrays.stream(found)
                .mapToInt(ends ->
                        Arrays.stream(ends).mapToInt(Phrase::owner).min().orElse(Integer.MAX_VALUE))
                .toArray();
        this.firstFound = firstFound;
    }

    static PhraseAutomaton of(List<Phrase> phrases) {
        Builder builder = new Builder();
        phrases.forEach(builder::add);
        return builder.build();
    }

    /**
     * The smallest owner below {@code limit} with a phrase between {@code from} and {@code to} whose entry takes the amount;
     * {@code limit} when there is none.
     */
    int first(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        if (found.length == 1) {
            return limit;
        }
        final int[] steps = next;
        final char[] smallSteps = smallNext;
        final char[] classOf = classes;
        int best = limit;
        int state = 0;
        byte last = ' ';
        boolean simple = true;
        for (int i = from; i < to; i++) {
            byte b = text[i];
            if (b <= ' ') {
                if (b < 0) {
                    return firstWide(text, from, to, limit, limits, amount);
                }
                if (last == ' ') {
                    // Runs of blanks count as one.
                    simple = false;
                    continue;
                }
                b = ' ';
            }
            last = b;
            state = smallSteps != null ? smallSteps[state + classOf[b]] : steps[state + classOf[b]];
            if (state >= firstFound && firstOwner[state >>> shift] < best) {
                best = best(text, from, to, i, state, best, limits, amount, simple);
            }
        }
        return best;
    }

    // The same for texts with characters beyond ASCII, from the beginning.
    private int firstWide(byte[] text, int from, int to, int limit, Limits limits, long amount) {
        int best = limit;
        int state = 0;
        boolean lastBlank = true;
        int i = from;
        while (i < to) {
            int length = Spans.length(text[i]);
            int c = Spans.codePoint(text, i);
            boolean blank = isBlank(c);
            i += length;
            if (blank && lastBlank) {
                continue;
            }
            lastBlank = blank;
            int known = blank ? ' ' : c;
            state = next[state + (known < classes.length ? classes[known] : 0)];
            if (state >= firstFound) {
                best = best(text, from, to, i - 1, state, best, limits, amount, false);
            }
        }
        return best;
    }

    // A simple text has a byte for each character that counts.
    private int best(
            byte[] text,
            int from,
            int to,
            int last,
            int state,
            int before,
            Limits limits,
            long amount,
            boolean simple) {
        int best = before;
        for (Phrase target : found[state >>> shift]) {
            if (target.owner() < best
                    && limits.fit(target.owner(), amount)
                    && (target.openEnd() || last + 1 == to || !isWord(text, last + 1))
                    && (target.openStart()
                            || standsAtStart(text, from, last, target.text().length(), simple))) {
                best = target.owner();
            }
        }
        return best;
    }

    private static boolean standsAtStart(byte[] text, int from, int last, int length, boolean simple) {
        if (simple) {
            int before = last - length;
            return before < from || !isWord(text, before);
        }
        // Walk back over the phrase; runs of blanks in the text count as one.
        int i = last + 1;
        for (int left = length; left > 0; left--) {
            i = Spans.before(text, i);
            if (isBlank(Spans.codePoint(text, i))) {
                while (i > from && isBlank(Spans.codePoint(text, Spans.before(text, i)))) {
                    i = Spans.before(text, i);
                }
            }
        }
        return i <= from || !isWord(text, Spans.before(text, i));
    }

    private static boolean isWord(byte[] text, int at) {
        int c = text[at];
        return c >= 0 ? Phrase.isWord(c) : Character.isLetterOrDigit(Spans.codePoint(text, at));
    }

    private static boolean isBlank(int c) {
        return c <= ' ' || c == 0xA0;
    }

    private static final class Builder {
        private final List<Map<Character, Integer>> children = new ArrayList<>();
        private final List<List<Phrase>> targets = new ArrayList<>();

        Builder() {
            newState();
        }

        private int newState() {
            children.add(new HashMap<>());
            targets.add(new ArrayList<>());
            return children.size() - 1;
        }

        void add(Phrase phrase) {
            int state = 0;
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

        PhraseAutomaton build() {
            char[] classes = new char[128];
            int width = 1;
            for (Map<Character, Integer> map : children) {
                for (char c : map.keySet()) {
                    if (c >= classes.length) {
                        classes = Arrays.copyOf(classes, c + 1);
                    }
                    if (classes[c] == 0) {
                        classes[c] = (char) width++;
                    }
                }
            }
            int states = children.size();
            int[] next = new int[states * width];
            int[] fail = new int[states];
            ArrayDeque<Integer> queue = new ArrayDeque<>();
            for (Map.Entry<Character, Integer> child : children.get(0).entrySet()) {
                next[classes[child.getKey()]] = child.getValue();
                queue.add(child.getValue());
            }
            while (!queue.isEmpty()) {
                int state = queue.remove();
                targets.get(state).addAll(targets.get(fail[state]));
                System.arraycopy(next, fail[state] * width, next, state * width, width);
                for (Map.Entry<Character, Integer> child : children.get(state).entrySet()) {
                    int to = child.getValue();
                    fail[to] = next[fail[state] * width + classes[child.getKey()]];
                    next[state * width + classes[child.getKey()]] = to;
                    queue.add(to);
                }
            }
            return renumbered(classes, width, next, states);
        }

        // States that end a phrase come last, so that one comparison tells them. A row of steps has a power of two of
        // places, and a state is the place where its row begins.
        private PhraseAutomaton renumbered(char[] classes, int width, int[] next, int states) {
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
            return new PhraseAutomaton(withCapitals(classes), shift, steps, found, firstFound << shift);
        }

        // A capital letter has the class of its small one; those of ASCII belong to ASCII alone.
        private static char[] withCapitals(char[] small) {
            char[] classes = small;
            for (char c = 0; c < small.length; c++) {
                if (small[c] != 0) {
                    for (char capital : new char[] {Character.toUpperCase(c), Character.toTitleCase(c)}) {
                        if (capital >= classes.length) {
                            classes = Arrays.copyOf(classes, capital + 1);
                        }
                        if (classes[capital] == 0 && (capital >= 0x80 || c < 0x80)) {
                            classes[capital] = small[c];
                        }
                    }
                }
            }
            return classes;
        }
    }
}
