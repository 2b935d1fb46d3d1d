/**
 * Money: {@link io.mivrel.money.Money} is an exact amount with its currency, {@link io.mivrel.money.Totals} counts and
 * sums amounts of one currency. How many decimals a currency has is said here and nowhere else.
 */
@NullMarked
package io.mivrel.money;

import org.jspecify.annotations.NullMarked;
