package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.SourceFiles;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.Unproved;
import io.mivrel.kinds.BankLines;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.RowSource;
import io.mivrel.survey.Answers;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.Proposal;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/**
 * Breaks statements on purpose, row by row: one digit changed, a row dropped, doubled, its sign turned. Each must be held, or
 * the row must be among those that are counted as not proved by anything.
 */
public final class MutationTest {
    private static final int COUNT = Integer.getInteger("mivrel.mutated", 24);
    private static final long SEED = Long.getLong("mivrel.seed", 20);

    /** What one reading, as a run makes it, came to. */
    private record Read(boolean held, Unproved unproved, long records) {}

    @Test
    public void noMutationGoesOutUnderAProof() throws Exception {
        List<String> untold = new ArrayList<>();
        long rows = 0;
        long proved = 0;
        long mutations = 0;
        for (StrangeStatements.Statement statement : StrangeStatements.make(SEED, COUNT)) {
            Path file = new Workshop()
                    .put(statement.name(), statement.bytes())
                    .folder
                    .resolve(statement.name());
            FileSurvey survey = FileSurvey.of(
                    file,
                    statement.name(),
                    new Answers(java.util.Map.of("currency", statement.currency())),
                    io.mivrel.run.Progress.NONE);
            Layout layout = Proposal.layout(survey.survey());
            SourceFile source =
                    SourceFile.of(statement.name(), survey.survey().facts().currency());
            Read sound = read(file, layout, source);
            assertThat(sound.held).as(statement.name() + ": " + survey.text()).isFalse();
            rows += sound.records;
            proved += sound.records - sound.unproved.rows();
            Charset charset = Charset.forName(survey.survey().facts().encoding());
            List<String> lines =
                    Arrays.asList(new String(Files.readAllBytes(file), charset).split("(?<=\n)|(?<=\r)(?!\n)", -1));
            for (StrangeStatements.Line line : statement.lines()) {
                int at = (int) line.row() - 1;
                for (String way : List.of("digit", "dropped", "doubled", "sign")) {
                    List<String> other = new ArrayList<>(lines);
                    String changed = changed(lines.get(at), way, survey);
                    // That the last movement is missing shows only where the file states how it ends.
                    boolean end = line == statement.lines().get(0)
                            || line == statement.lines().get(statement.lines().size() - 1);
                    if (changed == null || way.equals("dropped") && end) {
                        continue;
                    }
                    other.set(at, changed);
                    Files.write(file, String.join("", other).getBytes(charset));
                    mutations++;
                    Read read = read(file, layout, source);
                    if (!read.held && read.unproved.equals(sound.unproved)) {
                        untold.add(statement.name() + " (" + statement.what() + ") row " + line.row() + " " + way);
                    }
                }
            }
        }
        System.out.printf(
                Locale.ROOT,
                "%,d mutations of %d statements; %d of 100 rows lie under a proof%n",
                mutations,
                COUNT,
                proved * 100 / rows);
        assertThat(untold).isEmpty();
        assertThat(mutations).isGreaterThan(COUNT * 20L);
    }

    private static Read read(Path file, Layout layout, SourceFile source) throws Exception {
        boolean held = false;
        IntakeTally earlier = null;
        for (int pass = 0; pass < 2; pass++) {
            List<Finding> findings = new ArrayList<>();
            try (RowSource rows = SourceFiles.open(file, source.name(), layout)) {
                Intake intake = new Intake(layout, source, rows);
                if (earlier != null) {
                    intake.holdFoundLate(earlier);
                }
                boolean more = true;
                while (more) {
                    IntakeBlock block = intake.newBlock();
                    more = intake.fill(block);
                    findings.addAll(block.findings());
                }
                earlier = intake.tally();
            }
            held = earlier.failed() || findings.stream().anyMatch(Finding::blocks);
            if (!earlier.foundLate()) {
                break;
            }
        }
        return new Read(held, Objects.requireNonNull(earlier).unproved(), earlier.records());
    }

    // The row as it stands after the mutation; null when the mutation does not apply to it.
    private static String changed(String row, String way, FileSurvey survey) {
        if (way.equals("dropped")) {
            return "";
        }
        if (way.equals("doubled")) {
            return row.endsWith("\n") || row.endsWith("\r") ? row + row : null;
        }
        List<Integer> places = Stream.of(BankLines.AMOUNT, BankLines.MONEY_IN, BankLines.MONEY_OUT)
                .map(field -> survey.survey().fields().get(field))
                .filter(Objects::nonNull)
                .map(ColumnSurvey::place)
                .collect(Collectors.toList());
        char separator = survey.survey().facts().separator();
        int cell = 1;
        boolean quoted = false;
        int start = 0;
        for (int i = 0; i <= row.length(); i++) {
            char c = i < row.length() ? row.charAt(i) : separator;
            quoted ^= c == '"';
            if (c == separator && !quoted) {
                String text = row.substring(start, i);
                if (places.contains(cell) && text.chars().anyMatch(d -> d >= '1' && d <= '9')) {
                    String other = way.equals("digit") ? digit(text) : sign(text);
                    return other == null ? null : row.substring(0, start) + other + row.substring(i);
                }
                cell++;
                start = i + 1;
            }
        }
        return null;
    }

    private static String digit(String text) {
        for (int i = text.length() - 1; i >= 0; i--) {
            char c = text.charAt(i);
            if (c >= '1' && c <= '8') {
                return text.substring(0, i) + (char) (c + 1) + text.substring(i + 1);
            }
        }
        return null;
    }

    private static String sign(String text) {
        for (String minus : List.of("-", "\u2212")) {
            if (text.contains(minus)) {
                return text.replace(minus, "");
            }
        }
        return text.matches("\\d[\\d.,' ]*") ? "-" + text : null;
    }
}
