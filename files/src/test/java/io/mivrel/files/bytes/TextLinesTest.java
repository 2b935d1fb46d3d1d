package io.mivrel.files.bytes;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.ContentSniffer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Physical lines whatever ends them, in every encoding, within bounds. */
public class TextLinesTest {
    private static TextLines of(byte[] bytes, String encoding) throws IOException {
        return TextLines.of(new ByteArrayInputStream(bytes), encoding);
    }

    private static List<String> read(String text, String encoding) throws IOException {
        List<String> lines = new ArrayList<>();
        try (TextLines source = of(text.getBytes(Charset.forName(encoding)), encoding)) {
            while (source.next()) {
                lines.add(source.text());
                assertThat(source.number()).isEqualTo(lines.size());
                assertThat(source.isDamaged()).isFalse();
            }
        }
        return lines;
    }

    @Test
    public void linesEndInThreeWaysAndTheLastNeedNotEnd() throws IOException {
        assertThat(read("a\nb\r\nc\rd", "UTF-8")).containsExactly("a", "b", "c", "d");
        assertThat(read("a\n\n\r\nb\n", "UTF-8")).containsExactly("a", "", "", "b");
        assertThat(read("\r\r", "UTF-8")).containsExactly("", "");
        assertThat(read("", "UTF-8")).isEmpty();
        assertThat(read("é€\n\tß", "windows-1252")).containsExactly("é€", "\tß");
        assertThat(read("é\r\nß", "UTF-16LE")).containsExactly("é", "ß");
    }

    @Test
    public void linesAcrossTheEndsOfTheBufferAreWhole() throws IOException {
        Random random = new Random(2);
        StringBuilder text = new StringBuilder();
        List<String> expected = new ArrayList<>();
        for (int i = 0; i < 3_000; i++) {
            String line = "x€".repeat(random.nextInt(80)) + i;
            expected.add(line);
            text.append(line).append(random.nextBoolean() ? "\r\n" : random.nextBoolean() ? "\n" : "\r");
        }
        assertThat(read(text.toString(), "UTF-8")).isEqualTo(expected);
    }

    @Test
    public void aLineThatIsTooLongIsCutAndTheNextOneIsWhole() throws IOException {
        String text = "y".repeat(5_000_000) + "\nnext\n";
        try (TextLines lines = of(text.getBytes(StandardCharsets.UTF_8), "UTF-8")) {
            assertThat(lines.next()).isTrue();
            assertThat(lines.isTooLong()).isTrue();
            assertThat(lines.end() - lines.start()).isBetween(TextLines.LONGEST, TextLines.LONGEST + (1 << 17));
            assertThat(lines.next()).isTrue();
            assertThat(lines.text()).isEqualTo("next");
            assertThat(lines.isTooLong()).isFalse();
            assertThat(lines.number()).isEqualTo(2);
        }
    }

    @Test
    public void damageBelongsToItsLine() throws IOException {
        byte[] bytes = {'a', '\n', 'b', (byte) 0xFF, '\n', 'c'};
        try (TextLines lines = of(bytes, "UTF-8")) {
            boolean[] damaged = new boolean[3];
            for (int i = 0; lines.next(); i++) {
                damaged[i] = lines.isDamaged();
            }
            assertThat(damaged).containsExactly(false, true, false);
        }
    }

    @DataProvider
    public static Object[][] contents() {
        return new Object[][] {
            {"Date,Text\n1,2\n", "SEPARATED"},
            {"  OFXHEADER:100\n<OFX>", "OFX"},
            {"<?xml version=\"1.0\"?><?OFX OFXHEADER=\"200\"?><OFX>", "OFX"},
            {"<?xml version=\"1.0\"?><Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001.02\">", "CAMT_053"},
            {"{1:F01}{2:I940}{4:\n:20:A\n:25:B\n:60F:C", "MT940"},
            {":20:A\n:25:B\n:28C:1\n:60F:C", "MT940"},
            {"!Type:Bank\nD1\n", "QIF"},
            {"!Account\nNx\n", "QIF"},
            {"PK\u0003\u0004", "WORKBOOK"},
            {"%PDF-1.7", "null"},
            {"<html><table>", "null"},
            {"<?xml version=\"1.0\"?><other/>", "null"},
            {"note :20: and :60F: in a text, and more\n", "SEPARATED"},
        };
    }

    @Test(dataProvider = "contents")
    public void theContentTellsTheKind(String head, String kind) {
        ContentSniffer.Content content = ContentSniffer.look(head.getBytes(StandardCharsets.ISO_8859_1));
        assertThat(String.valueOf(content.kind())).isEqualTo(kind);
        assertThat(content.words()).isNotBlank();
        assertThat(ContentSniffer.look(("\u00EF\u00BB\u00BF" + head).getBytes(StandardCharsets.ISO_8859_1))
                        .words())
                .as("behind a byte-order mark")
                .isEqualTo(head.startsWith("PK") || head.startsWith("%") ? "plain text" : content.words());
    }
}
