package io.mivrel.run;

import java.io.IOException;

/**
 * Hears of the steps by which delivered files get their names, so that a run that dies between two of them is known for
 * what it is.
 */
public interface Publication {
    /** Nobody listens. */
    Publication NONE = new Publication() {
        @Override
        public void prepared(RunReport report) {}

        @Override
        public void published(RunReport report) {}
    };

    /** Something to be made sure of before any file gets its name. */
    interface Condition {
        void hold() throws IOException;
    }

    /** Nothing is published unless a condition holds, which throws when it does not. */
    static Publication after(Condition condition) {
        return new Publication() {
            @Override
            public void prepared(RunReport report) throws IOException {
                condition.hold();
            }

            @Override
            public void published(RunReport report) {}
        };
    }

    /**
     * All files are written, proved and safe on disk under hidden names, and their final names are chosen; none has it yet.
     * When this throws, nothing is delivered.
     */
    void prepared(RunReport report) throws IOException;

    /** All files have their final names. */
    void published(RunReport report) throws IOException;
}
