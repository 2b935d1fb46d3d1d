/**
 * Measuring Mivrel: {@link io.mivrel.bench.Generator} makes large files, always the same ones; {@link
 * io.mivrel.bench.Compare} runs the command on them as a user would and sets it beside merely reading the same file with
 * the CSV library; {@link io.mivrel.bench.CellBenchmark} times the cell parsers alone.
 */
package io.mivrel.bench;
