package io.mivrel.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.survey.files.SurveyFile;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Encoding, line ends and separator are told by the bytes of the whole file, with the evidence. */
public class SurveyedFileTest {
    private static FileProfile sniff(byte[] bytes) throws IOException {
        Path file = Files.createTempFile("mivrel", ".dat");
        try {
            Files.write(file, bytes);
            return look(file);
        } finally {
            Files.delete(file);
        }
    }

    private static FileProfile look(Path file) throws IOException {
        SurveyFile surveyed = new SurveyFile(file, Answers.NONE);
        FileProfile facts = surveyed.facts();
        try (RowSource rows = surveyed.open(facts)) {
            for (Row row = rows.next(); row != null; row = rows.next()) {
                assertThat(row.size()).isGreaterThanOrEqualTo(0);
            }
        }
        return surveyed.confirmed(facts);
    }

    private static byte[] bytes(String text, String encoding) {
        return text.getBytes(Charset.forName(encoding));
    }

    private static byte[] mixed(String text) {
        byte[] utf8 = bytes(text + text, "UTF-8");
        byte[] latin = bytes("03/02/2027;\u00e9t\n", "windows-1252");
        byte[] both = java.util.Arrays.copyOf(utf8, utf8.length + latin.length);
        System.arraycopy(latin, 0, both, utf8.length, latin.length);
        return both;
    }

    @DataProvider
    public Object[][] encodings() {
        String plain = "Date;Text\n01/02/2027;tin\n";
        String german = "Date;Text\n01/02/2027;Glockengießerei Müller\n";
        String office = "Date;Text\n01/02/2027;€ 5 – “bells” for Müller’s tower…\n";
        return new Object[][] {
            {bytes(plain, "UTF-8"), "UTF-8", true, "plain ASCII"},
            {bytes(german, "UTF-8"), "UTF-8", true, "all 4 bytes"},
            {bytes("\uFEFF" + german, "UTF-8"), "UTF-8", true, "byte-order mark"},
            {bytes("\uFEFF" + german, "UTF-16LE"), "UTF-16LE", true, "byte-order mark"},
            {bytes("\uFEFF" + german, "UTF-16BE"), "UTF-16BE", true, "byte-order mark"},
            {bytes(german, "windows-1252"), "windows-1252", true, "2 bytes are not valid UTF-8"},
            {bytes(office, "windows-1252"), "windows-1252", true, "not valid UTF-8"},
            {bytes(german, "IBM850"), "IBM850", true, "they make words in this one"},
            {mixed(german), "UTF-8", true, "4 characters are valid UTF-8 and 1 are not"},
        };
    }

    @Test(dataProvider = "encodings")
    public void tellsTheEncodingOrAsks(byte[] file, String encoding, boolean sure, String why) throws IOException {
        FileProfile facts = sniff(file);
        assertThat(facts.encoding()).isEqualTo(encoding);
        assertThat(facts.encodingSure()).isEqualTo(sure);
        assertThat(facts.encodingWhy()).contains(why);
    }

    @Test
    public void oneByteFarBelowDecidesToo() throws IOException {
        String ascii = "Date;Text\n" + "01/02/2027;tin\n".repeat(20_000);
        assertThat(sniff(bytes(ascii + "02/02/2027;été\n", "windows-1252")).encoding())
                .isEqualTo("windows-1252");
        // Characters that lie across the ends of what is read at a time are whole all the same.
        for (int shift = 0; shift < 4; shift++) {
            String wide = "x".repeat(shift) + "€".repeat(100_000) + ";1\n";
            assertThat(sniff(bytes(wide, "UTF-8")).encoding()).isEqualTo("UTF-8");
        }
    }

    @Test
    public void tellsLineEndsAndSeparators() throws IOException {
        assertThat(sniff(bytes("a,b\r\n1,2\r\n", "UTF-8")).lineEnds()).isEqualTo("CRLF");
        assertThat(sniff(bytes("a,b\n1,2\n", "UTF-8")).lineEnds()).isEqualTo("LF");
        assertThat(sniff(bytes("a,b\r1,2\r", "UTF-8")).lineEnds()).isEqualTo("CR");
        assertThat(sniff(bytes("a,b\r\n1,2\n", "UTF-8")).lineEnds()).contains("mixed");
        for (char separator : ",;\t|".toCharArray()) {
            String rows = "when#what, how#much\n1#a, b#1,50\n2#c#2,50\n3#d; e; f#3,75\n".replace("#", "" + separator);
            String file = separator == ',' ? "when,what,much\n1,\"a; b\",1\n2,c | d,2\n3,e; f,3\n" : rows;
            assertThat(sniff(bytes(file, "UTF-8")).separator()).as(file).isEqualTo(separator);
        }
    }

    @Test
    public void anEmptyFileIsPlainAndAFolderIsSaidToBeOne() throws IOException {
        assertThat(sniff(new byte[0]).encoding()).isEqualTo("UTF-8");
        Path folder = Files.createTempDirectory("mivrel");
        assertThatThrownBy(() -> new SurveyFile(folder, Answers.NONE).facts()).hasMessageContaining("folder");
        Files.delete(folder);
    }

    @Test
    public void rowsComeInTheEncodingThatWasTold() throws IOException {
        Path file = Files.createTempFile("mivrel", ".dat");
        Files.write(file, bytes("Müller|5\n", "windows-1252"));
        try (RowSource rows = new SurveyFile(file, Answers.NONE).open(look(file))) {
            assertThat(rows.next().text(0)).isEqualTo("Müller");
        }
        Files.write(file, "Müller|5\n".getBytes(StandardCharsets.UTF_8));
        try (RowSource rows = new SurveyFile(file, Answers.NONE).open(look(file))) {
            assertThat(rows.next().text(0)).isEqualTo("Müller");
        }
        Files.delete(file);
    }
}
