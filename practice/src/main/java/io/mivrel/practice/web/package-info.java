/**
 * The practice ledger over HTTP: {@link io.mivrel.practice.web.PracticeServer} gives its books, {@link
 * io.mivrel.practice.web.WebLedger} is the client. {@code docs/practice-ledger.openapi.yaml} describes what they say.
 */
@NullMarked
package io.mivrel.practice.web;

import org.jspecify.annotations.NullMarked;
