package io.mivrel.files.lines;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.bytes.LineIndex;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Separated text is read strictly, and damage costs one physical line. */
public class SeparatedRowsTest {
    private static List<String> rows(byte[] bytes, char separator, String encoding) throws IOException {
        return rows(new ByteArrayInputStream(bytes), separator, encoding);
    }

    private static List<String> rows(InputStream in, char separator, String encoding) throws IOException {
        List<String> rows = new ArrayList<>();
        try (SeparatedRows source = new SeparatedRows(in, separator, encoding)) {
            for (Row row = source.next(); row != null; row = source.next()) {
                StringBuilder text = new StringBuilder().append(row.number());
                if (row.fault() != null) {
                    text.append('!').append(row.fault());
                }
                for (int i = 0; i < row.size(); i++) {
                    text.append('|').append(row.text(i));
                }
                rows.add(text.toString());
            }
        }
        return rows;
    }

    private static List<String> rows(String text) throws IOException {
        return rows(text.getBytes(StandardCharsets.UTF_8), ',', "UTF-8");
    }

    @DataProvider
    public Object[][] texts() {
        return new Object[][] {
            {"a,b\nc,d\n", List.of("1|a|b", "2|c|d")},
            {"a,b\r\nc,d", List.of("1|a|b", "2|c|d")},
            {"a,b\rc,d\r", List.of("1|a|b", "2|c|d")},
            {"a,,\n,\n\n", List.of("1|a||", "2||", "3|")},
            {"\"a\"\"b\",\"c,d\"\n", List.of("1|a\"b|c,d")},
            {"\"\"\"\",\"\"\n", List.of("1|\"|")},
            {"\"two\nlines\",x\ny,z\n", List.of("1|two\nlines|x", "3|y|z")},
            {"3\" tube,x\n", List.of("1|3\" tube|x")},
            {"\"open,x\ny,z\n", List.of("1!QUOTE_UNCLOSED|\"open,x", "2|y|z")},
            {"a,\"b\"c,d\ne,f\n", List.of("1!QUOTE_UNCLOSED|a,\"b\"c,d", "2|e|f")},
            {"a,\"b", List.of("1!QUOTE_UNCLOSED|a,\"b")},
            {"a\u0000,b\nc,d\n", List.of("1!NUL|a\u0000|b", "2|c|d")},
            {"", List.of()},
        };
    }

    @Test(dataProvider = "texts")
    public void reads(String text, List<String> expected) throws IOException {
        assertThat(rows(text)).isEqualTo(expected);
    }

    @Test
    public void aByteOrderMarkDecidesTheEncoding() throws IOException {
        String text = "\uFEFFBetrag;Stück\n1,50;é\n";
        for (Charset charset : List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE)) {
            assertThat(rows(text.getBytes(charset), ';', "windows-1252")).containsExactly("1|Betrag|Stück", "2|1,50|é");
        }
    }

    @Test
    public void bytesOfAnotherEncodingCostTheirRowsOnly() throws IOException {
        byte[] bytes = "a,b\ncaf\u00e9,x\nc,d\n\u00e9".getBytes(StandardCharsets.ISO_8859_1);
        assertThat(rows(bytes, ',', "auto"))
                .containsExactly("1|a|b", "2!BYTES_UNREADABLE|caf\uFFFD|x", "3|c|d", "4!BYTES_UNREADABLE|\uFFFD");
        assertThat(rows(bytes, ',', "windows-1252")).containsExactly("1|a|b", "2|café|x", "3|c|d", "4|é");
    }

    @Test
    public void whatIsNoTextIsSaidToBeNone() throws IOException {
        byte[] noise = new byte[20_000];
        new Random(1).nextBytes(noise);
        noise[0] = 'P';
        assertThat(rows(noise, ',', "windows-1252")).first().asString().contains("NOT_TEXT");
        assertThat(rows("a,b\nc,d\n".repeat(50).getBytes(StandardCharsets.UTF_16LE), ',', "UTF-8"))
                .first()
                .asString()
                .contains("NOT_TEXT");
    }

    @Test
    public void rowsOfEverySizeAreTheSameWhereverABufferEnds() throws IOException {
        Random random = new Random(2);
        StringBuilder text = new StringBuilder();
        List<String> expected = new ArrayList<>();
        for (int row = 1; row <= 4000; row++) {
            String cell = "é€x\"y".repeat(random.nextInt(40));
            text.append(row).append(",\"").append(cell.replace("\"", "\"\"")).append("\"\r\n");
            expected.add(row + "|" + row + "|" + cell);
        }
        assertThat(rows(text.toString())).isEqualTo(expected);
        assertThat(rows(text.toString().getBytes(StandardCharsets.UTF_16LE), ',', "UTF-16LE"))
                .isEqualTo(expected);
    }

    @Test
    public void aLineOfAHundredMegabytesIsPassedOverInLittleMemory() throws IOException {
        InputStream begin = new ByteArrayInputStream("a,b\n".getBytes(StandardCharsets.UTF_8));
        InputStream end = new ByteArrayInputStream("\nc,d\n".getBytes(StandardCharsets.UTF_8));
        InputStream in = new SequenceInputStream(begin, new SequenceInputStream(new Repeated('x', 100_000_000), end));
        List<String> rows = rows(in, ',', "UTF-8");
        assertThat(rows).hasSize(3).first().isEqualTo("1|a|b");
        assertThat(rows.get(1)).startsWith("2!TOO_LONG|xxx").hasSizeLessThan(200);
        assertThat(rows.get(2)).isEqualTo("3|c|d");
    }

    @Test
    public void tooManyCellsAreAFault() throws IOException {
        assertThat(rows("a,b\n" + ",".repeat(20_000) + "\nc,d\n").get(1)).startsWith("2!TOO_LONG");
    }

    @Test
    public void anOpenQuoteDoesNotSwallowTheFile() throws IOException {
        StringBuilder text = new StringBuilder("a,\"b\n");
        for (int i = 0; i < 300_000; i++) {
            text.append("c,d,e,f\n");
        }
        List<String> rows = rows(text.toString());
        assertThat(rows).hasSize(300_001);
        assertThat(rows.get(0)).isEqualTo("1!QUOTE_UNCLOSED|a,\"b");
    }

    @Test
    public void skippingCountsPhysicalLines() throws IOException {
        byte[] bytes = "a\r\n\"b\nb\",x\r\nc\rd\ne".getBytes(StandardCharsets.UTF_8);
        for (int to = 1; to <= 6; to++) {
            try (SeparatedRows source = new SeparatedRows(new ByteArrayInputStream(bytes), ',', "UTF-8")) {
                source.skipTo(to);
                assertThat(source.next().number()).isEqualTo(to);
            }
        }
    }

    @Test
    public void skippingFindsTheRowsThatReadingFinds() throws IOException {
        Random random = new Random(5);
        for (int round = 0; round < 200; round++) {
            StringBuilder text = new StringBuilder();
            String[] ends = round % 3 == 0
                    ? new String[] {"\n"}
                    : round % 3 == 1 ? new String[] {"\r\n"} : new String[] {"\n", "\r\n", "\r"};
            int lines = 20 + random.nextInt(3000);
            for (int i = 1; i <= lines; i++) {
                text.append(i)
                        .append(',')
                        .append("x".repeat(random.nextInt(30)))
                        .append(random.nextInt(50) == 0 ? "\u00e4" : "");
                text.append(ends[random.nextInt(ends.length)]);
            }
            Path file = Files.createTempFile("mivrel", ".csv");
            Files.writeString(file, (round % 5 == 0 ? "\uFEFF" : "") + text);
            LineIndex index = new LineIndex();
            if (round % 2 == 0) {
                // A reading before this one has noted where lines begin.
                try (SeparatedRows source = SeparatedRows.open(file, ',', "UTF-8", index)) {
                    while (source.next() != null) {
                        // To the end.
                    }
                }
            }
            try (SeparatedRows source = SeparatedRows.open(file, ',', "UTF-8", index)) {
                for (long to = 1; to <= lines; to += 1 + random.nextInt(random.nextBoolean() ? 3 : 900)) {
                    source.skipTo(to);
                    Row row = source.next();
                    assertThat(row.number()).isEqualTo(to);
                    assertThat(row.text(0)).isEqualTo(Long.toString(to));
                }
            }
        }
    }

    private static String text(Row row) {
        StringBuilder text = new StringBuilder().append(row.number());
        text.append(row.fault() == null ? "" : "!" + row.fault()).append(row.hasQuoteInside() ? "?" : "");
        for (int i = 0; i < row.size(); i++) {
            text.append('|').append(row.text(i));
        }
        return text.toString();
    }

    @Test
    public void filesThatCannotBeReadAreNamed() throws IOException {
        Path folder = Files.createTempDirectory("mivrel");
        assertThatThrownBy(() -> SeparatedRows.open(folder.resolve("gone.csv"), ',', "auto"))
                .hasMessageContaining("gone.csv: there is no such file");
        assertThatThrownBy(() -> SeparatedRows.open(folder, ',', "auto")).hasMessageContaining("is a folder");
    }

    @Test
    public void everyFaultHasARule() {
        for (RowFault fault : RowFault.values()) {
            assertThat(fault.rule()).isNotNull();
            assertThat(fault.reason()).isNotBlank();
        }
    }

    /** The same byte, so many times. */
    private static final class Repeated extends InputStream {
        private final int value;
        private long left;

        Repeated(int value, long count) {
            this.value = value;
            this.left = count;
        }

        @Override
        public int read() {
            return left-- > 0 ? value : -1;
        }

        @Override
        public int read(byte[] bytes, int from, int length) {
            if (left <= 0) {
                return -1;
            }
            int count = (int) Math.min(left, length);
            java.util.Arrays.fill(bytes, from, from + count, (byte) value);
            left -= count;
            return count;
        }
    }
}
