/**
 * The front door. {@link io.mivrel.Mivrel} opens a run sheet, or is told the same in code, and answers an {@link
 * io.mivrel.Outcome}.
 */
@NullMarked
package io.mivrel;

import org.jspecify.annotations.NullMarked;
