package io.mivrel.run;

import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.model.Finding;
import io.mivrel.model.Money;
import io.mivrel.model.Origin;
import io.mivrel.model.Record;
import io.mivrel.model.Rule;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Compares the files of one account with one another, once all are read: the closing balance of each, and the movement of
 * the next without the lines that both have, must lead to the closing balance of the next. For one thread.
 */
final class Continuity {
    private record Covered(int ordinal, IntakeTally tally, LocalDate from, LocalDate to, long opening, long closing) {
        long movement() {
            return tally.spans().stream().mapToLong(StatementSpan::movement).sum();
        }
    }

    private final RunPlan plan;
    private final Overlaps overlaps;
    private final List<Finding> findings = new ArrayList<>();
    private final Set<String> failed = new HashSet<>();

    Continuity(RunPlan plan, Overlaps overlaps) {
        this.plan = plan;
        this.overlaps = overlaps;
    }

    /** Compares the files; the tallies stand in the order of the inputs. */
    void compare(List<IntakeTally> tallies) {
        Map<String, List<Covered>> byAccount = new LinkedHashMap<>();
        for (int i = 0; i < tallies.size(); i++) {
            String account = plan.inputs().get(i).layout().account();
            if (account != null && overlaps.watches(account)) {
                tellOverlap(tallies.get(i), overlaps.of(i + 1));
                Covered covered = covered(i + 1, tallies.get(i));
                if (covered != null) {
                    byAccount.computeIfAbsent(account, a -> new ArrayList<>()).add(covered);
                }
            }
        }
        byAccount.values().forEach(this::follow);
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

    private static Covered covered(int ordinal, IntakeTally tally) {
        List<StatementSpan> spans = tally.spans();
        if (spans.isEmpty()
                || tally.failed()
                || tally.proof().filter(p -> !p.holds()).isPresent()) {
            return null;
        }
        StatementSpan first = spans.get(0);
        StatementSpan last = spans.get(spans.size() - 1);
        LocalDate from = first.from() != null ? first.from() : tally.firstDate().orElse(null);
        LocalDate to = last.to() != null ? last.to() : tally.lastDate().orElse(null);
        return from == null || to == null || last.closing() == Record.ABSENT
                ? null
                : new Covered(ordinal, tally, from, to, first.opening(), last.closing());
    }

    private void follow(List<Covered> files) {
        files.sort(Comparator.comparing(Covered::from).thenComparing(Covered::to));
        Covered before = null;
        for (Covered file : files) {
            if (before == null || !isWithin(file, before)) {
                if (before != null) {
                    compare(before, file);
                }
                before = file;
            }
        }
    }

    // A file that another one covers from beginning to end adds nothing and proves nothing.
    private boolean isWithin(Covered file, Covered whole) {
        return !file.to().isAfter(whole.to())
                && overlaps.of(file.ordinal()).lines() == file.tally().records();
    }

    private void compare(Covered before, Covered file) {
        // Lines that both have were counted in whichever file was read first.
        long common = overlaps.of(Math.max(before.ordinal(), file.ordinal())).movement();
        long expected = before.closing() + file.movement() - common;
        if (expected == file.closing()) {
            return;
        }
        int decimals = plan.books().decimals();
        long off = file.closing() - expected;
        findings.add(new Finding(
                Rule.STATEMENT_GAP,
                Origin.of(file.tally().file(), 0),
                "",
                file.opening() == Record.ABSENT ? "" : Money.show(file.opening(), decimals),
                before.tally().file() + " closes on " + before.to() + " with "
                        + Money.show(before.closing(), decimals) + ", but "
                        + file.tally().file() + " from " + file.from()
                        + " on goes out from " + Money.show(before.closing() + off, decimals),
                "lines of " + Money.show(off, decimals)
                        + " in all are missing between the two: download the days between " + before.to() + " and "
                        + file.from()));
        failed.add(file.tally().file());
    }

    List<Finding> findings() {
        return findings;
    }

    /** Files before which something is missing. */
    Set<String> failed() {
        return failed;
    }
}
