/** A receiver's template, or a file that it took before: what of its form it tells, and the delivery that writes such files. */
@NullMarked
package io.mivrel.survey.templates;

import org.jspecify.annotations.NullMarked;
