package io.mivrel.run;

/** Receives progress; called from the run's thread a few hundred times a second at most. */
@FunctionalInterface
public interface Progress {
    /** Nobody listens. */
    Progress NONE = (stage, rows) -> {};

    /** {@code rows} rows have passed the stage named. */
    void at(String stage, long rows);
}
