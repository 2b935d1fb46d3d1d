package io.mivrel.text;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.quicktheories.QuickTheory.qt;
import static org.quicktheories.generators.SourceDSL.longs;
import static org.quicktheories.generators.SourceDSL.strings;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/** The small parts that every cell passes through. */
public class CellsTest {
    private static byte[] bytes(String text) {
        return text.getBytes(UTF_8);
    }

    @Test
    public void everyKnownCodeIsFoundAndNoOther() {
        Map<String, Integer> codes = new HashMap<>();
        Random random = new Random(1);
        while (codes.size() < 5_000) {
            StringBuilder code = new StringBuilder();
            for (int k = random.nextInt(8); k >= 0; k--) {
                code.append((char) (random.nextInt(10) == 0 ? 'é' : 'A' + random.nextInt(5)));
            }
            codes.put(code.toString(), codes.size());
        }
        SpanMap<Integer> map = new SpanMap<>(codes);
        codes.forEach((code, value) -> {
            byte[] chars = bytes("<" + code + "F>");
            assertThat(map.get(chars, 1, chars.length - 2)).isEqualTo(value);
            assertThat(map.get(chars, 1, chars.length - 1)).isNull();
        });
        assertThat(new SpanMap<>(Map.of()).get(bytes("A"), 0, 1)).isNull();
    }

    @Test
    public void codesAreToldFromTheirBeginningsAndFromWhatFollows() {
        SpanMap<String> map = SpanMap.ofKeys(Set.of("5010", "50100", "STD", "a code of more than eight bytes", ""));
        byte[] text = bytes("50100STDa code of more than eight bytes!");
        assertThat(map.get(text, 0, 4)).isEqualTo("5010");
        assertThat(map.get(text, 0, 5)).isEqualTo("50100");
        assertThat(map.get(text, 0, 3)).isNull();
        assertThat(map.get(text, 5, 8)).isEqualTo("STD");
        assertThat(map.get(text, 8, text.length - 1)).isEqualTo("a code of more than eight bytes");
        assertThat(map.get(text, 8, text.length)).isNull();
        assertThat(map.get(text, 3, 3)).isEmpty();
    }

    @Test
    public void theLastBytesOfAnArrayAreReadAsAllOthers() {
        Random random = new Random(2);
        byte[] bytes = new byte[24];
        random.nextBytes(bytes);
        byte[] roomy = java.util.Arrays.copyOf(bytes, 64);
        for (int at = 0; at < bytes.length; at++) {
            for (int length = 1; length <= Math.min(8, bytes.length - at); length++) {
                long expected = 0;
                for (int i = 0; i < length; i++) {
                    expected |= (bytes[at + i] & 0xFFL) << 8 * i;
                }
                assertThat(Spans.few(bytes, at, length)).isEqualTo(expected);
                assertThat(Spans.few(roomy, at, length)).isEqualTo(expected);
                assertThat(Spans.same(bytes, at, roomy, at, length)).isTrue();
                byte[] other = roomy.clone();
                other[at + random.nextInt(length)] ^= 4;
                assertThat(Spans.same(bytes, at, other, at, length)).isFalse();
                // What lies behind is nobody's business.
                other = roomy.clone();
                other[at + length] ^= 4;
                assertThat(Spans.same(bytes, at, other, at, length)).isTrue();
            }
        }
    }

    @Test
    public void aTextInASpanHashesAsTheString() {
        for (String text : new String[] {"", "1", "V-104", "été – 3", "1234567"}) {
            byte[] chars = bytes("<" + text + ">");
            assertThat(Hash64.add(7, chars, 1, chars.length - 1)).isEqualTo(Hash64.add(7, text));
        }
    }

    @Test
    public void numbersArePaddedAndNeverCut() {
        qt().forAll(longs().between(0, Long.MAX_VALUE / 2)).checkAssert(value -> {
            CellBuffer buffer = new CellBuffer();
            buffer.append("x").digits(value, 4);
            assertThat(buffer.toString()).isEqualTo("x" + String.format(java.util.Locale.ROOT, "%04d", value));
        });
    }

    @Test
    public void theBufferGrowsAndIsCut() {
        CellBuffer buffer = new CellBuffer();
        String text = "long".repeat(1000);
        buffer.append(text).append('!').append(bytes(text), 4, 8);
        assertThat(buffer.toString()).isEqualTo(text + "!long");
        buffer.cut(4);
        assertThat(buffer.toString()).isEqualTo("long");
        assertThat(buffer.clear().length()).isZero();
    }

    @Test
    public void blanksOfEveryKindAreTrimmed() {
        byte[] chars = bytes("\u00a0 \tab c\u202f\u2007 ");
        int start = Spans.trimStart(chars, 0, chars.length);
        int end = Spans.trimEnd(chars, start, chars.length);
        assertThat(new String(chars, start, end - start, UTF_8)).isEqualTo("ab c");
        byte[] blank = bytes(" \u00a0 ");
        assertThat(Spans.trimStart(blank, 0, 4)).isEqualTo(4);
        assertThat(Spans.startsWith(chars, start, end, "ab")).isTrue();
        assertThat(Spans.startsWith(chars, start, end, "ab c d")).isFalse();
    }

    @Test
    public void hashesOfTextsAreFixedForGood() {
        // The register keeps these: a change would make every delivered document unknown.
        assertThat(Hash64.add(3, "8801")).isEqualTo(Hash64.add(3, new String("8801")));
        assertThat(Hash64.add(0, 42)).isEqualTo(fixedMix(42));
        qt().forAll(strings().basicLatinAlphabet().ofLengthBetween(0, 40)).checkAssert(text -> {
            byte[] padded = bytes("##" + text + "##");
            assertThat(Hash64.of(padded, 2, padded.length - 2)).isEqualTo(Hash64.of(bytes(text), 0, text.length()));
        });
    }

    private static long fixedMix(long value) {
        long h = value * 0xBF58476D1CE4E5B9L;
        return h ^ (h >>> 31);
    }

    @Test
    public void nearTextsHaveDifferentHashes() {
        Set<Long> seen = new HashSet<>();
        int texts = 0;
        for (int i = 0; i < 100_000; i++) {
            seen.add(Hash64.add(1, Integer.toString(i)));
            seen.add(Hash64.of(bytes("x" + i + "y"), 0, ("x" + i + "y").length()));
            texts += 2;
        }
        assertThat(seen).hasSize(texts);
    }

    @Test
    public void aPatternWritesWhatItReads() {
        for (String pattern :
                new String[] {"dd/MM/uuuu", "d.M.uuuu", "uuuuMMdd", "EEEE d MMMM uuuu", "EEE dd MMM uuuu"}) {
            DatePattern compiled = DatePattern.of(pattern);
            for (long day = 20_000; day < 20_800; day += 7) {
                CellBuffer out = new CellBuffer();
                compiled.append(day, out);
                assertThat(compiled.parse(out.bytes(), 0, out.length()))
                        .as(pattern)
                        .isEqualTo(day);
            }
            assertThat(compiled).isEqualTo(DatePattern.of(pattern)).hasSameHashCodeAs(DatePattern.of(pattern));
            assertThat(compiled).hasToString(pattern);
        }
    }

    @Test
    public void eightBytesAtOnceSeeWhatEachByteTells() {
        Random random = new Random(4);
        String all = "abc,.-   \t\n\r\0\u000b\u0080\u00ff";
        for (int round = 0; round < 50_000; round++) {
            byte[] bytes = new byte[1 + random.nextInt(40)];
            int kinds = 9 + random.nextInt(all.length() - 8);
            for (int i = 0; i < bytes.length; i++) {
                bytes[i] = (byte) all.charAt(random.nextInt(kinds));
            }
            int from = random.nextInt(bytes.length);
            int to = from + random.nextInt(bytes.length - from + 1);
            int end = from;
            boolean sound = true;
            while (end < to && bytes[end] != '\n' && bytes[end] != '\r') {
                end++;
            }
            for (int i = from; i < to; i++) {
                sound &= bytes[i] > 0;
            }
            assertThat(Spans.lineEnd(bytes, from, to)).isEqualTo(end);
            assertThat(Spans.isAsciiWithoutNul(bytes, from, to)).isEqualTo(sound);
        }
    }
}
