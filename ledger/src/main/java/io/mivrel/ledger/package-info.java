/**
 * What Mivrel remembers on disk beyond a run: the {@link io.mivrel.ledger.Register} of what was delivered, kept in an
 * SQLite file or on a PostgreSQL server, so that nothing is delivered twice.
 */
@NullMarked
package io.mivrel.ledger;

import org.jspecify.annotations.NullMarked;
