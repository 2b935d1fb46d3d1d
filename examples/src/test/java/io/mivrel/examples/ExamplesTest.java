package io.mivrel.examples;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Mivrel;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** Every example runs, on real files, and says what it should. */
public class ExamplesTest {
    private interface Program {
        void main(String[] args) throws Exception;
    }

    private static String output(Program program, Path folder) throws Exception {
        PrintStream before = System.out;
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (PrintStream out = new PrintStream(bytes, true, StandardCharsets.UTF_8)) {
            System.setOut(out);
            program.main(new String[] {folder.toString()});
        } finally {
            System.setOut(before);
        }
        return bytes.toString(StandardCharsets.UTF_8);
    }

    private static Path folder() throws IOException {
        return Files.createTempDirectory("mivrel example").resolve("larkmoor");
    }

    // As a user starts them: another process, an empty folder, no words.
    @Test
    public void eachExampleRunsByItself() throws Exception {
        Map<String, String> says = Map.of(
                "RunSheetExample", "4 journals would be held",
                "InCodeExample", "149 bank lines became journals in in-code-example",
                "StageByStageExample", "504 rows read",
                "OwnLedgerExample", "all taken back: 0 accounts have a balance, and the proof holds");
        Path empty = Files.createTempDirectory("mivrel example");
        assertThat(DemoData.EXAMPLES).hasSize(says.size());
        for (String example : DemoData.EXAMPLES) {
            Process process = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-Dfile.encoding=UTF-8",
                            "-cp",
                            System.getProperty("java.class.path"),
                            example)
                    .directory(empty.toFile())
                    .redirectErrorStream(true)
                    .start();
            String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(process.waitFor()).as(output).isZero();
            assertThat(output)
                    .contains("the demo data lies in ")
                    .contains(says.get(example.substring(example.lastIndexOf('.') + 1)));
        }
    }

    @Test
    public void samplesAreOfEachDeliveryAlsoWhenTheRunStartsOver() throws Exception {
        Path folder = folder();
        DemoData.unpack(folder);
        for (String sheet : DemoData.RUN_SHEETS) {
            Mivrel run = Mivrel.open(folder.resolve(sheet));
            assertThat(run.samples(3, 3))
                    .as(sheet)
                    .isNotEmpty()
                    .allSatisfy(sample -> assertThat(sample.lines()).hasSizeBetween(2, 4));
        }
        assertThat(folder.resolve("out")).doesNotExist();
    }

    @Test
    public void aRunSheetIsCheckedAndRun() throws Exception {
        Path folder = folder();
        assertThat(output(RunSheetExample::main, folder))
                .contains("4 journals would be held")
                .contains("504 rows = 490 clear + 13 held + 1 left out");
        try (Stream<Path> out = Files.list(folder.resolve("out"))) {
            assertThat(out).hasSize(2);
        }
    }

    @Test
    public void theSameIsSaidInCode() throws Exception {
        Path folder = folder();
        assertThat(output(InCodeExample::main, folder)).contains("149 bank lines became journals in ");
        try (Stream<Path> out = Files.list(folder.resolve("out"))) {
            assertThat(out).hasSize(1);
        }
    }

    @Test
    public void oneStageFollowsTheOther() throws Exception {
        assertThat(output(StageByStageExample::main, folder()))
                .contains("504 rows read, 503 records")
                .contains("137 journals, 133 without a finding");
    }

    @Test
    public void theListOfDemoFilesIsWhole() throws Exception {
        Path folder = folder();
        DemoData.unpack(folder);
        Path source = Path.of("src/main/resources/demo");
        try (Stream<Path> files = Files.walk(source)) {
            List<String> all = files.filter(Files::isRegularFile)
                    .map(f -> source.relativize(f).toString().replace('\\', '/'))
                    .filter(f -> !f.equals("files.txt"))
                    .toList();
            assertThat(all)
                    .isNotEmpty()
                    .allSatisfy(f -> assertThat(folder.resolve(f)).exists());
        }
    }
}
