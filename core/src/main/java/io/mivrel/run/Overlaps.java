package io.mivrel.run;

import io.mivrel.model.BankLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Hash64;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

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

    private final Set<String> accounts = new HashSet<>();
    private final Map<Long, Count> counts = new HashMap<>();
    private final Map<Integer, Found> found = new HashMap<>();

    /** Only accounts that several files belong to are looked after. */
    Overlaps(List<Input> inputs) {
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

    /** Takes the next line of a file; true when a file before has it. */
    boolean isTaken(String account, int file, RecordBlock batch, int index) {
        long key = Hash64.add(1, account);
        key = Hash64.add(key, batch.number(BankLines.DATE, index));
        long amount = batch.number(BankLines.AMOUNT, index);
        key = Hash64.add(key, amount);
        boolean byContent = false;
        if (batch.textStart(BankLines.BANK_REFERENCE, index) < batch.textEnd(BankLines.BANK_REFERENCE, index)) {
            key = add(key, batch, index, 2, BankLines.BANK_REFERENCE);
        } else if (batch.number(BankLines.BALANCE, index) != SourceRecord.ABSENT) {
            key = Hash64.add(Hash64.add(key, 3), batch.number(BankLines.BALANCE, index));
        } else {
            byContent = true;
            key = add(key, batch, index, 4, BankLines.NARRATIVE);
            key = add(key, batch, index, 5, BankLines.REFERENCE);
        }
        Count count = counts.computeIfAbsent(key, k -> new Count());
        if (count.file != file) {
            count.before = Math.max(count.before, count.here);
            count.here = 0;
            count.file = file;
        }
        if (++count.here > count.before) {
            return false;
        }
        Found here = found.computeIfAbsent(file, f -> new Found());
        here.lines++;
        here.byContent += byContent ? 1 : 0;
        here.movement += amount;
        return true;
    }

    private static long add(long key, RecordBlock batch, int index, int mark, io.mivrel.model.Field field) {
        return Hash64.add(
                Hash64.add(key, mark), batch.textBytes(), batch.textStart(field, index), batch.textEnd(field, index));
    }

    /** What was found in a file, by its place in the run from 1. */
    Found of(int file) {
        return found.getOrDefault(file, new Found());
    }
}
