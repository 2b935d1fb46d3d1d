package io.mivrel.posting;

import java.io.IOException;

/** Entries that are to be posted. */
public interface EntrySource {
    /** How many there are. */
    long size();

    /** Hands out all of them, in the same order each time. */
    void entries(Target target) throws IOException;

    /** Takes the entries one by one. */
    interface Target {
        void take(SourcedEntry entry) throws IOException;
    }
}
