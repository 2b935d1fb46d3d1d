package io.mivrel.coding;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;

/**
 * Finds whole phrases in a text of plain ASCII by the hash of their first words: a word of the text that begins no phrase
 * costs one look-up. Finds what {@link PhraseFinder} finds, in about half the time, for the phrases that it {@link
 * #takes}. Immutable.
 */
final class WordIndex {
    /** The answer when the text is not plain ASCII. */
    static final int NOT_ASCII = -1;

    private static final boolean[] WORD = new boolean[128];

    static {
        for (char c = 0; c < WORD.length; c++) {
            WORD[c] = Character.isLetterOrDigit(c);
        }
    }

    /** A phrase in lower case with one blank between its words. */
    private record Phrase(int owner, byte[] text) {}

    private final int[] hashes;
    /** By the place of their hash, in the order of their owners; {@code null} at a free place. */
    private final Phrase[][] phrases;

    /** Phrases by their owners, the smaller owner before the larger. */
    WordIndex(Map<Integer, List<String>> owned) {
        Map<Integer, List<Phrase>> byHash = new HashMap<>();
        owned.forEach((owner, texts) -> {
            for (String text : texts) {
                byte[] bytes = PhraseFinder.normal(text).getBytes(StandardCharsets.US_ASCII);
                int end = 0;
                while (end < bytes.length && WORD[bytes[end]]) {
                    end++;
                }
                byHash.computeIfAbsent(hash(bytes, end), h -> new ArrayList<>()).add(new Phrase(owner, bytes));
            }
        });
        int length = Integer.highestOneBit(Math.max(8, byHash.size())) * 4;
        hashes = new int[length];
        phrases = new Phrase[length][];
        byHash.forEach((hash, list) -> {
            int place = place(hash);
            hashes[place] = hash;
            phrases[place] = list.stream()
                    .sorted((a, b) -> Integer.compare(a.owner, b.owner))
                    .toArray(Phrase[]::new);
        });
    }

    /** True for a phrase without stars that begins with a letter or digit and is plain ASCII. */
    static boolean takes(String phrase) {
        String normal = PhraseFinder.normal(phrase);
        return !normal.isEmpty() && normal.chars().allMatch(c -> c < 128 && c != '*') && WORD[normal.charAt(0)];
    }

    private static int hash(byte[] word, int end) {
        int hash = 0;
        for (int i = 0; i < end; i++) {
            hash = hash * 31 + word[i];
        }
        return hash;
    }

    // The place of a hash, or the free one where it would stand.
    private int place(int hash) {
        int mask = hashes.length - 1;
        int place = (hash * 0x9E3779B9 >>> 12) & mask;
        while (phrases[place] != null && hashes[place] != hash) {
            place = (place + 1) & mask;
        }
        return place;
    }

    /**
     * The smallest owner below {@code limit} with a phrase between {@code from} and {@code to} and accepted by the test;
     * {@code limit} when there is none, {@link #NOT_ASCII} when another way must be taken.
     */
    int first(byte[] text, int from, int to, int limit, IntPredicate accepts) {
        int best = limit;
        int i = from;
        while (i < to) {
            byte b = text[i];
            if (b < 0) {
                return NOT_ASCII;
            }
            if (!WORD[b]) {
                i++;
                continue;
            }
            int start = i;
            int hash = 0;
            do {
                // The bit that tells small letters from capitals; digits have it too.
                hash = hash * 31 + (b | 0x20);
                i++;
                b = i < to ? text[i] : 0;
                if (b < 0) {
                    return NOT_ASCII;
                }
            } while (WORD[b]);
            Phrase[] known = phrases[place(hash)];
            if (known != null) {
                best = best(known, text, start, to, best, accepts);
            }
        }
        return best;
    }

    private static int best(Phrase[] known, byte[] text, int start, int to, int limit, IntPredicate accepts) {
        for (Phrase phrase : known) {
            if (phrase.owner >= limit) {
                return limit;
            }
            if (accepts.test(phrase.owner) && stands(phrase.text, text, start, to)) {
                return phrase.owner;
            }
        }
        return limit;
    }

    private static boolean stands(byte[] phrase, byte[] text, int start, int to) {
        int i = start;
        for (byte wanted : phrase) {
            if (i == to) {
                return false;
            }
            byte b = text[i++];
            if (wanted == ' ') {
                if (b > ' ' || b < 0) {
                    return false;
                }
                while (i < to && text[i] <= ' ' && text[i] >= 0) {
                    i++;
                }
            } else if (b != wanted && !(b >= 'A' && b <= 'Z' && (b | 0x20) == wanted)) {
                return false;
            }
        }
        // A byte beyond ASCII makes the whole answer void.
        return i == to || text[i] < 0 || !WORD[text[i]];
    }
}
