package io.mivrel.coding;

import java.util.ArrayList;
import java.util.List;

/**
 * Finds the first of many entries with a phrase in a text, in a time that grows with the text alone. Phrases of whole words
 * are found by a step for each word, all others, and all of them in a text beyond ASCII, by an automaton. Immutable.
 */
final class PhraseFinder {
    private final Limits limits;
    private final WordAutomaton words;
    /** What that cannot hold; {@code null} when that is nothing. */
    private final PhraseAutomaton others;

    private final PhraseAutomaton all;

    PhraseFinder(List<Phrase> phrases, Limits limits) {
        this.limits = limits;
        List<Phrase> rest = new ArrayList<>();
        words = WordAutomaton.of(phrases, limits, rest);
        others = rest.isEmpty() ? null : PhraseAutomaton.of(rest);
        all = rest.size() == phrases.size() && others != null ? others : PhraseAutomaton.of(phrases);
    }

    /**
     * The smallest owner below {@code limit} with a phrase in the UTF-8 bytes between {@code from} and {@code to} and
     * whose entry takes the amount; {@code limit} when there is none.
     */
    int first(byte[] text, int from, int to, int limit, long amount) {
        int best = words.first(text, from, to, limit, amount);
        if (best == WordAutomaton.NOT_ASCII) {
            return all.first(text, from, to, limit, entry -> limits.fit(entry, amount));
        }
        return others == null ? best : others.first(text, from, to, best, entry -> limits.fit(entry, amount));
    }
}
