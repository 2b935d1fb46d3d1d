package io.mivrel.coding;

import io.mivrel.model.SourceRecord;
import java.util.List;

/** Which amounts each entry of a coding table takes, by direction. Immutable. */
final class Limits {
    /** The smallest amount that each entry takes, without sign; beyond all amounts when it does not take that way. */
    private final long[] leastIn;

    private final long[] leastOut;
    private final long[] most;

    Limits(List<CodingEntry> entries) {
        int size = entries.size();
        leastIn = new long[size];
        leastOut = new long[size];
        most = new long[size];
        for (int i = 0; i < size; i++) {
            CodingEntry entry = entries.get(i);
            long from = entry.from() == SourceRecord.ABSENT ? 0 : entry.from();
            leastIn[i] = entry.direction() == Direction.OUT ? Long.MAX_VALUE : from;
            leastOut[i] = entry.direction() == Direction.IN ? Long.MAX_VALUE : from;
            most[i] = entry.to() == SourceRecord.ABSENT ? Long.MAX_VALUE : entry.to();
        }
    }

    /** True when the entry takes amounts of this direction. */
    boolean take(int entry, boolean out) {
        return (out ? leastOut : leastIn)[entry] != Long.MAX_VALUE;
    }

    /** True when the entry takes a line of this amount. */
    boolean fit(int entry, long amount) {
        long size = Math.abs(amount);
        return size >= (amount < 0 ? leastOut : leastIn)[entry] && size <= most[entry];
    }
}
