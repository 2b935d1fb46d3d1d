package io.mivrel.coding;

import io.mivrel.cells.Spans;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * Finds phrases of whole words in texts of ASCII: an automaton like {@link PhraseAutomaton}, whose steps are words in the
 * place of characters. Words are cut out eight bytes at a time and looked up each on its own, so that the processor need
 * not wait, nor guess where one ends. Immutable.
 */
final class WordAutomaton {
    /** The answer for a text that is not all ASCII. */
    static final int NOT_ASCII = -1;

    private static final int LONGEST_WORD = 16;
    /** Most steps in the table: 4 MB. */
    private static final int MOST_STEPS = 1 << 21;

    private static final int NONE = Integer.MAX_VALUE;

    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST = ONES * 0x80;
    private static final long SMALL = ONES * 0x20;
    /** The bytes among the first eight, and among the second eight, that are of a word, by its length. */
    private static final long[] FIRST = new long[LONGEST_WORD + 1];

    private static final long[] SECOND = new long[LONGEST_WORD + 1];

    static {
        for (int length = 1; length <= LONGEST_WORD; length++) {
            FIRST[length] = length >= 8 ? -1 : -1L >>> 64 - 8 * length;
            SECOND[length] = length <= 8 ? 0 : length == 16 ? -1 : -1L >>> 128 - 8 * length;
        }
    }

    private final Limits limits;
    /** Two numbers for each place of the table of words: the first eight bytes and the second; nil where there is none. */
    private final long[] keys;

    private final char[] wordAt;
    private final int mask;
    /** Words that the phrases have, and one for all others. */
    private final int width;

    private final char[] next;
    /** The first entry by each state that takes every amount that goes in, and that goes out. */
    private final int[] firstIn;

    private final int[] firstOut;
    /** By state, the entries that take only some amounts; {@code null} when there are none at all. */
    private final int[][] limited;

    /** An automaton of those phrases that it can hold; the others are added to {@code others}. */
    static WordAutomaton of(List<Phrase> phrases, Limits limits, List<Phrase> others) {
        List<Phrase> ofWords = new ArrayList<>();
        long words = 1;
        for (Phrase phrase : phrases) {
            boolean fits = phrase.isOfWholeWords(LONGEST_WORD);
            (fits ? ofWords : others).add(phrase);
            words += fits ? phrase.text().split(" ").length : 0;
        }
        if (words * words > MOST_STEPS) {
            others.addAll(ofWords);
            ofWords.clear();
        }
        return new WordAutomaton(ofWords, limits);
    }

    private WordAutomaton(List<Phrase> phrases, Limits limits) {
        this.limits = limits;
        Map<String, Integer> numbers = new LinkedHashMap<>();
        for (Phrase phrase : phrases) {
            for (String word : phrase.text().split(" ")) {
                numbers.putIfAbsent(word, numbers.size() + 1);
            }
        }
        width = numbers.size() + 1;
        int places = Integer.highestOneBit(Math.max(16, width * 8)) * 2;
        mask = places - 1;
        keys = new long[2 * places];
        wordAt = new char[places];
        numbers.forEach((word, number) -> {
            byte[] text = Arrays.copyOf(word.getBytes(StandardCharsets.US_ASCII), LONGEST_WORD);
            long first = key(text, 0, word.length(), FIRST);
            long second = key(text, 8, word.length(), SECOND);
            int place = place(first, second);
            while (keys[2 * place] != 0) {
                place = place + 1 & mask;
            }
            keys[2 * place] = first;
            keys[2 * place + 1] = second;
            wordAt[place] = (char) (int) number;
        });
        List<Map<Integer, Integer>> children = new ArrayList<>(List.of(new HashMap<>()));
        List<TreeSet<Integer>> owners = new ArrayList<>(List.of(new TreeSet<>()));
        for (Phrase phrase : phrases) {
            int state = 0;
            for (String word : phrase.text().split(" ")) {
                Integer child = children.get(state).putIfAbsent(numbers.get(word), children.size());
                if (child == null) {
                    child = children.size();
                    children.add(new HashMap<>());
                    owners.add(new TreeSet<>());
                }
                state = child;
            }
            owners.get(state).add(phrase.owner());
        }
        next = steps(children, owners);
        firstIn = owners.stream().mapToInt(o -> first(o, false)).toArray();
        firstOut = owners.stream().mapToInt(o -> first(o, true)).toArray();
        int[][] some = owners.stream()
                .map(o -> o.stream()
                        .filter(this::isLimited)
                        .mapToInt(Integer::intValue)
                        .toArray())
                .toArray(int[][]::new);
        limited = Arrays.stream(some).allMatch(s -> s.length == 0) ? null : some;
    }

    // As in the automaton of characters: a state goes by a word where its longest shorter ending goes.
    private char[] steps(List<Map<Integer, Integer>> children, List<TreeSet<Integer>> owners) {
        char[] steps = new char[children.size() * width];
        int[] fail = new int[children.size()];
        ArrayDeque<Integer> queue = new ArrayDeque<>(List.of(0));
        while (!queue.isEmpty()) {
            int state = queue.remove();
            if (state != 0) {
                owners.get(state).addAll(owners.get(fail[state]));
                System.arraycopy(steps, fail[state] * width, steps, state * width, width);
            }
            children.get(state).forEach((word, child) -> {
                fail[child] = steps[state * width + word];
                steps[state * width + word] = (char) (int) child;
                queue.add(child);
            });
        }
        return steps;
    }

    private int first(TreeSet<Integer> owners, boolean out) {
        return owners.stream().filter(o -> limits.takesAll(o, out)).findFirst().orElse(NONE);
    }

    private boolean isLimited(int owner) {
        return !limits.takesAll(owner, true) && !limits.takesNone(owner, true)
                || !limits.takesAll(owner, false) && !limits.takesNone(owner, false);
    }

    /**
     * The smallest owner below {@code limit} that takes the amount and has a phrase between {@code from} and {@code to};
     * {@code limit} when there is none, {@link #NOT_ASCII} when the text is not for this automaton.
     */
    int first(byte[] text, int from, int to, int limit, long amount) {
        final int[] firstOf = amount < 0 ? firstOut : firstIn;
        int best = limit;
        int state = 0;
        boolean broken = false;
        int at = from;
        while (at < to) {
            // A bit for each of up to 64 bytes that is of a word, and that is neither of a word nor a blank.
            long words = 0;
            long marks = 0;
            int length = Math.min(64, to - at);
            for (int k = 0; k < length; k += 8) {
                long x = k + 8 <= length ? Spans.eight(text, at + k) : Spans.few(text, at + k, length - k);
                if ((x & HIGHEST) != 0) {
                    return NOT_ASCII;
                }
                long letters = wordBytes(x);
                words |= together(letters) << k;
                marks |= together(x + ONES * (0x7F - ' ') & HIGHEST & ~letters) << k;
            }
            int after = at + length;
            for (long starts = words & ~(words << 1); starts != 0; starts &= starts - 1) {
                int start = Long.numberOfTrailingZeros(starts);
                int end = start + Long.numberOfTrailingZeros(~(words >>> start));
                broken |= (marks & (starts & -starts) - 1) != 0;
                if (end == 64 && after < to) {
                    // It may go on: it is looked at again from its start, unless it is too long for any phrase.
                    broken |= start == 0;
                    after = start > 0 ? at + start : endOfWord(text, after, to);
                    marks = 0;
                    break;
                }
                state = next[(broken ? 0 : state * width) + word(text, at + start, end - start)];
                best = Math.min(best, firstOf[state]);
                if (limited != null) {
                    best = best(limited[state], best, amount);
                }
                broken = false;
                marks = end == 64 ? 0 : marks & -1L << end;
            }
            broken |= marks != 0;
            at = after;
        }
        return best;
    }

    private int best(int[] some, int before, long amount) {
        for (int owner : some) {
            if (owner < before && limits.fit(owner, amount)) {
                return owner;
            }
        }
        return before;
    }

    // The highest bit of each byte that is a letter or digit. Adding brings it up in bytes that are at least so large.
    private static long wordBytes(long x) {
        long small = x | SMALL;
        long letters = (small + ONES * (0x80 - 'a')) & ~(small + ONES * (0x7F - 'z'));
        long digits = (x + ONES * (0x80 - '0')) & ~(x + ONES * (0x7F - '9'));
        return (letters | digits) & HIGHEST;
    }

    // The highest bits of eight bytes as one byte.
    private static long together(long highest) {
        return (highest >>> 7) * 0x0102040810204080L >>> 56;
    }

    private static int endOfWord(byte[] text, int from, int to) {
        int i = from;
        while (i < to && Phrase.isWord(text[i])) {
            i++;
        }
        return i;
    }

    private int word(byte[] text, int at, int length) {
        if (length > LONGEST_WORD) {
            return 0;
        }
        if (at + LONGEST_WORD > text.length) {
            return word(Arrays.copyOfRange(text, at, at + LONGEST_WORD), 0, length);
        }
        long first = key(text, at, length, FIRST);
        long second = key(text, at + 8, length, SECOND);
        int place = place(first, second);
        while (keys[2 * place] != first || keys[2 * place + 1] != second) {
            if (keys[2 * place] == 0) {
                return 0;
            }
            place = place + 1 & mask;
        }
        return wordAt[place];
    }

    // Small letters; a digit has that bit already.
    private static long key(byte[] text, int at, int length, long[] own) {
        return (Spans.eight(text, at) | SMALL) & own[length];
    }

    private int place(long first, long second) {
        long h = (first ^ Long.rotateLeft(second, 23)) * 0x9E3779B97F4A7C15L;
        return (int) (h >>> 40) & mask;
    }
}
