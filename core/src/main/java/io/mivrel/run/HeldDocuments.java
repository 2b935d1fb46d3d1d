package io.mivrel.run;

import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import java.util.List;

/** Gets the held documents whose values could be read, one by one. Called from the run's thread. */
public interface HeldDocuments {
    /** Takes the next one, with what was noticed about it. */
    void take(Document document, List<Finding> findings);

    /** Forgets what it took: the run reads once more. */
    void startOver();
}
