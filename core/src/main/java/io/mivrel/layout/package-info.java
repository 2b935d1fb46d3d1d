/**
 * What a {@link io.mivrel.layout.Layout} says of a source file: where each field comes from, how figures and signs are written,
 * which figures beside the rows are compared, and what is let pass. {@code intake} reads by it.
 */
@NullMarked
package io.mivrel.layout;

import org.jspecify.annotations.NullMarked;
