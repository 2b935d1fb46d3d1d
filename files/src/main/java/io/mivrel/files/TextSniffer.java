package io.mivrel.files;

import io.mivrel.cells.Spans;
import io.mivrel.intake.Row;
import io.mivrel.survey.Survey.TextFacts;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/** Tells what the bytes of a text file are: encoding, line ends and separator, with the evidence. */
public final class TextSniffer {
    private static final int HEAD = 1 << 16;
    private static final String SEPARATORS = ",;\t|";

    private TextSniffer() {}

    /** Reads the whole file for its encoding and the beginning for the rest. */
    public static TextFacts sniff(Path file) throws IOException {
        long[] counts = new long[256];
        boolean utf8;
        byte[] head;
        try (InputStream in = Files.newInputStream(Readable.check(file))) {
            head = in.readNBytes(HEAD);
            utf8 = count(head, head.length, counts);
            byte[] block = new byte[HEAD];
            for (int n = in.read(block); n > 0; n = in.read(block)) {
                utf8 &= count(block, n, counts);
            }
        }
        TextFacts unsplit = encoding(head, counts, utf8);
        char separator = separator(head, unsplit.encoding());
        return new TextFacts(
                unsplit.encoding(), unsplit.encodingWhy(), unsplit.encodingSure(), separator, lineEnds(counts));
    }

    // Counts bytes; false when a stretch is no UTF-8, a character cut at its end aside.
    private static boolean count(byte[] block, int length, long[] counts) {
        boolean high = false;
        for (int i = 0; i < length; i++) {
            counts[block[i] & 0xFF]++;
            high |= block[i] < 0;
        }
        if (!high) {
            return true;
        }
        int from = 0;
        while (from < Math.min(3, length) && (block[from] & 0xC0) == 0x80) {
            from++;
        }
        int to = length;
        for (int back = 1; back <= Math.min(4, length - from); back++) {
            byte b = block[length - back];
            if ((b & 0xC0) != 0x80) {
                to = Spans.length(b) > back ? length - back : length;
                break;
            }
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(block, from, to - from));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    private static TextFacts encoding(byte[] head, long[] counts, boolean utf8) {
        if (starts(head, 0xEF, 0xBB, 0xBF)) {
            return facts("UTF-8", "it begins with the byte-order mark of UTF-8", true);
        }
        if (starts(head, 0xFF, 0xFE)) {
            return facts("UTF-16LE", "it begins with the byte-order mark of UTF-16LE", true);
        }
        if (starts(head, 0xFE, 0xFF)) {
            return facts("UTF-16BE", "it begins with the byte-order mark of UTF-16BE", true);
        }
        long high = 0;
        long controls = 0;
        for (int b = 0x80; b < 0x100; b++) {
            high += counts[b];
            controls += b < 0xA0 ? counts[b] : 0;
        }
        if (high == 0) {
            return facts("UTF-8", "every byte is plain ASCII", true);
        }
        if (utf8) {
            return facts("UTF-8", "all " + high + " bytes beyond ASCII form valid UTF-8", true);
        }
        if (controls == 0) {
            return facts("windows-1252", high + " bytes beyond ASCII are no UTF-8", true);
        }
        // The quotation marks, dashes and the euro that office programs put in; all else there is rare in Western text.
        long usual = counts[0x80]
                + counts[0x85]
                + counts[0x91]
                + counts[0x92]
                + counts[0x93]
                + counts[0x94]
                + counts[0x96]
                + counts[0x97]
                + counts[0x99];
        if (usual == controls) {
            return facts("windows-1252", high + " bytes beyond ASCII are no UTF-8", true);
        }
        return facts(
                "windows-1252",
                "windows-1252 or IBM850? " + controls + " bytes from 80 to 9F are letters in the one and signs in the"
                        + " other; compare the texts",
                false);
    }

    private static TextFacts facts(String encoding, String why, boolean sure) {
        return new TextFacts(encoding, why, sure, ',', "");
    }

    private static boolean starts(byte[] head, int... mark) {
        for (int i = 0; i < mark.length; i++) {
            if (head.length <= i || (head[i] & 0xFF) != mark[i]) {
                return false;
            }
        }
        return true;
    }

    private static String lineEnds(long[] counts) {
        long lf = counts['\n'];
        long cr = counts['\r'];
        return cr == 0 ? "LF" : lf == 0 ? "CR" : cr == lf ? "CRLF" : "CRLF and LF mixed";
    }

    // The separator that gives the most rows the same number of cells, at least two; then the one that gives more.
    private static char separator(byte[] head, String encoding) throws IOException {
        char best = ',';
        double bestScore = 0;
        for (char separator : SEPARATORS.toCharArray()) {
            Map<Integer, Integer> sizes = new HashMap<>();
            int rows = 0;
            try (SeparatedRows source = new SeparatedRows(new ByteArrayInputStream(head), separator, encoding)) {
                for (Row row = source.next(); row != null; row = source.next()) {
                    if (!row.isBlank() && row.fault() == null) {
                        rows++;
                        sizes.merge(row.size(), 1, Integer::sum);
                    }
                }
            }
            for (Map.Entry<Integer, Integer> size : sizes.entrySet()) {
                double score = size.getKey() < 2 ? 0 : (double) size.getValue() / rows + size.getKey() / 1000.0;
                if (score > bestScore) {
                    bestScore = score;
                    best = separator;
                }
            }
        }
        return best;
    }

    /** The rows of a file as a survey needs them. */
    public static SeparatedRows open(Path file, TextFacts facts) throws IOException {
        return SeparatedRows.open(
                file, facts.separator(), Charset.forName(facts.encoding()).name());
    }
}
