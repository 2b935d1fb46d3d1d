package io.mivrel.run;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.Outlet;
import java.util.function.Supplier;

/** One delivery asked of a run, and where it goes; a run that starts over asks for a new outlet. */
public record DeliveryTarget(Delivery delivery, Supplier<Outlet> outlet) {}
