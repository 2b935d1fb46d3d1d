package io.mivrel.survey;

import java.nio.charset.StandardCharsets;

/** The time of day that stands behind a date. */
final class TimeOfDay {
    private TimeOfDay() {}

    /** Where it begins, with the blank or T before it; the end of the cell when there is none. */
    static int start(byte[] c, int from, int end) {
        for (int i = from + 6; i + 4 < end; i++) {
            boolean opens = c[i] == 'T' || c[i] == ' ';
            if (opens && isDigit(c[i + 1]) && (c[i + 2] == ':' || isDigit(c[i + 2]) && c[i + 3] == ':')) {
                return i;
            }
        }
        return end;
    }

    /** The pattern of it, from where it begins. */
    static String pattern(byte[] c, int start, int end) {
        String text = new String(c, start, end - start, StandardCharsets.UTF_8);
        String half = text.matches("(?i).*[ap]\\.? ?m\\.?$") ? "hh" : "HH";
        return text.replaceAll("(?i) [ap]\\.? ?m\\.?$", " a")
                .replaceAll("(?i)[ap]\\.? ?m\\.?$", "a")
                .replaceAll("(Z|[+-]\\d\\d:?\\d\\d)$", "XXX")
                .replaceFirst("\\d{1,2}:\\d\\d", half + ":mm")
                .replaceFirst(":\\d\\d", ":ss")
                .replaceFirst("\\.\\d+", ".SSS");
    }

    private static boolean isDigit(byte b) {
        return b >= '0' && b <= '9';
    }
}
