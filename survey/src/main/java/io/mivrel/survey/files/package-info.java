/** Files of any kind as a survey sees them: which characters their bytes are, what divides them. */
@NullMarked
package io.mivrel.survey.files;

import org.jspecify.annotations.NullMarked;
