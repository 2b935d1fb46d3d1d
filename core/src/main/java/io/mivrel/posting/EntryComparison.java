package io.mivrel.posting;

import io.mivrel.checking.Imbalance;
import io.mivrel.money.Money;
import java.util.ArrayList;
import java.util.List;

/** Compares an entry as it was sent with what stands in its place, the way a bookkeeper looks for a difference. */
final class EntryComparison {
    private EntryComparison() {}

    /** What differs, and what probably happened; the latter is empty when nothing fits. */
    record Diagnosis(String what, String likely) {}

    static Diagnosis compare(Entry sent, Entry there) {
        if (!sent.date().equals(there.date())) {
            return new Diagnosis("sent for " + sent.date() + ", and there of " + there.date(), "a changed date");
        }
        List<EntryLine> lacking = new ArrayList<>(sent.lines());
        List<EntryLine> extra = new ArrayList<>();
        for (EntryLine line : there.lines()) {
            if (!lacking.remove(line)) {
                extra.add(line);
            }
        }
        if (lacking.isEmpty() && extra.isEmpty()) {
            return new Diagnosis("its reference or text is another one", "a changed text");
        }
        String what = "sent with " + shown(sent, lacking) + ", and there with " + shown(sent, extra);
        return new Diagnosis(what, likely(sent, lacking, extra));
    }

    private static String shown(Entry entry, List<EntryLine> lines) {
        if (lines.isEmpty()) {
            return "no such line";
        }
        EntryLine first = lines.get(0);
        String more = lines.size() == 1 ? "" : " and " + (lines.size() - 1) + " more";
        return Money.show(first.minor(), entry.currency()) + " on " + first.account() + more;
    }

    private static String likely(Entry sent, List<EntryLine> lacking, List<EntryLine> extra) {
        if (extra.isEmpty()) {
            return "a line omitted";
        }
        EntryLine more = extra.get(0);
        if (lacking.isEmpty()) {
            boolean again = sent.lines().contains(more);
            return again ? "a line doubled" : "a line added";
        }
        EntryLine less = lacking.get(0);
        if (less.minor() == more.minor()) {
            return less.account().equals(more.account()) ? "a changed text or code" : "another account";
        }
        return words(less.minor(), more.minor());
    }

    /** What makes one amount into another; empty when nothing fits. */
    static String words(long sent, long there) {
        if (sent == -there) {
            return "on the wrong side";
        }
        if (there == 0) {
            return "omitted";
        }
        if (there == 2 * sent) {
            return "doubled";
        }
        boolean sameSide = Long.signum(sent) == Long.signum(there);
        if (sameSide && Imbalance.areSwapped(Math.abs(sent), Math.abs(there))) {
            return "two digits swapped";
        }
        long large = Math.max(Math.abs(sent), Math.abs(there));
        long small = Math.min(Math.abs(sent), Math.abs(there));
        if (sameSide && (large == small * 10 || large == small * 100)) {
            return "a decimal point that slipped";
        }
        return Math.abs(sent - there) == 1 ? "a rounding" : "";
    }
}
