package io.mivrel.posting;

import io.mivrel.money.Money;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * One line of an entry.
 *
 * @param account account code
 * @param minor minor units of the entry's currency, debit positive, credit negative
 * @param narrative its text; empty for none
 * @param taxCode {@code null} for none
 * @param party customer or supplier code; {@code null} for none
 * @param foreign the amount in another currency that stands beside, signed alike; {@code null} for none
 * @param dimensions further codes by name, such as {@code department}; in the order of the names
 */
public record EntryLine(
        String account,
        long minor,
        String narrative,
        @Nullable String taxCode,
        @Nullable String party,
        @Nullable Money foreign,
        Map<String, String> dimensions) {
    public EntryLine {
        Objects.requireNonNull(account, "account");
        Objects.requireNonNull(narrative, "narrative");
        dimensions = dimensions.isEmpty() ? Map.of() : java.util.Collections.unmodifiableMap(new TreeMap<>(dimensions));
    }

    /** A plain line. */
    public static EntryLine of(String account, long minor, String narrative) {
        return new EntryLine(account, minor, narrative, null, null, null, Map.of());
    }

    /** The same for a customer or supplier. */
    public EntryLine withParty(@Nullable String code) {
        return new EntryLine(account, minor, narrative, taxCode, code, foreign, dimensions);
    }

    /** The same on the other side. */
    public EntryLine reversed() {
        Money other = foreign == null ? null : foreign.negate();
        return new EntryLine(account, Math.negateExact(minor), narrative, taxCode, party, other, dimensions);
    }
}
