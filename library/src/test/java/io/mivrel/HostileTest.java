package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** Files that nobody should send: always findings, never an exception, in bounded memory, and the counts close. */
public class HostileTest {
    private static final String LINE = "1,01/03/2027,5010,\"tin,1.00,,,\n";

    private static RunReport run(Workshop workshop) throws Exception {
        RunReport report = workshop.run("journal").report();
        assertThat(report.rowsRead())
                .isEqualTo(report.clear().rows() + report.held().rows() + report.rowsLeftOut());
        return report;
    }

    private static Workshop written(int times, String... lines) throws IOException {
        Workshop workshop = new Workshop().journal("");
        try (BufferedWriter out = Files.newBufferedWriter(workshop.folder.resolve("journal.csv"))) {
            out.write(Workshop.JOURNAL_TITLES);
            for (int i = 0; i < times; i++) {
                out.write(lines[i % lines.length]);
            }
        }
        return workshop;
    }

    @Test
    public void aQuoteOpenInEveryRow() throws Exception {
        RunReport report = run(written(50_000, LINE));
        assertThat(report.held().rows()).isEqualTo(50_000);
        assertThat(report.findings().counts()).containsEntry(Rule.QUOTE_UNCLOSED, 50_000L);
    }

    @Test
    public void aMillionEmptyRows() throws Exception {
        RunReport report = run(written(1_000_000, ",,,,,,,\n", "\n", " , \n".repeat(1)));
        assertThat(report.clear().rows()).isZero();
        assertThat(report.rowsLeftOut()).isEqualTo(1_000_001);
    }

    @Test
    public void everyReferenceInterleavedWithEveryOther() throws Exception {
        StringBuilder file = new StringBuilder(Workshop.JOURNAL_TITLES);
        for (int side = 0; side < 2; side++) {
            for (int voucher = 0; voucher < 30_000; voucher++) {
                String amount = side == 0 ? "1.00,," : ",1.00,";
                file.append(voucher)
                        .append(",01/03/2027,5010,tin,")
                        .append(amount)
                        .append(",\n");
            }
        }
        List<String> before = leftBehind();
        RunReport report = run(new Workshop().put("journal.csv", file.toString()));
        // The lines waited on disk, and they are somebody's books.
        assertThat(leftBehind()).isEqualTo(before);
        assertThat(report.clear().documents()).isEqualTo(30_000);
        assertThat(report.held().documents()).isZero();
        assertThat(report.findings().counts()).containsEntry(Rule.REFERENCE_RETURNS, 30_000L);
    }

    private static List<String> leftBehind() throws IOException {
        try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return all.map(p -> p.getFileName().toString())
                    .filter(n -> n.matches("mivrel-[0-9]+"))
                    .sorted()
                    .toList();
        }
    }

    @Test
    public void everyRowWithAnotherKindOfNonsense() throws Exception {
        Random random = new Random(9);
        StringBuilder file = new StringBuilder(Workshop.JOURNAL_TITLES);
        String marks = ",;\"'\n\r\t \0\u00a0€é(-)=+@0123456789/.:%$£";
        for (int i = 0; i < 400_000; i++) {
            file.append(marks.charAt(random.nextInt(marks.length())));
        }
        RunReport report = run(new Workshop().put("journal.csv", file.toString(), StandardCharsets.UTF_8));
        assertThat(report.clear().rows()).isZero();
        assertThat(report.hasHeld()).isTrue();
    }

    @Test
    public void namesThatClimbOutOfTheFolder() throws Exception {
        Workshop workshop = new Workshop().journal("");
        workshop.replace("journal.yaml", "run: journal", "run: \"../../etc/passwd\"");
        workshop.run("journal");
        assertThat(workshop.names("evidence")).containsExactly("etc-passwd-2027-04-02");
        assertThat(workshop.folder.getParent().resolve("etc")).doesNotExist();
    }

    @Test
    public void textsThatLookLikeMarkupOrCommands() throws Exception {
        String text = "\"<script>$(rm -rf /)'; DROP TABLE delivered; --\u001b[31m\"";
        RunReport report =
                run(new Workshop().journal("1,01/03/2027,5010," + text + ",1.00,,,\n1,01/03/2027,2100,x,,1.00,,\n"));
        assertThat(report.clear().documents()).isEqualTo(1);
        assertThat(report.findings().worstFirst())
                .allSatisfy(f -> assertThat(f.value()).doesNotContain("\u001b"));
    }
}
