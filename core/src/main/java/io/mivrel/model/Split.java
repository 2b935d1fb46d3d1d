package io.mivrel.model;

import io.mivrel.model.Posting.Part;
import io.mivrel.money.Money;
import java.math.BigDecimal;
import java.util.List;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Divides an amount among postings so that the parts add up to it exactly. */
public final class Split {
    private Split() {}

    /**
     * What keeps postings from dividing every amount, in words; {@code null} when nothing does: at most one takes the rest,
     * and without one the shares come to a hundred per cent and nothing is fixed.
     */
    public static @Nullable String gap(List<Posting> postings) {
        long rests = postings.stream().filter(p -> p.part().equals(Part.REST)).count();
        BigDecimal shares = postings.stream()
                .map(p -> p.part().perCent())
                .filter(share -> share != null)
                .reduce(BigDecimal.ZERO, BigDecimal::add);
        if (rests > 1) {
            return "two postings take the rest of the amount";
        }
        boolean whole = shares.compareTo(BigDecimal.valueOf(100)) == 0;
        boolean fixed = postings.stream().anyMatch(p -> p.part().fixed() != SourceRecord.ABSENT);
        return rests == 1 || whole && !fixed
                ? null
                : "the parts do not come to the whole: let one posting take the rest";
    }

    /**
     * The signed part of each posting, in minor units. Shares are rounded half up away from nil; what rounding leaves goes to
     * the posting that takes the rest, or to the last one. Postings must have no {@link #gap}.
     */
    public static long[] amounts(long amount, List<Posting> postings) {
        long[] parts = new long[postings.size()];
        long left = amount;
        for (int i = 0; i < parts.length; i++) {
            Part part = postings.get(i).part();
            if (part.perCent() != null) {
                parts[i] = Money.part(amount, part.perCent());
            } else if (part.fixed() != SourceRecord.ABSENT) {
                parts[i] = amount < 0 ? -part.fixed() : part.fixed();
            }
            left = Math.subtractExact(left, parts[i]);
        }
        OptionalInt rest = IntStream.range(0, parts.length)
                .filter(i -> postings.get(i).part().equals(Part.REST))
                .findFirst();
        parts[rest.orElse(parts.length - 1)] += left;
        return parts;
    }
}
