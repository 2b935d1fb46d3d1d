package io.mivrel.survey.files;

import io.mivrel.rows.FileKind;
import io.mivrel.survey.FileProfile;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashSet;
import java.util.Set;

/**
 * Counts the bytes of a text as they pass, to tell its encoding and line ends with the evidence. A detector by statistics
 * misjudges short texts; what can be proved is proved here, and the rest is asked. For one thread.
 */
public final class ByteCensus {
    private static final int MOST_WORDS = 400;
    private static final int MOST_LOOKS = 20_000;
    private static final int LONGEST_WORD = 20;

    private final long[] counts = new long[256];
    /** Different words with bytes beyond ASCII, each byte as the character of its number. */
    private final Set<String> words = new LinkedHashSet<>();

    private int looks;
    private byte[] mark = new byte[0];
    private long validWide;
    private long invalid;
    /** Bytes still wanted by a character of UTF-8 that has begun, and the lowest its next byte may be. */
    private int wanted;

    private int least;
    private int most;

    public void add(byte[] block, int from, int length) {
        if (mark.length == 0) {
            mark = java.util.Arrays.copyOfRange(block, from, from + Math.min(3, length));
        }
        for (int i = from; i < from + length; i++) {
            int b = block[i] & 0xFF;
            counts[b]++;
            if (wanted > 0 || b >= 0x80) {
                follow(b);
            }
            if (b >= 0x80 && words.size() < MOST_WORDS && looks < MOST_LOOKS) {
                looks++;
                words.add(word(block, i, from, from + length));
            }
        }
    }

    // The letters around a byte beyond ASCII, with what stands before and behind them.
    private static String word(byte[] block, int at, int from, int to) {
        int start = at;
        while (start > from && at - start < LONGEST_WORD && isOfWord(block[start - 1])) {
            start--;
        }
        if (start > from && block[start - 1] < 0) {
            // It might begin in the middle of a character; a word that begins before was looked at already.
            return "";
        }
        int end = at + 1;
        while (end < to && end - at < LONGEST_WORD && isOfWord(block[end])) {
            end++;
        }
        start = start > from && block[start - 1] >= ' ' ? start - 1 : start;
        end = end < to && block[end] >= ' ' ? end + 1 : end;
        return new String(block, start, end - start, StandardCharsets.ISO_8859_1);
    }

    private static boolean isOfWord(byte b) {
        return b < 0 || b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z';
    }

    // Well-formed UTF-8 by The Unicode Standard, table 3-7.
    private void follow(int b) {
        if (wanted > 0) {
            if (b >= least && b <= most) {
                least = 0x80;
                most = 0xBF;
                if (--wanted == 0) {
                    validWide++;
                }
                return;
            }
            invalid++;
            wanted = 0;
            if (b < 0x80) {
                return;
            }
        }
        least = b == 0xE0 ? 0xA0 : b == 0xF0 ? 0x90 : 0x80;
        most = b == 0xED ? 0x9F : b == 0xF4 ? 0x8F : 0xBF;
        wanted = b >= 0xC2 && b <= 0xDF ? 1 : b >= 0xE0 && b <= 0xEF ? 2 : b >= 0xF0 && b <= 0xF4 ? 3 : 0;
        invalid += wanted == 0 ? 1 : 0;
    }

    /** What the bytes so far say; {@code whole} when they are all, so that a character cut at their end is a broken one. */
    public FileProfile facts(boolean whole) {
        if (starts(0xEF, 0xBB, 0xBF)) {
            return text("UTF-8", "it begins with the byte-order mark of UTF-8", true);
        }
        if (starts(0xFF, 0xFE)) {
            return text("UTF-16LE", "it begins with the byte-order mark of UTF-16LE", true);
        }
        if (starts(0xFE, 0xFF)) {
            return text("UTF-16BE", "it begins with the byte-order mark of UTF-16BE", true);
        }
        long broken = invalid + (whole && wanted > 0 ? 1 : 0);
        long high = 0;
        for (int b = 0x80; b < 0x100; b++) {
            high += counts[b];
        }
        if (high == 0) {
            return text("UTF-8", "every byte is plain ASCII", true);
        }
        if (broken == 0) {
            return text("UTF-8", "all " + high + " bytes beyond ASCII form valid UTF-8", true);
        }
        if (validWide > broken) {
            // Two encodings in one file: read as the one that most is, so that the rows of the other are named.
            return text(
                    "UTF-8",
                    validWide + " characters are valid UTF-8 and " + broken
                            + " are not, so two encodings are mixed; rows of the other are held",
                    true);
        }
        words.remove("");
        EncodingWeigher.Verdict verdict = EncodingWeigher.weigh(words);
        if (verdict.isSure()) {
            return text(verdict.encoding(), high + " bytes are not valid UTF-8; they make words in this one", true);
        }
        return text(
                verdict.encoding(),
                verdict.encoding() + " or " + verdict.other() + "? A text is " + verdict.example(),
                false);
    }

    private FileProfile text(String encoding, String why, boolean sure) {
        return FileProfile.text(FileKind.SEPARATED, "separated text", encoding, why, sure)
                .divided(',', lineEnds());
    }

    private boolean starts(int... bytes) {
        for (int i = 0; i < bytes.length; i++) {
            if (mark.length <= i || (mark[i] & 0xFF) != bytes[i]) {
                return false;
            }
        }
        return true;
    }

    private String lineEnds() {
        long lf = counts['\n'];
        long cr = counts['\r'];
        return cr == 0 ? "LF" : lf == 0 ? "CR" : cr == lf ? "CRLF" : "CRLF and LF mixed";
    }
}
