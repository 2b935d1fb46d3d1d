package io.mivrel.coding;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Record;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;

/** Finds the entry that decides a bank line. Compiled once from a table; for one thread, since it counts its hits. */
public final class Coder {
    private final CodingEntry[] entries;
    private final Coding[] codings;
    private final long[] hits;
    private final PhraseFinder phrases;
    /** The smallest amount that each entry takes, without sign; beyond all amounts when it does not take that way. */
    private final long[] leastIn;

    private final long[] leastOut;
    private final long[] most;
    /** Entries without words, in order. */
    private final int[] wordless;

    public Coder(CodingTable table) {
        entries = table.entries().toArray(CodingEntry[]::new);
        codings = new Coding[entries.length];
        hits = new long[entries.length];
        leastIn = new long[entries.length];
        leastOut = new long[entries.length];
        most = new long[entries.length];
        List<Integer> bare = new ArrayList<>();
        PhraseFinder.Builder builder = new PhraseFinder.Builder();
        for (int i = 0; i < entries.length; i++) {
            long from = entries[i].from() == Record.ABSENT ? 0 : entries[i].from();
            leastIn[i] = entries[i].direction() == Direction.OUT ? Long.MAX_VALUE : from;
            leastOut[i] = entries[i].direction() == Direction.IN ? Long.MAX_VALUE : from;
            most[i] = entries[i].to() == Record.ABSENT ? Long.MAX_VALUE : entries[i].to();
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
                builder.add(phrase, i);
            }
        }
        phrases = builder.build();
        wordless = bare.stream().mapToInt(Integer::intValue).toArray();
    }

    /** What the first entry that fits decides, or {@code null} when none does. The record must have an amount. */
    public Coding decide(Record line) {
        long amount = line.number(BankLines.AMOUNT);
        long[] least = amount < 0 ? leastOut : leastIn;
        long size = Math.abs(amount);
        IntPredicate fits = i -> size >= least[i] && size <= most[i];
        int best = phrases.first(line, BankLines.NARRATIVE, entries.length, fits);
        best = phrases.first(line, BankLines.PAYEE, best, fits);
        for (int i : wordless) {
            if (i >= best) {
                break;
            }
            if (fits.test(i)) {
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
        return !PhraseFinder.normal(phrase.replace("*", " ")).isEmpty();
    }
}
