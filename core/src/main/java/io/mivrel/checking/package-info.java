/**
 * Checking documents against the books before anything is written. A {@link io.mivrel.checking.Check} looks at one
 * document and reports findings; {@link io.mivrel.checking.StandardChecks} are those that every run makes, and a caller
 * may add its own. {@link io.mivrel.checking.Imbalance} works out why a journal does not balance.
 */
@NullMarked
package io.mivrel.checking;

import org.jspecify.annotations.NullMarked;
