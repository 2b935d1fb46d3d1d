package io.mivrel.survey.files;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Weighs the encodings of two bytes a character: in the right one nearly all characters are of the common ones, which
 * these standards put first (GB 2312 and Big5 level 1, JIS X 0208 level 1 and kana, KS X 1001 syllables).
 */
final class WideEncodings {
    /** First bytes of common characters. */
    private record Wide(String encoding, int commonFrom, int commonTo, int kanaFrom, int kanaTo) {}

    private static final List<Wide> CANDIDATES = List.of(
            new Wide("GB18030", 0xB0, 0xD7, 0, 0),
            new Wide("Big5", 0xA4, 0xC6, 0, 0),
            new Wide("windows-31j", 0x88, 0x97, 0x82, 0x83),
            new Wide("EUC-JP", 0xB0, 0xCF, 0xA4, 0xA5),
            new Wide("EUC-KR", 0xB0, 0xC8, 0, 0));

    /** Characters that a verdict takes, and how many of a hundred must be common ones. */
    private static final int LEAST = 8;

    private static final int COMMON = 90;
    private static final int SHOWN = 3;
    /** A thousand times, as a natural logarithm in thousandths: a reading that is so much likelier than the next needs no question. */
    private static final long MUCH_LIKELIER = 6908;
    /** How rare a character is that is not common, likewise. */
    private static final long RARE = 6908;

    private WideEncodings() {}

    /** The likelihood is a natural logarithm in thousandths. */
    private record Fitting(String encoding, long likelihood) {}

    /** What the words say, as {@link EncodingWeigher} has them; {@code null} when they are in none of these encodings. */
    static EncodingWeigher.@Nullable Verdict weigh(Collection<String> words) {
        List<Fitting> fitting = CANDIDATES.stream()
                .filter(wide -> Charset.isSupported(wide.encoding))
                .map(wide -> fitting(wide, words))
                .filter(Objects::nonNull)
                .sorted(Comparator.comparing(Fitting::likelihood).reversed())
                .toList();
        if (fitting.isEmpty()) {
            return null;
        }
        Fitting first = fitting.get(0);
        if (fitting.size() == 1 || first.likelihood - fitting.get(1).likelihood > MUCH_LIKELIER) {
            return new EncodingWeigher.Verdict(first.encoding, first.encoding, "");
        }
        String second = fitting.get(1).encoding;
        return new EncodingWeigher.Verdict(
                first.encoding,
                second,
                shown(first.encoding, words) + " by the first, " + shown(second, words) + " by the second");
    }

    // Fewer common characters make each of them likelier; null where something cannot be read, or is rare.
    private static @Nullable Fitting fitting(Wide wide, Collection<String> words) {
        int all = 0;
        int common = 0;
        for (String word : words) {
            for (int i = firstHigh(word); i + 1 < word.length(); i++) {
                int lead = word.charAt(i);
                if (lead < 0x80) {
                    continue;
                }
                if (read(word.substring(i, i + 2), wide.encoding) == null) {
                    return null;
                }
                boolean mark = lead == 0xA1 || lead == 0xA3 || lead == 0x81;
                boolean known = lead >= wide.commonFrom && lead <= wide.commonTo
                        || lead >= wide.kanaFrom && lead <= wide.kanaTo;
                all += mark ? 0 : 1;
                common += known ? 1 : 0;
                i++;
            }
        }
        int rows = wide.commonTo - wide.commonFrom + 1 + wide.kanaTo - wide.kanaFrom;
        return all < LEAST || common * 100 < all * COMMON
                ? null
                : new Fitting(wide.encoding, -common * Math.round(Math.log(rows) * 1000) - (all - common) * RARE);
    }

    private static int firstHigh(String word) {
        int at = 0;
        while (at < word.length() && word.charAt(at) < 0x80) {
            at++;
        }
        return at;
    }

    private static String shown(String encoding, Collection<String> words) {
        List<String> shown = new ArrayList<>();
        for (String word : words) {
            String high = word.substring(firstHigh(word));
            String text = read(high.substring(0, high.length() / 2 * 2), encoding);
            if (text != null && shown.size() < SHOWN && !shown.contains(text)) {
                shown.add("'" + text + "'");
            }
        }
        return String.join(", ", shown);
    }

    private static @Nullable String read(String bytes, String encoding) {
        CharsetDecoder decoder = Charset.forName(encoding)
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE);
        CharBuffer text = CharBuffer.allocate(bytes.length() + 1);
        decoder.decode(ByteBuffer.wrap(bytes.getBytes(StandardCharsets.ISO_8859_1)), text, true);
        String read = text.flip().toString();
        return read.indexOf('\ufffd') >= 0 ? null : read;
    }
}
