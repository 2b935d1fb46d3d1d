package io.mivrel.practice.web;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * How a server misbehaves, on purpose: each request draws its lot from a seed, so that a run can be repeated. Safe for several
 * threads.
 */
public final class Misbehaviour {
    /** What can go wrong. */
    public enum Fault {
        /** The answer takes long. */
        SLOW,
        /** Too many requests: come back after a stated wait. */
        LIMIT,
        /** The work is done, and the connection closed without an answer. */
        LOSE,
        /** The work is done, and the connection closed in the middle of the answer. */
        CUT,
        /** Half of a batch is done, and the rest is not. */
        HALF,
        /** The work is done, and the answer is that of another request, or changed on the way. */
        WRONG,
        /** The work is done, and then the server goes down and comes up again. */
        RESTART;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private final List<Fault> faults;
    private final int perCent;
    private final Random random;

    /**
     * @param faults those that may happen
     * @param perCent how many of a hundred requests meet one
     */
    public Misbehaviour(Set<Fault> faults, int perCent, long seed) {
        this.faults = new ArrayList<>(faults.isEmpty() ? EnumSet.noneOf(Fault.class) : EnumSet.copyOf(faults));
        this.perCent = perCent;
        this.random = new Random(seed);
    }

    /** A server that behaves. */
    public static Misbehaviour none() {
        return new Misbehaviour(Set.of(), 0, 0);
    }

    /** The lot of the next call; {@code null} for none. */
    public synchronized @Nullable Fault draw() {
        return faults.isEmpty() || random.nextInt(100) >= perCent ? null : faults.get(random.nextInt(faults.size()));
    }

    /** A number from 0 on. */
    public synchronized int number(int below) {
        return random.nextInt(below);
    }
}
