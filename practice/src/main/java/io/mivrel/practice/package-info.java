/**
 * The practice ledger: real double-entry books in a real database, to try and test against. {@link
 * io.mivrel.practice.PracticeLedger} is the ledger, {@link io.mivrel.practice.PracticePlace} says where it lies, and {@link
 * io.mivrel.practice.PracticeDesk} does what the receiver's own people do there.
 */
@NullMarked
package io.mivrel.practice;

import org.jspecify.annotations.NullMarked;
