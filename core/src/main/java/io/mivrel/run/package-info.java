/**
 * The run: {@link io.mivrel.run.Run} wires the stages of a {@link io.mivrel.run.RunPlan} in one direction and answers a
 * {@link io.mivrel.run.RunReport} whose counts close, or fails without having delivered anything.
 */
@NullMarked
package io.mivrel.run;

import org.jspecify.annotations.NullMarked;
