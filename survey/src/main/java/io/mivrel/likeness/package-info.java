/**
 * How files and layouts fit together: whether a layout that was made for one file reads another ({@link
 * io.mivrel.likeness.Comparison}), and by which columns files belong together ({@link io.mivrel.likeness.LinkFinder}). Both go by
 * what a survey says of each file.
 */
@NullMarked
package io.mivrel.likeness;

import org.jspecify.annotations.NullMarked;
