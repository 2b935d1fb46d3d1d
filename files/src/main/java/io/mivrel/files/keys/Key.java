package io.mivrel.files.keys;

import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A key of a block of settings. Immutable.
 *
 * @param name as it is written
 * @param form what it holds
 * @param words the words that are allowed, the usual one first; empty for any
 * @param pattern what a text must be like; empty for anything
 * @param least the least of a number
 * @param most the greatest of a number
 * @param block the keys of its block, or of each block of its list; {@code null} for what is no block
 * @param required true when a block without it is refused
 * @param meaning for people
 */
public record Key(
        String name,
        Form form,
        List<String> words,
        String pattern,
        int least,
        int most,
        @Nullable Block block,
        boolean required,
        String meaning) {

    /** What a key holds. */
    public enum Form {
        /** One text, one of some words, or a number. */
        TEXT,
        /** One text or a list of them. */
        TEXTS,
        /** yes or no. */
        YES,
        /** A whole number. */
        NUMBER,
        /** A block of keys. */
        BLOCK,
        /** A list of blocks. */
        LIST,
        /** Blocks, each under a name of the user's own. */
        NAMED,
        /** A list of rows, each a list of texts or one text. */
        ROWS,
        /** Texts, each under a name of the user's own. */
        OPEN
    }

    private static Key of(String name, Form form, String meaning) {
        return new Key(name, form, List.of(), "", 0, 0, null, false, meaning);
    }

    public static Key text(String name, String meaning) {
        return of(name, Form.TEXT, meaning);
    }

    /** A text or a list of texts. */
    public static Key texts(String name, String meaning) {
        return of(name, Form.TEXTS, meaning);
    }

    /** One of the words, of which the first is meant when it is left out. */
    public static Key word(String name, String meaning, Collection<String> words) {
        return new Key(name, Form.TEXT, List.copyOf(words), "", 0, 0, null, false, meaning);
    }

    /** The same. */
    public static Key word(String name, String meaning, String... words) {
        return word(name, meaning, List.of(words));
    }

    /** Some of the words. */
    public static Key words(String name, String meaning, Collection<String> words) {
        return new Key(name, Form.TEXTS, List.copyOf(words), "", 0, 0, null, false, meaning);
    }

    public static Key yes(String name, String meaning) {
        return of(name, Form.YES, meaning);
    }

    public static Key number(String name, int least, int most, String meaning) {
        return new Key(name, Form.NUMBER, List.of(), "", least, most, null, false, meaning);
    }

    public static Key block(String name, String meaning, Block block) {
        return new Key(name, Form.BLOCK, List.of(), "", 0, 0, block, false, meaning);
    }

    /** A list of blocks. */
    public static Key list(String name, String meaning, Block block) {
        return new Key(name, Form.LIST, List.of(), "", 0, 0, block, false, meaning);
    }

    /** Blocks under names of the user's own; {@code null} for blocks that depend on something else. */
    public static Key named(String name, String meaning, @Nullable Block block) {
        return new Key(name, Form.NAMED, List.of(), "", 0, 0, block, false, meaning);
    }

    /** Rows of texts. */
    public static Key rows(String name, String meaning) {
        return of(name, Form.ROWS, meaning);
    }

    /** Texts under names of the user's own. */
    public static Key open(String name, String meaning) {
        return of(name, Form.OPEN, meaning);
    }

    /** The same, which must be given. */
    public Key must() {
        return new Key(name, form, words, pattern, least, most, block, true, meaning);
    }

    /** The same, whose text must be like this. */
    public Key like(String expression) {
        return new Key(name, form, words, expression, least, most, block, required, meaning);
    }

    /** The word that is meant when it is left out. */
    public String usual() {
        return words.get(0);
    }

    @Override
    public String toString() {
        return name;
    }
}
