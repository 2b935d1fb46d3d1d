package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import java.util.function.Consumer;

/** Looks at one document. The interface to implement for a check of one's own; called from one thread. */
@FunctionalInterface
public interface Check {

    /**
     * True when a quick look shows that {@link #check} would report nothing. False promises nothing; a check that has no
     * quick look says so always. Most documents of a large run are never asked more than this.
     */
    default boolean passes(Document document) {
        return false;
    }

    /**
     * The same for documents by the batch: takes the mark from those of the marked ones that do not pass.
     *
     * @param batch those that are marked are decided
     * @param marked by document
     */
    default void passes(DocumentBlock batch, boolean[] marked) {
        for (int i = 0; i < batch.size(); i++) {
            marked[i] = marked[i] && passes(batch.get(i));
        }
    }

    /** Reports what is wrong. The document is sound: every required value could be read. */
    void check(Document document, Consumer<Finding> findings);
}
