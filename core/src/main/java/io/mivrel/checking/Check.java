package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import java.util.function.Consumer;

/** Looks at one document. The interface to implement for a check of one's own; called from one thread. */
@FunctionalInterface
public interface Check {

    /** Reports what is wrong. The document is sound: every required value could be read. */
    void check(Document document, Consumer<Finding> findings);
}
