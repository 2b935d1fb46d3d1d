/**
 * Rows of cells and where they come from: a {@link io.mivrel.rows.RowSource} hands out {@link io.mivrel.rows.Row}s, one
 * at a time, of a file whose {@link io.mivrel.rows.FileFormat} is declared. A row may carry remarks: a {@link
 * io.mivrel.rows.RowFault}, or why it is {@linkplain io.mivrel.rows.LeftOut left out}.
 */
@NullMarked
package io.mivrel.rows;

import org.jspecify.annotations.NullMarked;
