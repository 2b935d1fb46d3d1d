/**
 * What Mivrel remembers on disk beyond a run: the {@link io.mivrel.ledger.Register} of what was delivered, kept in a
 * SQLite database so that the same run twice delivers nothing twice.
 */
package io.mivrel.ledger;
