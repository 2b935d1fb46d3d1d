package io.mivrel.coding;

import java.util.List;

/** Finds the first of many entries with a phrase in a text, in a time that grows with the text alone. Immutable. */
final class PhraseFinder {
    private final Limits limits;
    private final PhraseAutomaton phrases;

    PhraseFinder(List<Phrase> phrases, Limits limits) {
        this.limits = limits;
        this.phrases = PhraseAutomaton.of(phrases);
    }

    /**
     * The smallest owner below {@code limit} with a phrase in the UTF-8 bytes between {@code from} and {@code to} and
     * whose entry takes the amount; {@code limit} when there is none.
     */
    int first(byte[] text, int from, int to, int limit, long amount) {
        return phrases.first(text, from, to, limit, entry -> limits.fit(entry, amount));
    }
}
