package io.mivrel.model;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Where an amount, or a part of it, is posted. Immutable.
 *
 * @param account account code; {@code null} when nothing decides
 * @param part how much of the amount
 * @param taxCode tax contained in the part; {@code null} for none
 * @param party customer or supplier code; {@code null} for none
 * @param dimensions further codes by the name of their field, such as {@code department}; empty for none
 */
public record Posting(
        @Nullable String account,
        Part part,
        @Nullable String taxCode,
        @Nullable String party,
        Map<String, String> dimensions) {
    /**
     * How much of an amount a posting takes.
     *
     * @param perCent a share in per cent of the whole; {@code null} when it is no share
     * @param fixed minor units without sign; {@link SourceRecord#ABSENT} when it is no fixed amount
     */
    public record Part(@Nullable BigDecimal perCent, long fixed) {
        /** What the other postings leave. */
        public static final Part REST = new Part(null, SourceRecord.ABSENT);

        public static Part perCent(BigDecimal share) {
            return new Part(share, SourceRecord.ABSENT);
        }

        public static Part fixed(long minor) {
            return new Part(null, minor);
        }
    }

    public Posting {
        dimensions = Map.copyOf(dimensions);
    }

    /** The whole amount, without dimensions. */
    public static Posting whole(@Nullable String account, @Nullable String taxCode, @Nullable String party) {
        return new Posting(account, Part.REST, taxCode, party, Map.of());
    }

    /** The same to another account. */
    public Posting to(String other) {
        return new Posting(other, part, taxCode, party, dimensions);
    }

    /** The same with a dimension, called as the field that it fills; {@code null} adds none. */
    public Posting with(String dimension, @Nullable String code) {
        if (code == null) {
            return this;
        }
        Map<String, String> all = new HashMap<>(dimensions);
        all.put(dimension, code);
        return new Posting(account, part, taxCode, party, all);
    }

    /** The same for a part of the amount. */
    public Posting of(Part share) {
        return new Posting(account, share, taxCode, party, dimensions);
    }
}
