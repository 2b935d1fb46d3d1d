package io.mivrel.coding;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Record;
import java.util.ArrayList;
import java.util.List;

/** Finds the entry that decides a bank line. Compiled once from a table; for one thread, since it counts its hits. */
public final class Coder {
    private final CodingEntry[] entries;
    private final Coding[] codings;
    private final long[] hits;
    private final PhraseFinder phrases;
    private final Limits limits;
    /** Entries without words, in order. */
    private final int[] wordless;

    public Coder(CodingTable table) {
        entries = table.entries().toArray(CodingEntry[]::new);
        codings = new Coding[entries.length];
        hits = new long[entries.length];
        limits = new Limits(table.entries());
        List<Integer> bare = new ArrayList<>();
        List<Phrase> words = new ArrayList<>();
        for (int i = 0; i < entries.length; i++) {
            codings[i] = new Coding(
                    entries[i].name(),
                    entries[i].account(),
                    entries[i].taxCode(),
                    entries[i].party(),
                    entries[i].narrative());
            if (entries[i].words().isEmpty()) {
                bare.add(i);
            }
            for (String phrase : entries[i].words()) {
                words.add(Phrase.of(phrase, i));
            }
        }
        phrases = new PhraseFinder(words, limits);
        wordless = bare.stream().mapToInt(Integer::intValue).toArray();
    }

    /** What the first entry that fits decides, or {@code null} when none does. The record must have an amount. */
    public Coding decide(Record line) {
        long amount = line.number(BankLines.AMOUNT);
        int best = phrases.first(line, BankLines.NARRATIVE, entries.length, amount);
        best = phrases.first(line, BankLines.PAYEE, best, amount);
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
