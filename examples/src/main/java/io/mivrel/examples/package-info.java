/**
 * Small runnable programs, each on the demo data: {@link io.mivrel.examples.RunSheetExample} opens a run sheet, {@link
 * io.mivrel.examples.InCodeExample} says the same in code, {@link io.mivrel.examples.StageByStageExample} walks one
 * stage at a time.
 */
package io.mivrel.examples;
