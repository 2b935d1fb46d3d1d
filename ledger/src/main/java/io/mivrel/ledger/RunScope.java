package io.mivrel.ledger;

import io.mivrel.layout.DateWindow;
import io.mivrel.model.Kind;
import java.time.Instant;
import java.util.List;
import java.util.Objects;

/**
 * What a run is about, as far as the register needs to know. Immutable.
 *
 * @param run its name
 * @param company the company of the books
 * @param kind the kind of its documents
 * @param accounts the bank accounts of its files; empty for kinds without
 * @param deliveries the names of its deliveries, in order
 * @param dates the wanted dates
 * @param began when it began
 */
public record RunScope(
        String run,
        String company,
        Kind kind,
        List<String> accounts,
        List<String> deliveries,
        DateWindow dates,
        Instant began) {
    /** Deliveries that one run may have: each has a bit of its own. */
    static final int MOST_DELIVERIES = 62;

    public RunScope {
        Objects.requireNonNull(run);
        Objects.requireNonNull(company);
        Objects.requireNonNull(kind);
        accounts = List.copyOf(accounts);
        deliveries = List.copyOf(deliveries);
        if (deliveries.size() > MOST_DELIVERIES) {
            throw new IllegalArgumentException("a run has at most " + MOST_DELIVERIES + " deliveries");
        }
    }
}
