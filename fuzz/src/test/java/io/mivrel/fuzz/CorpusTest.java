package io.mivrel.fuzz;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every input that a fuzzer ever broke a reader with, and the seeds that it began from, are read again. */
public class CorpusTest {
    private static final Path CORPUS = Path.of("corpus");

    @DataProvider
    public static Iterator<Object[]> inputs() throws IOException {
        List<Object[]> inputs = new ArrayList<>();
        for (Target target : Target.values()) {
            Path folder = CORPUS.resolve(target.name().toLowerCase(Locale.ROOT));
            try (Stream<Path> files = Files.list(folder)) {
                files.sorted().forEach(file -> inputs.add(new Object[] {target, file}));
            }
        }
        return inputs.iterator();
    }

    @Test(dataProvider = "inputs", timeOut = 60_000)
    public void isReadOrRefusedInWords(Target target, Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        target.read(bytes);
        assertThat(bytes).isNotEmpty();
    }

    @Test
    public void everyReaderHasSeeds() throws IOException {
        assertThat(inputs()).toIterable().extracting(input -> input[0]).contains((Object[]) Target.values());
    }
}
