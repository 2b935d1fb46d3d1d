package io.mivrel.text;

/** Texts from outside, such as names of files, made fit for a screen: none can move its cursor or turn its lines round. */
public final class Printable {
    private Printable() {}

    /**
     * The text with control characters and those that change the direction of writing named by their code point, such as
     * {@code <U+001B>}.
     */
    public static String of(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (isHarmful(text.charAt(i))) {
                return named(text);
            }
        }
        return text;
    }

    private static String named(String text) {
        StringBuilder out = new StringBuilder(text.length() + 16);
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (isHarmful(c)) {
                out.append(String.format("<U+%04X>", (int) c));
            } else {
                out.append(c);
            }
        }
        return out.toString();
    }

    /** True for control characters, and for marks, embeddings, overrides and isolates of the bidirectional algorithm (UAX 9). */
    public static boolean isHarmful(char c) {
        return Character.isISOControl(c)
                || c == 0x061C
                || c == 0x200E
                || c == 0x200F
                || c >= 0x202A && c <= 0x202E
                || c >= 0x2066 && c <= 0x2069;
    }
}
