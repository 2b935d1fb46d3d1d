package io.mivrel.model;

import io.mivrel.text.Hash64;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What was decided about one line: its postings, at least one. Immutable. */
public final class Coding {
    private final @Nullable String entry;
    private final @Nullable String narrative;
    private final List<Posting> postings;
    private final Posting first;
    private final long figure;

    /**
     * @param entry the entry of the coding table that decided; {@code null} when the file itself says so
     * @param narrative text to use instead of the source's; {@code null} to keep that
     * @param postings where the amount goes; several split it
     */
    public Coding(@Nullable String entry, @Nullable String narrative, List<Posting> postings) {
        this.entry = entry;
        this.narrative = narrative;
        this.postings = List.copyOf(postings);
        if (postings.isEmpty()) {
            throw new IllegalArgumentException("a coding has at least one posting");
        }
        this.first = postings.get(0);
        long codes = 1;
        for (Posting posting : postings) {
            codes = figure(codes, posting.account(), posting.taxCode(), posting.party());
        }
        this.figure = codes;
    }

    /** A figure of codes; 0 where a line has no account. To be begun with 1, and to be gone on with for further lines. */
    public static long figure(long before, @Nullable String account, @Nullable String taxCode, @Nullable String party) {
        return account == null ? 0 : Hash64.add(Hash64.add(Hash64.add(before, account), taxCode), party);
    }

    public @Nullable String entry() {
        return entry;
    }

    public @Nullable String narrative() {
        return narrative;
    }

    public List<Posting> postings() {
        return postings;
    }

    /** The first posting, which is the only one unless the amount is split. */
    public Posting posting() {
        return first;
    }

    /** True when the amount goes to several accounts. */
    public boolean isSplit() {
        return postings.size() > 1;
    }

    /** The {@linkplain #figure(long, String, String, String) figure} of its codes. */
    public long figure() {
        return figure;
    }
}
