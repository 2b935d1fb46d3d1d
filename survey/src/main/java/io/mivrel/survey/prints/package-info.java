/** Finds out how a print file is divided: its pages, its columns, and which lines belong together. */
@NullMarked
package io.mivrel.survey.prints;

import org.jspecify.annotations.NullMarked;
