package io.mivrel.coding;

/** Which way the money of a coding entry goes. */
public enum Direction {
    IN,
    OUT,
    EITHER;

    boolean fits(long amount) {
        return this == EITHER || (this == IN) == (amount >= 0);
    }
}
