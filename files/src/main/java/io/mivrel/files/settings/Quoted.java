package io.mivrel.files.settings;

/** Text in quotes, as both YAML 1.2 and JSON read it. */
public final class Quoted {
    private Quoted() {}

    /** What is no sign of writing, and the quotes themselves, stand behind a backslash. */
    public static String quoted(String text) {
        StringBuilder quoted = new StringBuilder("\"");
        text.chars().forEach(c -> {
            if (c == '"' || c == '\\') {
                quoted.append('\\').append((char) c);
            } else if (c < ' ' || c >= 0x7F && c < 0xA0 || c == 0x2028 || c == 0x2029 || c == 0xFEFF) {
                quoted.append(String.format("\\u%04x", c));
            } else {
                quoted.append((char) c);
            }
        });
        return quoted.append('"').toString();
    }
}
