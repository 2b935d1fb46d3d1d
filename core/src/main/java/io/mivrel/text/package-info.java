/**
 * Turning the UTF-8 bytes of a cell into values and back, without making strings: dates
 * ({@link io.mivrel.text.DatePattern}), amounts ({@link io.mivrel.text.AmountFormat}), known
 * codes ({@link io.mivrel.text.SpanMap}) and the buffer that written cells are built in
 * ({@link io.mivrel.text.CellBuffer}).
 *
 * <p>A reader consumes the whole cell or refuses it. It answers with a {@code long}; refusals are the negative
 * constants near {@link java.lang.Long#MIN_VALUE} of each class, so that a row costs no objects. Why a cell was refused
 * is worked out again, slowly and in words, only when it was.
 */
@NullMarked
package io.mivrel.text;

import org.jspecify.annotations.NullMarked;
