package io.mivrel.report;

/** Texts from outside, made harmless for a spreadsheet that opens a report. */
final class SpreadsheetText {
    private SpreadsheetText() {}

    /** The text with an apostrophe before it when a spreadsheet would run it as a formula. */
    static String of(String text) {
        return !text.isEmpty() && "=+-@\t\r".indexOf(text.charAt(0)) >= 0 && !isNumber(text) ? "'" + text : text;
    }

    private static boolean isNumber(String text) {
        return text.matches("-[0-9][0-9.,]*");
    }
}
