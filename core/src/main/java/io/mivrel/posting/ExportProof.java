package io.mivrel.posting;

import io.mivrel.money.Money;
import io.mivrel.posting.BalanceChanges.Place;
import io.mivrel.posting.Proof.AccountLine;
import io.mivrel.posting.Proof.Difference;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The proof without a connection to the ledger: the entries of a run against trial balances from before and after, or against
 * a list of entries, that the ledger exported.
 *
 * @param accounts by account; empty for a list of entries
 * @param documents how many the run has cleared
 * @param there how many of them stand in the list as they are; equal to {@code documents} for trial balances that agree
 * @param differences what does not agree; empty when all is proved
 */
public record ExportProof(List<AccountLine> accounts, long documents, long there, List<Difference> differences) {
    private static final int KEPT = 50;
    private static final int LIKELY = 3;

    /** A line of an exported list. {@code row} is its row in the file, from 1. */
    public record Listed(String reference, String account, long minor, long row) {}

    public boolean holds() {
        return differences.isEmpty();
    }

    /** Before and batch must make after, on every account. */
    public static ExportProof ofBalances(EntrySource entries, BalanceChanges before, BalanceChanges after)
            throws IOException {
        BalanceChanges sent = new BalanceChanges();
        long[] count = {0};
        entries.entries(one -> {
            sent.add(one.entry());
            count[0]++;
        });
        Set<Place> places = new TreeSet<>(before.sides().keySet());
        places.addAll(after.sides().keySet());
        places.addAll(sent.sides().keySet());
        List<AccountLine> lines = new ArrayList<>();
        Map<Place, Long> apart = new HashMap<>();
        for (Place place : places) {
            long added = sent.net(place);
            AccountLine line = new AccountLine(place, null, before.net(place), added, added, 0, after.net(place));
            lines.add(line);
            if (!line.holds()) {
                apart.put(place, line.after() - line.before() - line.sent());
            }
        }
        Map<Place, List<String>> likely = likely(entries, apart);
        List<Difference> differences = new ArrayList<>();
        for (AccountLine line : lines) {
            if (!line.holds() && differences.size() < KEPT) {
                Currency currency = Currency.getInstance(line.place().currency());
                String what = "account " + line.place().account() + ": before and batch make "
                        + Money.show(line.before() + line.sent(), currency) + ", and the ledger says "
                        + Money.show(line.after(), currency);
                differences.add(
                        new Difference(what, "", String.join("; or ", likely.getOrDefault(line.place(), List.of()))));
            }
        }
        return new ExportProof(lines, count[0], differences.isEmpty() ? count[0] : 0, differences);
    }

    // The documents that would explain what an account is apart by.
    private static Map<Place, List<String>> likely(EntrySource entries, Map<Place, Long> apart) throws IOException {
        Map<Place, List<String>> likely = new HashMap<>();
        if (apart.isEmpty()) {
            return likely;
        }
        entries.entries(one -> {
            for (EntryLine line : one.entry().lines()) {
                Place place = new Place(line.account(), one.entry().currency().getCurrencyCode());
                Long by = apart.get(place);
                String what = by == null ? "" : EntryComparison.words(line.minor(), line.minor() + by);
                List<String> found = likely.computeIfAbsent(place, p -> new ArrayList<>());
                if (!what.isEmpty() && found.size() < LIKELY) {
                    found.add(one.entry().reference() + " (" + one.file() + " row " + one.row() + "): " + what);
                }
            }
        });
        return likely;
    }

    /** Every document of the run must stand in the list, once and with its lines. */
    public static ExportProof ofList(EntrySource entries, List<Listed> list) throws IOException {
        Map<String, List<Listed>> byReference = new HashMap<>();
        list.forEach(line -> byReference
                .computeIfAbsent(line.reference(), r -> new ArrayList<>())
                .add(line));
        List<Difference> differences = new ArrayList<>();
        long[] counts = new long[2];
        entries.entries(one -> {
            counts[0]++;
            Entry entry = one.entry();
            List<Listed> there = byReference.getOrDefault(entry.reference(), List.of());
            String at = one.file() + " row " + one.row();
            String what = compare(entry, there);
            if (what.isEmpty()) {
                counts[1]++;
            } else if (differences.size() < KEPT) {
                String likely = there.isEmpty() ? "omitted" : likely(entry, there);
                differences.add(new Difference(entry.title() + " " + what, at, likely));
            }
        });
        return new ExportProof(List.of(), counts[0], counts[1], differences);
    }

    private static String compare(Entry entry, List<Listed> there) {
        if (there.isEmpty()) {
            return "is not in the list";
        }
        Map<String, Long> sums = new HashMap<>();
        entry.lines().forEach(line -> sums.merge(line.account(), line.minor(), Long::sum));
        there.forEach(line -> sums.merge(line.account(), -line.minor(), Long::sum));
        for (Map.Entry<String, Long> one : sums.entrySet()) {
            if (one.getValue() != 0) {
                return "differs on account " + one.getKey() + " by " + Money.show(-one.getValue(), entry.currency());
            }
        }
        return "";
    }

    private static String likely(Entry entry, List<Listed> there) {
        Map<String, Long> sent = new HashMap<>();
        Map<String, Long> listed = new HashMap<>();
        entry.lines().forEach(line -> sent.merge(line.account(), line.minor(), Long::sum));
        there.forEach(line -> listed.merge(line.account(), line.minor(), Long::sum));
        for (Map.Entry<String, Long> one : sent.entrySet()) {
            long other = listed.getOrDefault(one.getKey(), 0L);
            if (other != one.getValue()) {
                return EntryComparison.words(one.getValue(), other);
            }
        }
        return "another account";
    }
}
