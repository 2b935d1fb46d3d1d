package io.mivrel.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.ss.usermodel.Row;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/**
 * What of the optional libraries is not there: Mivrel does without it, or says what is missing and delivers nothing. Each
 * test starts the command with the class path of these tests less some jars.
 */
public class WithoutLibrariesTest {
    private Path folder;

    @BeforeMethod
    public void freshDemo() throws Exception {
        folder = ProcessTest.demo();
    }

    private int run(String lacking, Map<String, String> environment, String... words) throws Exception {
        String path = Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .filter(jar ->
                        !jar.substring(jar.lastIndexOf(File.separatorChar) + 1).matches(lacking))
                .collect(Collectors.joining(File.pathSeparator));
        assertThat(path).hasSizeLessThan(System.getProperty("java.class.path").length());
        Process process = ProcessTest.start(folder, path, environment, words);
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).as("ends in time").isTrue();
        return process.exitValue();
    }

    private String said() throws IOException {
        String said = Files.readString(folder.resolve("stdout.txt")) + Files.readString(folder.resolve("stderr.txt"));
        assertThat(said).doesNotContain("\tat ", "NoClassDefFoundError", "ClassNotFoundException");
        return said;
    }

    private List<Path> files(String ending) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(f -> f.toString().endsWith(ending) && !f.startsWith(folder.resolve("inbox")))
                    .toList();
        }
    }

    @Test
    public void heldRowsStandInTheTextCopyAlone() throws Exception {
        assertThat(run("fastexcel.*", Map.of(), "run", "invoices.yaml")).isEqualTo(1);
        assertThat(files(".xlsx")).isEmpty();
        assertThat(said())
                .containsPattern("held rows, with what is wrong beside them: \\S+held.invoices-2027-03.csv")
                .contains("or in a copy in the folder corrections");
        List<Path> copies = files("invoices-2027-03.csv");
        assertThat(copies).hasSize(1);

        // A correction of the text copy is taken in all the same.
        String held = Files.readString(copies.get(0));
        assertThat(held).contains(";5700;");
        Files.createDirectories(folder.resolve("corrections"));
        Files.writeString(folder.resolve("corrections/invoices.csv"), held.replace(";5700;", ";5070;"));
        assertThat(run("fastexcel.*", Map.of(), "run", "invoices.yaml")).isEqualTo(1);
        assertThat(said()).doesNotContain("5700").contains("taken in    1 correction");
    }

    @Test
    public void withoutARegisterNothingIsDelivered() throws Exception {
        assertThat(run("sqlite.*", Map.of(), "run", "invoices.yaml")).isEqualTo(3);
        assertThat(said()).contains("there is no driver for it; add io.mivrel:mivrel-extras to the class path");
        assertThat(ProcessTest.delivered(folder)).isEmpty();
        assertThat(run("sqlite.*", Map.of(), "check", "invoices.yaml")).isEqualTo(1);
        assertThat(said()).contains("5700");
        Map<String, String> onServer = Map.of("MIVREL_REGISTER_URL", "jdbc:postgresql://localhost/none");
        assertThat(run("postgresql.*", onServer, "run", "invoices.yaml")).isEqualTo(3);
        assertThat(said()).contains("there is no driver for it");
        assertThat(ProcessTest.delivered(folder)).isEmpty();
    }

    @Test
    public void anOldWorkbookIsRefusedWithWhatToAdd() throws Exception {
        try (HSSFWorkbook book = new HSSFWorkbook();
                OutputStream out = Files.newOutputStream(folder.resolve("old.xls"))) {
            Row titles = book.createSheet("March").createRow(0);
            titles.createCell(0).setCellValue("Date");
            titles.createCell(1).setCellValue("Amount");
            book.write(out);
        }
        assertThat(run("poi.*", Map.of(), "survey", "old.xls")).isEqualTo(3);
        assertThat(said()).contains("old.xls").contains("io.mivrel:mivrel-extras");
    }

    @Test
    public void whatIsWrittenInXmlIsRefusedWithWhatToAdd() throws Exception {
        String xml = "(woodstox|stax2).*";
        for (String file : List.of("inbox/payroll-2027-03.xlsx", "inbox/euro-2027-03.xml")) {
            assertThat(run(xml, Map.of(), "survey", file)).isEqualTo(3);
            assertThat(said()).contains(file.substring("inbox/".length())).contains("io.mivrel:mivrel-extras");
        }
        for (String sheet : List.of("payroll.yaml", "euro.yaml")) {
            assertThat(run(xml, Map.of(), "run", sheet)).as(sheet).isEqualTo(1);
            assertThat(said()).contains("[file-kind-differs]").contains("io.mivrel:mivrel-extras");
        }
        assertThat(ProcessTest.delivered(folder)).isEmpty();
    }
}
