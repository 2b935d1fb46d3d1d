/**
 * Writing documents as a receiver wants them: a {@link io.mivrel.delivery.Delivery} names the sheets and their columns, a
 * {@link io.mivrel.delivery.DeliveryWriter} renders clear documents into an {@link io.mivrel.delivery.Outlet}, then
 * reads back what was written and compares it with what was meant. {@link io.mivrel.delivery.DeliveryCheck} tells
 * beforehand what the receiver would refuse.
 */
@NullMarked
package io.mivrel.delivery;

import org.jspecify.annotations.NullMarked;
