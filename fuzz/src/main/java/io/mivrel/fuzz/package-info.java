/** Feeds every reader with whatever a coverage-guided fuzzer thinks of; see {@code fuzz/run}. */
package io.mivrel.fuzz;
