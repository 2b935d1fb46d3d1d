/** Tests to extend: {@link io.mivrel.testkit.LedgerPromises} tells whether a ledger keeps what its interface promises. */
package io.mivrel.testkit;
