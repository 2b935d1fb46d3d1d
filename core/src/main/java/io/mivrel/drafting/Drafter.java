package io.mivrel.drafting;

import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.RecordRange;
import java.util.function.Consumer;

/** Makes one document of the records that belong together. */
public interface Drafter {

    /**
     * Drafts a document.
     *
     * @param records at least one, in the order of the file; some may not be sound, and then the document is not
     * @param findings takes what is noticed on the way
     */
    Document draft(RecordRange records, Consumer<Finding> findings);
}
