package io.mivrel.coding;

import io.mivrel.model.BankLines;
import io.mivrel.model.Record;
import java.util.ArrayList;
import java.util.List;

/** Finds the entry that decides a bank line. Compiled once from a table; for one thread, since it counts its hits. */
public final class Coder {
    private final CodingEntry[] entries;
    private final long[] hits;
    private final PhraseFinder phrases;
    /** Entries without words, in order. */
    private final int[] wordless;

    public Coder(CodingTable table) {
        entries = table.entries().toArray(CodingEntry[]::new);
        hits = new long[entries.length];
        List<Integer> bare = new ArrayList<>();
        PhraseFinder.Builder builder = new PhraseFinder.Builder();
        for (int i = 0; i < entries.length; i++) {
            if (entries[i].words().isEmpty()) {
                bare.add(i);
            }
            for (String phrase : entries[i].words()) {
                builder.add(phrase, i);
            }
        }
        phrases = builder.build();
        wordless = bare.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The first entry that fits, or {@code null} when none does. The record must have an amount. */
    public CodingEntry decide(Record line) {
        long amount = line.number(BankLines.AMOUNT);
        int best = phrases.first(line, BankLines.NARRATIVE, entries.length, i -> entries[i].fits(amount));
        best = phrases.first(line, BankLines.PAYEE, best, i -> entries[i].fits(amount));
        for (int i : wordless) {
            if (i >= best) {
                break;
            }
            if (entries[i].fits(amount)) {
                best = i;
                break;
            }
        }
        if (best == entries.length) {
            return null;
        }
        hits[best]++;
        return entries[best];
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
        return !PhraseFinder.normal(phrase.replace("*", " ")).isEmpty();
    }
}
