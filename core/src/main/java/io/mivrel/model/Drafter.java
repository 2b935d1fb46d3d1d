package io.mivrel.model;

import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Makes the documents of one {@link Kind}. For one thread. */
public interface Drafter {
    /**
     * Drafts the document of the records that belong together.
     *
     * @param records at least one, in the order of the file; some may not be valid, and then the document is not
     * @param coding what was decided about a coded record; {@code null} when nothing was
     * @param findings takes what is noticed on the way
     */
    Document draft(RecordRange records, @Nullable Coding coding, Consumer<Finding> findings);

    /** The journal that a valid document of the kind amounts to; {@code null} when it amounts to none. */
    default @Nullable Document journal(Document document) {
        return null;
    }

    /** Looks at what only documents of this kind can be wrong about; {@code null} when there is nothing. */
    default @Nullable OwnCheck ownCheck() {
        return null;
    }

    /** Reports what is wrong with a valid document. */
    interface OwnCheck {
        void check(Document document, Consumer<Finding> findings);
    }

    /** What the books lack for such documents, in words; empty when they lack nothing. */
    default List<String> gaps() {
        return List.of();
    }
}
