package io.mivrel.coding;

import io.mivrel.model.Coding;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Finds the entry that decides a line. Compiled once from a table; for one thread, since it counts its hits. */
public final class Coder {
    private final Field amountField;
    /** The fields whose words count. */
    private final Field[] texts;

    private final CodingEntry[] entries;
    private final Coding[] codings;
    private final long[] hits;
    private final PhraseAutomaton atWords;
    private final PhraseAutomaton anywhere;
    private final Limits limits;
    /** Entries without words, in order. */
    private final int[] wordless;

    /** A coder for records of a kind that {@linkplain Kind#isCoded can be coded}. */
    public Coder(CodingTable table, Kind kind) {
        amountField = kind.amount();
        texts = Stream.of(kind.narrative(), kind.payee())
                .filter(Objects::nonNull)
                .toArray(Field[]::new);
        entries = table.entries().toArray(CodingEntry[]::new);
        codings = new Coding[entries.length];
        hits = new long[entries.length];
        limits = new Limits(table.entries());
        List<Integer> bare = new ArrayList<>();
        List<Phrase> words = new ArrayList<>();
        for (int i = 0; i < entries.length; i++) {
            codings[i] = new Coding(entries[i].name(), entries[i].narrative(), entries[i].postings());
            if (entries[i].words().isEmpty()) {
                bare.add(i);
            }
            for (String phrase : entries[i].words()) {
                words.add(Phrase.of(phrase, i));
            }
        }
        atWords = PhraseAutomaton.atWords(
                words.stream().filter(p -> !p.openStart()).toList(), limits);
        anywhere = PhraseAutomaton.anywhere(
                words.stream().filter(Phrase::openStart).toList(), limits);
        wordless = bare.stream().mapToInt(Integer::intValue).toArray();
    }

    /**
     * What the first entry that fits a line decides, or {@code null} when none does. The line must have an amount.
     *
     * @param index place of the line in its block
     */
    public @Nullable Coding decide(RecordBlock lines, int index) {
        long amount = lines.number(amountField, index);
        int best = entries.length;
        for (Field field : texts) {
            if (!lines.lacks(field)) {
                best = first(lines, field, index, best, amount);
            }
        }
        for (int i : wordless) {
            if (i >= best) {
                break;
            }
            if (limits.fit(i, amount)) {
                best = i;
                break;
            }
        }
        if (best == entries.length) {
            return null;
        }
        hits[best]++;
        return codings[best];
    }

    private int first(RecordBlock lines, Field field, int index, int limit, long amount) {
        byte[] text = lines.textBytes();
        int from = lines.textStart(field, index);
        int to = lines.textEnd(field, index);
        int best = atWords.first(text, from, to, limit, limits, amount);
        return anywhere.first(text, from, to, best, limits, amount);
    }

    /** The entries that decided nothing so far. */
    public List<CodingEntry> unused() {
        List<CodingEntry> unused = new ArrayList<>();
        for (int i = 0; i < entries.length; i++) {
            if (hits[i] == 0) {
                unused.add(entries[i]);
            }
        }
        return unused;
    }

    /** True for a phrase that {@link CodingEntry#words()} can use: something is left when stars and blanks go. */
    public static boolean isUsablePhrase(String phrase) {
        return !Phrase.of(phrase, 0).text().isEmpty();
    }
}
