package io.mivrel.intake;

import io.mivrel.model.SourceRecord;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Rows that follow one another in time, and the balances before and after them. For one thread. */
final class Stretch {
    /** The balances around it; {@link SourceRecord#ABSENT} where none is known. */
    long before;

    long after;
    /** The rows that have these balances; 0 where they are stated elsewhere. */
    long beforeRow;

    long afterRow;

    private long first;
    private long last;
    private long count;
    private long moved;
    private boolean known = true;
    private long sound;
    private long in;
    private long out;
    private long firstSound;
    /** Rows of another place of the file that belong to the same stretch of time. */
    private @Nullable Stretch elsewhere;

    Stretch(long before, long after) {
        this.before = before;
        this.after = after;
    }

    /**
     * Adds a row.
     *
     * @param amount what it moves; {@link SourceRecord#ABSENT} when that could not be read
     * @param counts false for a row that is held or left out all the same
     */
    void add(long row, long amount, boolean counts) {
        first = count == 0 ? row : first;
        last = row;
        count++;
        if (amount == SourceRecord.ABSENT) {
            known = false;
            return;
        }
        moved = Math.addExact(moved, amount);
        if (counts) {
            firstSound = sound == 0 ? row : firstSound;
            sound++;
            in = Math.addExact(in, Math.max(amount, 0));
            out = Math.addExact(out, Math.max(-amount, 0));
        }
    }

    /** Goes on behind a row that moves the balance before to the one beside it, if it does: the next stretch begins there. */
    boolean holdsOver(long row, long amount, long balance) {
        boolean holds = count == 0
                && before != SourceRecord.ABSENT
                && amount != SourceRecord.ABSENT
                && before + amount == balance;
        if (holds) {
            before = balance;
            beforeRow = row;
        }
        return holds;
    }

    /** Takes the rows of another one in, which stand elsewhere in the file. */
    void join(Stretch other) {
        if (other.count == 0) {
            return;
        }
        if (count == 0) {
            first = other.first;
            last = other.last;
            elsewhere = other.elsewhere;
        } else {
            other.elsewhere = elsewhere;
            elsewhere = other;
        }
        count += other.count;
        moved = Math.addExact(moved, other.moved);
        known &= other.known;
        firstSound = sound == 0 ? other.firstSound : firstSound;
        sound += other.sound;
        in = Math.addExact(in, other.in);
        out = Math.addExact(out, other.out);
    }

    boolean isEmpty() {
        return count == 0;
    }

    long rows() {
        return count;
    }

    long firstRow() {
        return first;
    }

    /** Sum of the amounts that are known. */
    long moved() {
        return moved;
    }

    /** False when an amount could not be read. */
    boolean isKnown() {
        return known;
    }

    /** True when both balances and all amounts are known. */
    boolean canBeJudged() {
        return known && before != SourceRecord.ABSENT && after != SourceRecord.ABSENT;
    }

    boolean holds() {
        return after - before == moved;
    }

    /** What the rows lead to; {@link SourceRecord#ABSENT} when it is not known. */
    long leadsTo() {
        return known && before != SourceRecord.ABSENT ? before + moved : SourceRecord.ABSENT;
    }

    /** Its rows as those that nothing proves. */
    Unproved unproved() {
        return new Unproved(sound, in, out, firstSound);
    }

    /** Its first and last rows, at each place of the file. */
    List<long[]> ranges() {
        List<long[]> ranges = new ArrayList<>();
        for (Stretch here = this; here != null && here.count > 0; here = here.elsewhere) {
            ranges.add(new long[] {here.first, here.last});
        }
        return ranges;
    }
}
