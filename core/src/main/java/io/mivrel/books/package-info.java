/**
 * The books: the reference data that everything is checked against. {@link io.mivrel.books.Books} holds the chart of
 * {@link io.mivrel.books.Account}s, {@link io.mivrel.books.TaxCode}s, {@link io.mivrel.books.Party parties} and
 * {@link io.mivrel.books.Period}s.
 */
@NullMarked
package io.mivrel.books;

import org.jspecify.annotations.NullMarked;
