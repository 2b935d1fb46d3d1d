/**
 * The front door. {@link io.mivrel.Mivrel} opens a run sheet, or is told the same in code, and answers an {@link
 * io.mivrel.Outcome}.
 */
package io.mivrel;
