/** What the register and the practice ledger do alike with their databases. */
@NullMarked
package io.mivrel.database;

import org.jspecify.annotations.NullMarked;
