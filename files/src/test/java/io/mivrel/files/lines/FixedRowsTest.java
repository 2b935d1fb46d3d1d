package io.mivrel.files.lines;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** Lines cut at fixed places: compared with cutting strings, on lines made at random. */
public class FixedRowsTest {
    private static final String CHARACTERS = "     ab1,.-\t\0\u00e4\u00a0\u20ac";

    private static String line(Random random, int kinds) {
        StringBuilder line = new StringBuilder();
        int length = random.nextInt(50);
        for (int i = 0; i < length; i++) {
            line.append(CHARACTERS.charAt(random.nextInt(kinds)));
        }
        return line.toString();
    }

    private static String cut(String line, int from, int to) {
        return line.substring(Math.min(from, line.length()), Math.min(to, line.length()));
    }

    private static boolean isBlank(String text) {
        return text.chars().allMatch(c -> c <= ' ' || c == '\u00a0');
    }

    @Test
    public void linesAreCutAsStringsAre() throws Exception {
        Random random = new Random(8);
        List<Slice> slices = List.of(new Slice("a", 2, 5), new Slice("b", 6, 13), new Slice("c", 20, 33));
        int between = 0;
        int nul = 0;
        for (int round = 0; round < 300; round++) {
            // The first kinds of characters are blanks and ASCII, then come tabs, then NUL, then all others.
            int kinds = new int[] {5, 11, 12, 13, CHARACTERS.length()}[random.nextInt(5)];
            List<String> lines = new ArrayList<>();
            StringBuilder file = new StringBuilder("beginning of the file\n".repeat(300));
            for (int i = 0; i < 200; i++) {
                lines.add(line(random, kinds));
                file.append(lines.get(i)).append(new String[] {"\n", "\r\n", "\r"}[round % 3]);
            }
            byte[] bytes = file.toString().getBytes(StandardCharsets.UTF_8);
            try (FixedRows rows = new FixedRows(TextLines.of(new ByteArrayInputStream(bytes), "UTF-8"), slices)) {
                for (int i = 0; i < 300; i++) {
                    rows.next();
                }
                for (String line : lines) {
                    Row row = rows.next();
                    assertThat(row.text(0)).isEqualTo(cut(line, 1, 5));
                    assertThat(row.text(1)).isEqualTo(cut(line, 5, 13));
                    assertThat(row.text(2)).isEqualTo(cut(line, 19, 33));
                    assertThat(row.text(3)).isEqualTo(line);
                    boolean stray = !isBlank(cut(line, 0, 1) + cut(line, 13, 19) + cut(line, 33, 99));
                    assertThat(row.placeBetween() > 0).as(line).isEqualTo(stray);
                    assertThat(row.fault() == RowFault.NUL).as(line).isEqualTo(line.indexOf('\0') >= 0);
                    between += stray ? 1 : 0;
                    nul += row.fault() == null ? 0 : 1;
                }
                assertThat(rows.next()).isNull();
            }
        }
        assertThat(between).isBetween(20_000, 55_000);
        assertThat(nul).isBetween(10_000, 30_000);
    }
}
