package io.mivrel.delivery;

/**
 * A part that is written, proved and safe on disk, and the name it is to get.
 *
 * @param hidden the name it has until it is published, as the outlet knows it
 * @param name the name it gets
 * @param bytes its length
 * @param digest its digest, with the name of its kind before a colon
 */
public record PreparedFile(String hidden, String name, long bytes, String digest) {}
