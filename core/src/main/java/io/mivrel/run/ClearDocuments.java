package io.mivrel.run;

import io.mivrel.model.Document;
import java.io.IOException;

/** Gets the clear documents of a run one by one, besides its deliveries. Called from the run's thread. */
public interface ClearDocuments {
    /**
     * Takes the next one.
     *
     * @param identity what makes it the same from run to run; bank lines without a name of their own may share it
     */
    void take(Document document, long identity) throws IOException;

    /** Forgets what it took: the run reads once more, or everything is held. */
    void startOver() throws IOException;
}
