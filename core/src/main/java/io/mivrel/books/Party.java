package io.mivrel.books;

/** A customer or supplier. */
public record Party(String code, String name, boolean isCustomer) {
    public static Party customer(String code, String name) {
        return new Party(code, name, true);
    }

    public static Party supplier(String code, String name) {
        return new Party(code, name, false);
    }
}
