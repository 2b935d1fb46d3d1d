package io.mivrel.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Frame;
import io.mivrel.delivery.PreparedFile;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.kinds.BankLines;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** Files appear whole or not at all, and nothing is overwritten. */
public class FolderOutletTest {
    private static Path folder() throws IOException {
        return Files.createTempDirectory("mivrel outlet").resolve("made when missing");
    }

    private static FolderOutlet outlet(Path folder, DeliveryFormat form) {
        Sheet sheet = new Sheet("", BankLines.DATE.level(), form, AmountFormat.plain(2), List.of(), Frame.NONE);
        return new FolderOutlet(
                folder, sheet, (text, part) -> DeliveryFormat.filled(text, "march", "2027-03-31", part));
    }

    private static void write(FolderOutlet outlet, int part, String... cells) throws IOException {
        try (RowWriter writer = outlet.open(part)) {
            for (String cell : cells) {
                byte[] bytes = cell.getBytes(StandardCharsets.UTF_8);
                writer.cell(bytes, 0, bytes.length);
            }
            writer.endRow();
        }
    }

    private static List<String> names(Path folder) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(f -> f.getFileName().toString()).sorted().toList();
        }
    }

    @Test
    public void nothingIsSeenBeforePublishing() throws IOException {
        Path folder = folder();
        FolderOutlet outlet = outlet(folder, DeliveryFormat.csv("{run}-{part}.csv"));
        write(outlet, 1, "a", "b");
        write(outlet, 2, "c", "d");
        assertThat(names(folder)).allMatch(name -> name.startsWith("."));
        assertThat(outlet.prepare())
                .extracting(PreparedFile::name)
                .containsExactly(
                        folder.resolve("march-1.csv").toString(),
                        folder.resolve("march-2.csv").toString());
        assertThat(names(folder)).allMatch(name -> name.startsWith("."));
        outlet.publish();
        assertThat(names(folder)).hasSize(4);
        outlet.release();
        assertThat(names(folder)).containsExactly("march-1.csv", "march-2.csv");
        assertThat(folder.resolve("march-1.csv")).hasContent("a,b");
    }

    @Test
    public void aTakenNameGetsANumber() throws IOException {
        Path folder = folder();
        Files.createDirectories(folder);
        Files.writeString(folder.resolve("march.csv"), "mine");
        FolderOutlet outlet = outlet(folder, DeliveryFormat.csv("{run}.csv"));
        write(outlet, 1, "a");
        outlet.prepare();
        // One more name is taken between choosing it and giving it.
        Files.writeString(folder.resolve("march-2.csv"), "mine too");
        assertThat(outlet.publish())
                .extracting(PreparedFile::name)
                .containsExactly(folder.resolve("march-3.csv").toString());
        assertThat(folder.resolve("march-3.csv")).hasContent("a");
        assertThat(folder.resolve("march-2.csv")).hasContent("mine too");
        assertThat(folder.resolve("march.csv")).hasContent("mine");
    }

    @Test
    public void discardingLeavesNothing() throws IOException {
        Path folder = folder();
        FolderOutlet outlet = outlet(folder, DeliveryFormat.csv("{run}.csv"));
        write(outlet, 1, "a");
        outlet.prepare();
        outlet.discard();
        assertThat(names(folder)).isEmpty();
    }

    @Test
    public void twoAtOnceNeverTakeTheSameName() throws Exception {
        Path folder = folder();
        CountDownLatch start = new CountDownLatch(1);
        var pool = Executors.newFixedThreadPool(4);
        for (int i = 0; i < 4; i++) {
            String content = "run " + i;
            pool.submit(() -> {
                FolderOutlet outlet = outlet(folder, DeliveryFormat.csv("{run}.csv"));
                write(outlet, 1, content);
                outlet.prepare();
                start.await();
                outlet.publish();
                outlet.release();
                return null;
            });
        }
        start.countDown();
        pool.shutdown();
        assertThat(pool.awaitTermination(30, java.util.concurrent.TimeUnit.SECONDS))
                .isTrue();
        assertThat(names(folder)).containsExactly("march-2.csv", "march-3.csv", "march-4.csv", "march.csv");
        for (int i = 0; i < 4; i++) {
            String content = "run " + i;
            assertThat(names(folder))
                    .anySatisfy(name -> assertThat(folder.resolve(name)).hasContent(content));
        }
    }

    @Test
    public void everyTextReadsBackAsItWas() throws IOException {
        String[] cells = {
            "", " a ", "x,y", "\"", "a\"\"b", "two\r\nlines", "été € £", "-5", "\t", "x".repeat(70_000) + "\""
        };
        for (String encoding : List.of("UTF-8", "windows-1252", "UTF-16LE")) {
            for (boolean quoteAll : new boolean[] {true, false}) {
                for (char separator : new char[] {',', ';', '\t', '|'}) {
                    DeliveryFormat form = new DeliveryFormat(
                            separator, encoding, "\n", encoding.startsWith("UTF"), false, quoteAll, 0, "{run}.csv");
                    FolderOutlet outlet = outlet(folder(), form);
                    write(outlet, 1, cells);
                    try (RowSource rows = outlet.readBack(1)) {
                        Row row = rows.next();
                        for (int i = 0; i < cells.length; i++) {
                            assertThat(row.text(i)).isEqualTo(cells[i]);
                        }
                        assertThat(rows.next()).isNull();
                    }
                }
            }
        }
    }

    @Test
    public void aCharacterThatCannotBeWrittenIsNoQuestionMark() throws IOException {
        DeliveryFormat form = new DeliveryFormat(',', "windows-1252", "\n", false, false, false, 0, "{run}.csv");
        FolderOutlet outlet = outlet(folder(), form);
        assertThat(Charset.forName("windows-1252").newEncoder().canEncode("Ł")).isFalse();
        assertThatThrownBy(() -> write(outlet, 1, "Łódź")).isInstanceOf(CharacterCodingException.class);
    }
}
