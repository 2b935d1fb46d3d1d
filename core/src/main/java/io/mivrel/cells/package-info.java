/**
 * Turning the UTF-8 bytes of a cell into values and back, without making strings: dates
 * ({@link io.mivrel.cells.DatePattern}), amounts ({@link io.mivrel.cells.AmountFormat}), known
 * codes ({@link io.mivrel.cells.SpanMap}) and the buffer that written cells are built in
 * ({@link io.mivrel.cells.CellBuffer}).
 *
 * <p>A reader consumes the whole cell or refuses it. It answers with a {@code long}; refusals are the negative
 * constants near {@link java.lang.Long#MIN_VALUE} of each class, so that a row costs no objects. Why a cell was refused
 * is worked out again, slowly and in words, only when it was.
 */
package io.mivrel.cells;
