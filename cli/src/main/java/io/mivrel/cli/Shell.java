package io.mivrel.cli;

/** Lines that can be pasted into a shell. */
final class Shell {
    private Shell() {}

    /** A word as it is, or between apostrophes when a shell would take it for something else. */
    static String quoted(String word) {
        return word.matches("[\\p{L}\\p{N}._/\\\\:+@%,=-]+") ? word : "'" + word.replace("'", "'\\''") + "'";
    }
}
