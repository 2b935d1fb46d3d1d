package io.mivrel.run;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.Outlet;
import io.mivrel.delivery.Sheet;
import java.util.Currency;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What is delivered where.
 *
 * @param delivery the form
 * @param outlets where each sheet goes; a run that starts over asks for new outlets
 * @param earlier what becomes of documents that went out by another delivery before
 */
public record DeliveryTarget(Delivery delivery, Outlets outlets, Earlier earlier) {
    /** Where files go. */
    public interface Outlets {
        /**
         * The outlet of a sheet; {@code other} is the currency of its amounts where that is not the main one of the run, and
         * its files need a name of their own.
         */
        Outlet open(Sheet sheet, @Nullable Currency other);
    }

    /** What becomes of documents that went out before, but not by this delivery. */
    public enum Earlier {
        /** They are left out, and said to be. */
        LEFT_OUT,
        /** They go out by this delivery too. */
        DELIVERED_TOO
    }

    public DeliveryTarget {
        Objects.requireNonNull(delivery);
        Objects.requireNonNull(outlets);
        Objects.requireNonNull(earlier);
    }
}
