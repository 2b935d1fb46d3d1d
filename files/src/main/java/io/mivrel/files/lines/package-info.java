/**
 * Text files of lines: {@link io.mivrel.files.lines.SeparatedRows} and {@link io.mivrel.files.lines.FixedRows} read them,
 * {@link io.mivrel.files.lines.SeparatedWriter} writes separated text.
 */
@NullMarked
package io.mivrel.files.lines;

import org.jspecify.annotations.NullMarked;
