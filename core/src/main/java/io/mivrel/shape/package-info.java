/**
 * Files whose rows are no flat list: each {@link io.mivrel.shape.Shape} makes rows with the document's heading
 * repeated of what it finds, so that the rest of intake knows flat rows only. A row that only helps others is marked and
 * counted as left out.
 */
@NullMarked
package io.mivrel.shape;

import org.jspecify.annotations.NullMarked;
