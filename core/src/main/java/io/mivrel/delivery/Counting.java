package io.mivrel.delivery;

/** What a column of numbers counts, from 1 in each file. */
public enum Counting {
    /** The rows of the file. */
    ROWS("rows"),
    /** The documents of the file: all rows of one have the same number. */
    DOCUMENTS("documents");

    private final String word;

    Counting(String word) {
        this.word = word;
    }

    /** Its word in settings. */
    public String word() {
        return word;
    }
}
