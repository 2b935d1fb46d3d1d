package io.mivrel.coding;

/** Which way the money of a coding entry goes. */
public enum Direction {
    IN,
    OUT,
    EITHER
}
