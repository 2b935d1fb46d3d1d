package io.mivrel.books;

/** A customer or supplier. */
public record Party(String code, String name, boolean isCustomer) {}
