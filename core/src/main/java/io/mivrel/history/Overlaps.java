package io.mivrel.history;

import io.mivrel.intake.Input;
import io.mivrel.model.DocumentIdentity.Form;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceFile;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Knows which bank lines stand in two files of one account, so that each is taken once. Lines are the same when the
 * bank's identifier, date and amount are; without an identifier, when date, amount and running balance are; without
 * both, when all that is read is, and then only as many are left out as stand in another file: two equal payments of
 * one day within a file are two. Where one line alone is the same so, or a day of which the other file has more lines,
 * the files may as well follow on from one another: then nobody knows, and both lines are in doubt. For one thread.
 */
public final class Overlaps {
    /** How often a line stands in the file being read, and the most often it stood in one file before. */
    private static final class Count {
        private int file;
        private int here;
        private int before;
    }

    /** What was found in one file. */
    public static final class Found {
        private long lines;
        private long byContent;
        private long movement;

        long lines() {
            return lines;
        }

        /** Of these, lines that only their content shows to be the same. */
        long byContent() {
            return byContent;
        }

        /** Sum of their amounts. */
        long movement() {
            return movement;
        }
    }

    /** How many lines a file has on a day, and how many of them stand in a file before by content alone. */
    private static final class Day {
        private long lines;
        private long taken;
        private final Set<Long> same = new HashSet<>();
    }

    private final Kind kind;
    private final Set<Long> doubtful;
    private final Map<Integer, Map<Long, Day>> days = new TreeMap<>();
    private final Set<String> accounts = new HashSet<>();
    private final Map<Long, Count> counts = new HashMap<>();
    private final Map<Integer, Found> found = new HashMap<>();

    /** Only accounts that several files belong to are looked after; {@code doubtful} are lines that an earlier pass doubts. */
    public Overlaps(Kind kind, List<Input> inputs, Set<Long> doubtful) {
        this.kind = kind;
        this.doubtful = doubtful;
        Set<String> seen = new HashSet<>();
        for (Input input : inputs) {
            String account = input.layout().account();
            if (account != null && !seen.add(account)) {
                accounts.add(account);
            }
        }
    }

    public boolean watches(String account) {
        return accounts.contains(account);
    }

    /** Which of the next records of a file a file before has; {@code null} when its account has one file only. */
    public boolean @Nullable [] again(RecordBlock records) {
        SourceFile file = records.source();
        if (file.account() == null || !watches(file.account())) {
            return null;
        }
        boolean[] again = new boolean[records.size()];
        for (int i = 0; i < again.length; i++) {
            again[i] = records.isValid(i) && isTaken(file, records.range(i, i + 1));
        }
        return again;
    }

    /** True for a line of which an earlier pass could not tell whether it is in two files or there are two. */
    public boolean isDoubtful(RecordRange record) {
        String account = record.block().source().account();
        return !doubtful.isEmpty()
                && account != null
                && watches(account)
                && doubtful.contains(kind.identity().acrossFiles(record));
    }

    /** Lines that this pass cannot tell apart, once all were taken. */
    public Set<Long> doubtful() {
        Set<Long> found = new HashSet<>(doubtful);
        days.forEach((ordinal, here) -> {
            long same = here.values().stream().mapToLong(day -> day.taken).sum();
            here.forEach((on, day) -> {
                long before = days.entrySet().stream()
                        .filter(e -> e.getKey() < ordinal && e.getValue().containsKey(on))
                        .mapToLong(e -> e.getValue().get(on).lines)
                        .max()
                        .orElse(0);
                if (same == 1 || !day.same.isEmpty() && day.taken < before) {
                    found.addAll(day.same);
                }
            });
        });
        return found;
    }

    private boolean isTaken(SourceFile file, RecordRange record) {
        long hash = kind.identity().acrossFiles(record);
        boolean byContent = kind.identity().form(record) == Form.TEXTS;
        Day day = new Day();
        if (byContent) {
            long on = record.block().number(kind.date(), record.from());
            day = days.computeIfAbsent(file.ordinal(), f -> new HashMap<>()).computeIfAbsent(on, d -> new Day());
            day.lines++;
        }
        if (isDoubtful(record)) {
            return false;
        }
        Count count = counts.computeIfAbsent(hash, k -> new Count());
        if (count.file != file.ordinal()) {
            count.before = Math.max(count.before, count.here);
            count.here = 0;
            count.file = file.ordinal();
        }
        if (++count.here > count.before) {
            return false;
        }
        Found here = found.computeIfAbsent(file.ordinal(), f -> new Found());
        here.lines++;
        here.byContent += byContent ? 1 : 0;
        if (byContent) {
            day.taken++;
            day.same.add(hash);
        }
        here.movement += record.block().number(kind.amount(), record.from());
        return true;
    }

    /** What was found in a file, by its place in the run from 1. */
    public Found of(int file) {
        return found.getOrDefault(file, new Found());
    }
}
