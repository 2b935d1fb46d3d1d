/**
 * From rows to typed records: a {@link io.mivrel.rows.RowSource} hands out {@link io.mivrel.rows.Row}s whose cells
 * are spans; a {@link io.mivrel.layout.Layout} says which field comes from where; {@link io.mivrel.intake.Intake} binds
 * the layout to the titles once and then turns each row into a record, a finding, or a row left out by cause. The
 * {@link io.mivrel.intake.IntakeTally} counts all of it independently of the stages that follow.
 */
@NullMarked
package io.mivrel.intake;

import org.jspecify.annotations.NullMarked;
