package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Looks at one document. The interface to implement for a check of one's own; called from one thread, once for each
 * document that was not delivered before.
 */
@FunctionalInterface
public interface Check {
    /** Reports what is wrong. The document is valid: every required value could be read. */
    void check(Document document, Consumer<Finding> findings);

    /**
     * The same look at many documents in columns, without an object for each; {@code null} when the check has none. Without
     * it, {@link #check} is asked of each document, and only those with a finding leave the fast way.
     */
    default @Nullable Columns columns() {
        return null;
    }

    /** The columnar form of a check. */
    @FunctionalInterface
    interface Columns {
        /**
         * Takes the mark from those of the marked documents that {@link Check#check} must look at. It may take too many,
         * but never leaves the mark to one with a finding.
         */
        void unmark(DocumentBlock documents, boolean[] marked);
    }
}
