package io.mivrel.run;

import java.io.IOException;

/**
 * What was delivered by earlier runs of the same name. A document is known by 64-bit hashes: {@code identity} of what it
 * is called and {@code content} of its figures; where both are equal it has no name, and two equal ones are two. Called
 * from the run's thread.
 */
public interface DocumentHistory {

    /** What an earlier run says of a document. */
    enum Verdict {
        NEW,
        /** Delivered before with the same figures. */
        DELIVERED,
        /** Delivered before under this name with other figures. */
        CHANGED
    }

    /** Nothing was delivered before, and nothing is remembered. */
    DocumentHistory NONE = new DocumentHistory() {
        @Override
        public Verdict judge(long identity, long content) {
            return Verdict.NEW;
        }

        @Override
        public void remember(long identity, long content) {}

        @Override
        public void startOver() {}
    };

    /** Judges the next document of the run. Of equal ones without a name, as many are known as were delivered. */
    Verdict judge(long identity, long content);

    /** Takes note of a document that this run delivers. */
    void remember(long identity, long content) throws IOException;

    /** Forgets what this run has judged and noted so far. */
    void startOver() throws IOException;
}
