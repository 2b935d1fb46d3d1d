package io.mivrel.model;

import io.mivrel.books.Books;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What a drafter may need to know of the run.
 *
 * @param books for rates, control accounts and names
 * @param coded true when a coding table decides the accounts
 * @param suspense account for what nothing decides; {@code null} to hold it
 */
public record DraftingContext(
        Books books, boolean coded, @Nullable String suspense) {
    public DraftingContext {
        Objects.requireNonNull(books);
    }

    /** Nothing is coded. */
    public static DraftingContext of(Books books) {
        return new DraftingContext(books, false, null);
    }
}
