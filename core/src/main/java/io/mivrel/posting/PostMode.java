package io.mivrel.posting;

/** What becomes of entries whose key the ledger has already. */
public enum PostMode {
    /** New ones are added; one that is there with other content is held. */
    ADD("add only"),
    /** Those that are there are replaced; new ones are refused. */
    REPLACE("replace"),
    /** New ones are added, those that are there are replaced. */
    ADD_OR_REPLACE("add or replace"),
    /** New ones are added, those that are there stay as they are. */
    SKIP_EXISTING("skip existing");

    private final String words;

    PostMode(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The mode that is written so. */
    public static PostMode of(String words) {
        for (PostMode mode : values()) {
            if (mode.words.equals(words)) {
                return mode;
            }
        }
        throw new IllegalArgumentException(words);
    }

    public boolean replaces() {
        return this == REPLACE || this == ADD_OR_REPLACE;
    }
}
