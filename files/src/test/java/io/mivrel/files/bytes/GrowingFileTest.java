package io.mivrel.files.bytes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.zip.CRC32C;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Who follows a file gets every byte that was written, in its order, and the end when there is one. */
public class GrowingFileTest {
    private Path folder;

    @BeforeClass
    public void newFolder() throws IOException {
        folder = Files.createTempDirectory("mivrel followed");
    }

    private static byte[] bytes(int size) {
        byte[] bytes = new byte[size];
        new Random(size).nextBytes(bytes);
        return bytes;
    }

    private static CompletableFuture<byte[]> follow(GrowingFile followed) {
        return CompletableFuture.supplyAsync(() -> {
            try (InputStream in = followed.input()) {
                return in.readAllBytes();
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        });
    }

    @DataProvider
    public Object[][] sizes() {
        // The last is forced to the disk on its way.
        return new Object[][] {
            {0, 1}, {1, 1}, {70_000, 7}, {600_000, 65_536}, {1_100_000, 1 << 20}, {80_000_000, 65_536}
        };
    }

    @Test(dataProvider = "sizes", timeOut = 120_000)
    public void everythingIsReadWhileItIsWritten(int size, int atOnce) throws Exception {
        GrowingFile followed = new GrowingFile(folder.resolve("file-" + size));
        byte[] meant = bytes(size);
        CompletableFuture<byte[]> read;
        try (OutputStream out = followed.output()) {
            read = follow(followed);
            for (int from = 0; from < size; from += atOnce) {
                out.write(meant, from, Math.min(atOnce, size - from));
            }
        }
        assertThat(read.get()).isEqualTo(meant);
        CRC32C checksum = new CRC32C();
        checksum.update(meant);
        assertThat(followed.checksum()).isEqualTo(checksum.getValue());
        assertThat(Files.size(folder.resolve("file-" + size))).isEqualTo(size);
    }

    @Test(timeOut = 60_000)
    public void aFileReadInPartHasNoChecksum() throws Exception {
        GrowingFile followed = new GrowingFile(folder.resolve("part"));
        try (OutputStream out = followed.output()) {
            out.write(bytes(1000));
        }
        try (InputStream in = followed.input()) {
            assertThat(in.readNBytes(999)).hasSize(999);
        }
        assertThat(followed.checksum()).isNull();
    }

    @Test(timeOut = 60_000)
    public void whatWasTakenFromTheFileIsNoticed() throws Exception {
        Path file = folder.resolve("cut");
        GrowingFile followed = new GrowingFile(file);
        try (OutputStream out = followed.output()) {
            out.write(bytes(5000));
        }
        Files.write(file, bytes(100));
        try (InputStream in = followed.input()) {
            assertThatThrownBy(in::readAllBytes)
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("shorter than what was written");
        }
    }

    @Test
    public void aFileThatIsThereIsNeverWrittenOver() throws Exception {
        Path file = Files.writeString(folder.resolve("taken"), "somebody's");
        assertThatThrownBy(() -> new GrowingFile(file).output()).isInstanceOf(FileAlreadyExistsException.class);
        assertThat(file).hasContent("somebody's");
    }
}
