package io.mivrel.history;

import io.mivrel.corrections.Corrections;
import io.mivrel.history.DocumentHistory.Closing;
import io.mivrel.intake.Input;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Compares the files of one account with one another, once all are read: a file that begins after another one ended must go
 * out from its closing balance, and all lines together, each once, must lead from the first balance to the last. For one
 * thread.
 */
public final class Continuity {
    private record Covered(int ordinal, IntakeTally tally, LocalDate from, LocalDate to, long closing) {
        // Some formats state no opening balance; it follows from the closing one.
        long opening() {
            return closing - movement();
        }

        long movement() {
            return tally.spans().stream().mapToLong(StatementSpan::movement).sum();
        }
    }

    private static final Comparator<Covered> IN_ORDER =
            Comparator.comparing(Covered::from).thenComparing(Covered::to);

    private final List<Input> inputs;
    private final DocumentHistory history;
    private final Corrections corrections;
    private final Currency currency;
    private final Overlaps overlaps;
    private final List<Finding> findings = new ArrayList<>();
    private final Set<String> failed = new HashSet<>();

    public Continuity(
            List<Input> inputs,
            DocumentHistory history,
            Corrections corrections,
            Currency currency,
            Overlaps overlaps) {
        this.inputs = inputs;
        this.history = history;
        this.corrections = corrections;
        this.currency = currency;
        this.overlaps = overlaps;
    }

    /** Compares the files; the tallies stand in the order of the inputs. */
    public void compare(List<IntakeTally> tallies) throws IOException {
        Map<String, List<Covered>> byAccount = new LinkedHashMap<>();
        Set<String> unsure = new HashSet<>();
        for (int i = 0; i < tallies.size(); i++) {
            String account = inputs.get(i).layout().account();
            if (account != null) {
                if (overlaps.watches(account)) {
                    tellOverlap(tallies.get(i), overlaps.of(i + 1));
                }
                Covered covered = covered(i + 1, tallies.get(i));
                if (covered == null) {
                    // A file that fails on its own, or has no balances, leaves nothing to compare the others with.
                    unsure.add(account);
                } else {
                    byAccount.computeIfAbsent(account, a -> new ArrayList<>()).add(covered);
                }
            }
        }
        overlapWithoutCommonLines(tallies);
        byAccount.keySet().removeAll(unsure);
        for (Map.Entry<String, List<Covered>> files : byAccount.entrySet()) {
            if (overlaps.watches(files.getKey())) {
                follow(files.getValue());
            }
            files.getValue().sort(IN_ORDER);
            followHistory(files.getKey(), files.getValue().get(0));
        }
    }

    // The first file of an account goes on from the last one that an earlier run delivered.
    private void followHistory(String account, Covered file) throws IOException {
        Closing last = history.lastClosing(account, file.from());
        if (last == null || last.minor() == file.opening() || last.day().equals(file.from())) {
            return;
        }
        wrong(
                file,
                last.file() + ", delivered by '" + last.run() + "', closes after " + last.day() + " with "
                        + show(last.minor()) + ", but this file from " + file.from() + " on goes out from "
                        + show(file.opening()),
                "lines of " + show(file.opening() - last.minor()) + " in all are missing: download the days between "
                        + last.day() + " and " + file.from());
    }

    // The same days twice and no line the same: probably the same lines in two forms, which nothing can match up.
    private void overlapWithoutCommonLines(List<IntakeTally> tallies) {
        for (int later = 1; later < tallies.size(); later++) {
            for (int earlier = 0; earlier < later; earlier++) {
                String account = inputs.get(later).layout().account();
                if (account != null
                        && account.equals(inputs.get(earlier).layout().account())
                        && overlaps.of(later + 1).lines() == 0
                        && sharesDays(tallies.get(earlier), tallies.get(later))) {
                    IntakeTally file = tallies.get(later);
                    findings.add(new Finding(
                            Rule.FILES_OVERLAP,
                            Origin.of(file.file(), 0),
                            "",
                            "",
                            "covers days that " + tallies.get(earlier).file()
                                    + " covers too, and no line is the same in both",
                            "take in one of the two"));
                    failed.add(file.file());
                    return;
                }
            }
        }
    }

    // More than a day on which one ends and the other begins.
    private static boolean sharesDays(IntakeTally one, IntakeTally other) {
        if (one.firstDate().isEmpty() || other.firstDate().isEmpty()) {
            return false;
        }
        LocalDate from = latest(one.firstDate().get(), other.firstDate().get());
        LocalDate to = one.lastDate().get().isBefore(other.lastDate().get())
                ? one.lastDate().get()
                : other.lastDate().get();
        return from.isBefore(to);
    }

    private static LocalDate latest(LocalDate one, LocalDate other) {
        return one.isAfter(other) ? one : other;
    }

    private void tellOverlap(IntakeTally tally, Overlaps.Found found) {
        if (found.lines() == 0) {
            return;
        }
        String lines = found.lines() + (found.lines() == 1 ? " line stands" : " lines stand")
                + " in a file before it too " + (found.lines() == 1 ? "and was" : "and were") + " taken once";
        boolean guessed = found.byContent() > 0;
        findings.add(new Finding(
                guessed ? Rule.LINES_TAKEN_ONCE_BY_CONTENT : Rule.LINES_TAKEN_ONCE,
                Origin.of(tally.file(), 0),
                "",
                "",
                guessed
                        ? lines + "; " + found.byContent() + " of these by date, amount and text alone"
                        : lines + ", as identifiers or balances show",
                guessed ? "look whether the files really overlap on these days" : ""));
    }

    private static @Nullable Covered covered(int ordinal, IntakeTally tally) {
        List<StatementSpan> spans = tally.spans();
        if (spans.isEmpty()
                || tally.failed()
                || tally.proof().filter(p -> !p.holds()).isPresent()) {
            return null;
        }
        StatementSpan first = spans.get(0);
        StatementSpan last = spans.get(spans.size() - 1);
        LocalDate from =
                first.from() != null ? first.from() : tally.coveredFrom().orElse(null);
        LocalDate to = last.to() != null ? last.to() : tally.coveredTo().orElse(null);
        return from == null || to == null || last.closing() == SourceRecord.ABSENT
                ? null
                : new Covered(ordinal, tally, from, to, last.closing());
    }

    private void follow(List<Covered> files) {
        files.sort(IN_ORDER);
        Covered before = null;
        boolean found = false;
        long movement = 0;
        for (Covered file : files) {
            movement += file.movement() - overlaps.of(file.ordinal()).movement();
            // A file that ends before another one that began earlier adds nothing behind it.
            if (before == null || file.to().isAfter(before.to())) {
                if (before != null && file.from().isAfter(before.to()) && !goesOn(files, before.to(), file)) {
                    found = true;
                    gap(before, file);
                }
                before = file;
            }
        }
        // Where files overlap, only all of them together can be compared: every line once leads to the last balance.
        if (!found && before != null && files.size() > 1 && !leadsToTheEnd(files, movement)) {
            apart(files.get(0), before, movement);
        }
    }

    // Of files that begin or end on the same day, the days do not tell which is the first or the last.
    private static boolean leadsToTheEnd(List<Covered> files, long movement) {
        LocalDate begins = files.get(0).from();
        LocalDate ends =
                files.stream().map(Covered::to).max(Comparator.naturalOrder()).orElseThrow();
        return files.stream()
                .filter(first -> first.from().equals(begins))
                .anyMatch(first -> files.stream()
                        .filter(last -> last.to().equals(ends))
                        .anyMatch(last -> first.opening() + movement == last.closing()));
    }

    // Of several files that end on a day, one must end with what the next one begins with.
    private static boolean goesOn(List<Covered> files, LocalDate day, Covered next) {
        return files.stream().anyMatch(f -> f.to().equals(day) && f.closing() == next.opening());
    }

    private void gap(Covered before, Covered file) {
        wrong(
                file,
                before.tally().file() + " closes on " + before.to() + " with " + show(before.closing()) + ", but "
                        + file.tally().file() + " from " + file.from() + " on goes out from " + show(file.opening()),
                "lines of " + show(file.opening() - before.closing())
                        + " in all are missing between the two: download the days between " + before.to() + " and "
                        + file.from());
    }

    private void apart(Covered first, Covered last, long movement) {
        wrong(
                last,
                first.tally().file() + " goes out from " + show(first.opening()) + " and all lines, each once, come to "
                        + show(movement) + ", which leads to " + show(first.opening() + movement) + ", but "
                        + last.tally().file() + " closes with " + show(last.closing()),
                "one of the files that overlap was changed, or a line is missing between them");
    }

    private void wrong(Covered file, String reason, String suggestion) {
        Finding gap = corrections.judge(new Finding(
                Rule.STATEMENT_GAP, Origin.of(file.tally().file(), 0), "", show(file.opening()), reason, suggestion));
        findings.add(gap);
        if (gap.blocks()) {
            failed.add(file.tally().file());
        }
    }

    private String show(long minor) {
        return Money.show(minor, currency);
    }

    public List<Finding> findings() {
        return findings;
    }

    /** Files before which something is missing. */
    public Set<String> failed() {
        return failed;
    }
}
