package io.mivrel.model;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What was decided about one line: its postings, at least one. Immutable.
 *
 * @param entry the entry of the coding table that decided; {@code null} when the file itself says so
 * @param narrative text to use instead of the source's; {@code null} to keep that
 * @param postings where the amount goes; several split it
 */
public record Coding(@Nullable String entry, @Nullable String narrative, List<Posting> postings) {
    public Coding {
        postings = List.copyOf(postings);
        if (postings.isEmpty()) {
            throw new IllegalArgumentException("a coding has at least one posting");
        }
    }

    /** The first posting, which is the only one unless the amount is split. */
    public Posting posting() {
        return postings.get(0);
    }

    /** True when the amount goes to several accounts. */
    public boolean isSplit() {
        return postings.size() > 1;
    }
}
