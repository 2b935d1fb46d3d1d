/** The forms that delivered files have: each is one class, which writes rows and reads them back. */
@NullMarked
package io.mivrel.files.forms;

import org.jspecify.annotations.NullMarked;
