package io.mivrel.coding;

import java.util.Locale;

/**
 * Words that a coding entry looks for, in their normal form: small letters, one blank between words, none around.
 *
 * @param owner place of the entry in its table
 * @param openStart true when a letter or digit may stand before them
 * @param openEnd true when a letter or digit may follow them
 */
record Phrase(String text, int owner, boolean openStart, boolean openEnd) {

    /** From the form of the coding table, where a star opens an end. */
    static Phrase of(String words, int owner) {
        String stripped = words.strip();
        return new Phrase(normal(words.replace("*", " ")), owner, stripped.startsWith("*"), stripped.endsWith("*"));
    }

    private static String normal(String words) {
        return words.toLowerCase(Locale.ROOT).replace('\u00a0', ' ').strip().replaceAll("\\s+", " ");
    }

    /** True for an ASCII letter or digit. */
    static boolean isWord(int c) {
        return c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z';
    }
}
