package io.mivrel.run;

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
import org.jspecify.annotations.Nullable;

/**
 * Knows which bank lines stand in two files of one account, so that each is taken once. Lines are the same when the
 * bank's identifier, date and amount are; without an identifier, when date, amount and running balance are; without
 * both, when all that is read is, and then only as many are left out as stand in another file: two equal payments of
 * one day within a file are two. For one thread.
 */
final class Overlaps {
    /** How often a line stands in the file being read, and the most often it stood in one file before. */
    private static final class Count {
        private int file;
        private int here;
        private int before;
    }

    /** What was found in one file. */
    static final class Found {
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

    private final Kind kind;
    private final Set<String> accounts = new HashSet<>();
    private final Map<Long, Count> counts = new HashMap<>();
    private final Map<Integer, Found> found = new HashMap<>();

    /** Only accounts that several files belong to are looked after. */
    Overlaps(Kind kind, List<Input> inputs) {
        this.kind = kind;
        Set<String> seen = new HashSet<>();
        for (Input input : inputs) {
            String account = input.layout().account();
            if (account != null && !seen.add(account)) {
                accounts.add(account);
            }
        }
    }

    boolean watches(String account) {
        return accounts.contains(account);
    }

    /** Which of the next records of a file a file before has; {@code null} when its account has one file only. */
    boolean @Nullable [] again(RecordBlock records) {
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

    private boolean isTaken(SourceFile file, RecordRange record) {
        Count count = counts.computeIfAbsent(kind.identity().acrossFiles(record), k -> new Count());
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
        here.byContent += kind.identity().form(record) == Form.TEXTS ? 1 : 0;
        here.movement += record.block().number(kind.amount(), record.from());
        return true;
    }

    /** What was found in a file, by its place in the run from 1. */
    Found of(int file) {
        return found.getOrDefault(file, new Found());
    }
}
