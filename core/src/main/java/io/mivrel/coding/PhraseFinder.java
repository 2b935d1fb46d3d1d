package io.mivrel.coding;

import io.mivrel.model.Field;
import io.mivrel.model.Record;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.IntPredicate;

/**
 * Finds many phrases in a text in one pass: the automaton of Aho and Corasick (Communications of the ACM 18, 1975) with
 * all transitions worked out beforehand. Its time grows with the text alone, however many phrases there are. Letters are
 * compared without regard to case, and every run of blanks counts as one. Immutable once built.
 */
final class PhraseFinder {
    private record Target(int owner, int length, boolean openStart, boolean openEnd) {}

    private final char[] classes;
    private final int width;
    private final int[] next;
    private final Target[][] found;

    private PhraseFinder(char[] classes, int width, int[] next, Target[][] found) {
        this.classes = classes;
        this.width = width;
        this.next = next;
        this.found = found;
    }

    /** The same in a text field of a record, without making a string. */
    int first(Record record, Field field, int limit, IntPredicate accepts) {
        return first(record.textChars(), record.textStart(field), record.textEnd(field), limit, accepts);
    }

    /**
     * The smallest owner below {@code limit} with a phrase between {@code from} and {@code to} and accepted by the test;
     * {@code limit} when there is none.
     */
    int first(char[] text, int from, int to, int limit, IntPredicate accepts) {
        if (found.length == 1) {
            return limit;
        }
        int best = limit;
        int state = 0;
        boolean lastBlank = true;
        for (int i = from; i < to; i++) {
            char c = text[i];
            boolean blank = isBlank(c);
            if (blank) {
                if (lastBlank) {
                    continue;
                }
                c = ' ';
            }
            lastBlank = blank;
            state = next[state * width + classOf(c)];
            Target[] here = found[state];
            if (here != null) {
                for (Target target : here) {
                    if (target.owner < best && standsAlone(text, from, to, i, target) && accepts.test(target.owner)) {
                        best = target.owner;
                    }
                }
            }
        }
        return best;
    }

    private int classOf(char c) {
        char lower = c < 128 ? (c >= 'A' && c <= 'Z' ? (char) (c + 32) : c) : Character.toLowerCase(c);
        return lower < classes.length ? classes[lower] : 0;
    }

    private static boolean standsAlone(char[] text, int from, int to, int last, Target target) {
        if (!target.openEnd && last + 1 < to && Character.isLetterOrDigit(text[last + 1])) {
            return false;
        }
        if (target.openStart) {
            return true;
        }
        // Walk back over the phrase; runs of blanks in the text count as one.
        int i = last;
        for (int left = target.length; left > 0; left--) {
            if (isBlank(text[i])) {
                while (i > from && isBlank(text[i - 1])) {
                    i--;
                }
            }
            i--;
        }
        return i < from || !Character.isLetterOrDigit(text[i]);
    }

    private static boolean isBlank(char c) {
        return c <= ' ' || c == '\u00a0';
    }

    /** Lower case, one blank between words, none around. */
    static String normal(String phrase) {
        return phrase.toLowerCase(Locale.ROOT).replace('\u00a0', ' ').strip().replaceAll("\\s+", " ");
    }

    static final class Builder {
        private final List<Map<Character, Integer>> children = new ArrayList<>();
        private final List<List<Target>> targets = new ArrayList<>();

        Builder() {
            newState();
        }

        private int newState() {
            children.add(new HashMap<>());
            targets.add(new ArrayList<>());
            return children.size() - 1;
        }

        void add(String phrase, int owner) {
            boolean openStart = phrase.strip().startsWith("*");
            boolean openEnd = phrase.strip().endsWith("*");
            String normal = normal(phrase.replace("*", " "));
            int state = 0;
            for (char c : normal.toCharArray()) {
                Integer child = children.get(state).get(c);
                if (child == null) {
                    child = newState();
                    children.get(state).put(c, child);
                }
                state = child;
            }
            targets.get(state).add(new Target(owner, normal.length(), openStart, openEnd));
        }

        PhraseFinder build() {
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
            Target[][] found = new Target[states][];
            for (int s = 0; s < states; s++) {
                found[s] = targets.get(s).isEmpty() ? null : targets.get(s).toArray(Target[]::new);
            }
            return new PhraseFinder(classes, width, next, found);
        }
    }
}
