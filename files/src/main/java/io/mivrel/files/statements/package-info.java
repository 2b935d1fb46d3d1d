/**
 * The statement formats that are open standards: each reader gives the columns of
 * {@link io.mivrel.layout.StatementColumns}, one row an entry, and says at the end of each statement whose it is and which
 * balances and totals it states.
 */
package io.mivrel.files.statements;
