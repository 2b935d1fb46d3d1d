/**
 * What people mend in held rows, on its way home: {@link io.mivrel.corrections.Correction one row's} new cells or the
 * decision about it, and {@link io.mivrel.corrections.Corrections all of them}, which put each in the place of its
 * original while the source is read. A row is known by its content, so it is found wherever it stands.
 */
@org.jspecify.annotations.NullMarked
package io.mivrel.corrections;
