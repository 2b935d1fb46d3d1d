/**
 * Giving bank lines their account: a {@link io.mivrel.coding.CodingTable} of {@link io.mivrel.coding.CodingEntry
 * entries} in order, and the {@link io.mivrel.coding.Coder} that finds the first entry that fits each line.
 */
@NullMarked
package io.mivrel.coding;

import org.jspecify.annotations.NullMarked;
