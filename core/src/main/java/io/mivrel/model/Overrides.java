package io.mivrel.model;

/**
 * What people have said about findings: that a document is right all the same. Asked for every finding, from the threads
 * that read and that sort.
 */
public interface Overrides {
    /** Nobody has said anything. */
    Overrides NONE = finding -> finding;

    /** The finding itself; or, where a person has said that what it would hold is right, a caution in its place. */
    Finding judge(Finding finding);
}
