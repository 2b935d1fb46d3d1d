package io.mivrel.model;

/** How a field that is delivered but not read comes to its value. */
public enum Derivation {
    /** It is read from the source. */
    NONE,
    /** The place of the line among those of its level in the document, from 1. */
    LINE_NUMBER,
    /** The name of the file that the line came from. */
    SOURCE_FILE,
    /** The first physical row there. */
    SOURCE_ROW,
    /** The account that the layout of the file names. */
    FILE_ACCOUNT,
    /** The entry of the coding table that decided. */
    CODING_ENTRY,
    /** The drafter of the kind works it out. */
    DRAFTED
}
