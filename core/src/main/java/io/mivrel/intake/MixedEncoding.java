package io.mivrel.intake;

import io.mivrel.rows.Row;
import io.mivrel.text.Spans;

/** Finds letters of UTF-8 that were read as an encoding of one byte a character, such as \u00c3\u00bc for \u00fc. */
final class MixedEncoding {
    private MixedEncoding() {}

    static boolean isIn(Row row) {
        if (row.size() == 0) {
            return false;
        }
        byte[] bytes = row.bytes();
        int from = row.start(0);
        int to = row.end(row.size() - 1);
        return from < to && !Spans.isAsciiWithoutNul(bytes, from, to) && find(bytes, from, to) >= 0;
    }

    /** The cell that it is in. */
    static String word(Row row) {
        for (int i = 0; i < row.size(); i++) {
            if (find(row.bytes(), row.start(i), row.end(i)) >= 0) {
                return row.trimmed(i);
            }
        }
        return "";
    }

    // The letter that a first byte of UTF-8 becomes, and behind it a sign that is no letter, as hardly any word has.
    private static int find(byte[] b, int from, int to) {
        for (int i = from; i + 3 < to; i++) {
            boolean first = b[i] == (byte) 0xC3
                    && (b[i + 1] == (byte) 0x83 || b[i + 1] == (byte) 0x82 || b[i + 1] == (byte) 0x84);
            boolean second = b[i + 2] == (byte) 0xC2 && b[i + 3] < (byte) 0xC0
                    || b[i + 2] == (byte) 0xE2 && b[i + 3] == (byte) 0x80
                    || b[i + 2] == (byte) 0xC5
                    || b[i + 2] == (byte) 0xC6
                    || b[i + 2] == (byte) 0xCB;
            if (first && second) {
                return i;
            }
        }
        return -1;
    }
}
