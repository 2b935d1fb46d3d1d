package io.mivrel.drafting;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Sources;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceRecord;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/** Lines with one reference end up in one document, however far apart they stand. */
public class GroupingTest {
    private final List<List<SourceRecord>> groups = new ArrayList<>();

    private static SourceRecord line(String file, String reference, long row) {
        return SourceRecord.builder(JournalLines.TABLE, Sources.file(file), row)
                .put(JournalLines.REFERENCE, reference)
                .put(JournalLines.DATE, 20_000 + row)
                .put(JournalLines.NARRATIVE, "été \u2013 " + row)
                .put(JournalLines.AMOUNT, row * 100)
                .build(row % 7 != 0);
    }

    // Batches of a few records each, so that groups go over their ends.
    private static List<RecordBlock> batches(List<SourceRecord> records) {
        List<RecordBlock> batches = new ArrayList<>();
        for (SourceRecord record : records) {
            RecordBlock last = batches.isEmpty() ? null : batches.get(batches.size() - 1);
            if (last == null || last.isFull() || !last.source().name().equals(record.file())) {
                last = new RecordBlock(JournalLines.TABLE, Sources.file(record.file()), 1 + batches.size() % 7);
                batches.add(last);
            }
            last.begin(record.row());
            last.put(JournalLines.REFERENCE, record.text(JournalLines.REFERENCE));
            last.put(JournalLines.NARRATIVE, record.text(JournalLines.NARRATIVE));
            last.put(JournalLines.DATE, record.number(JournalLines.DATE));
            last.put(JournalLines.AMOUNT, record.number(JournalLines.AMOUNT));
            last.end(record.isValid());
        }
        return batches;
    }

    private List<List<SourceRecord>> group(List<SourceRecord> records) throws IOException {
        Grouping.Target target = (group, stand) -> groups.add(List.copyOf(group));
        groups.clear();
        Grouping grouping = new Grouping(JournalLines.TABLE, JournalLines.REFERENCE, target);
        while (true) {
            batches(records).forEach(grouping::accept);
            grouping.finish();
            grouping.close();
            if (!grouping.mustStartOver()) {
                return groups;
            }
            groups.clear();
            grouping = grouping.nextPass(target);
        }
    }

    private static String shape(List<List<SourceRecord>> groups) {
        StringBuilder shape = new StringBuilder();
        for (List<SourceRecord> group : groups) {
            shape.append(group.get(0).text(JournalLines.REFERENCE));
            group.forEach(r -> shape.append(' ').append(r.row()));
            shape.append('\n');
        }
        return shape.toString();
    }

    @Test
    public void neighboursAreOneGroup() throws IOException {
        List<SourceRecord> records = List.of(line("f", "A", 2), line("f", "A", 3), line("f", "B", 4));
        assertThat(shape(group(records))).isEqualTo("A 2 3\nB 4\n");
    }

    @Test
    public void aReferenceThatComesBackIsStillOneGroup() throws IOException {
        List<SourceRecord> records =
                List.of(line("f", "A", 2), line("f", "B", 3), line("f", "A", 4), line("f", "C", 5), line("f", "A", 6));
        assertThat(shape(group(records))).isEqualTo("B 3\nC 5\nA 2 4 6\n");
    }

    @Test
    public void theSameReferenceInAnotherFileIsAnotherGroup() throws IOException {
        List<SourceRecord> records = List.of(line("f", "A", 2), line("g", "A", 2));
        assertThat(group(records)).hasSize(2);
    }

    @Test
    public void aReferenceInEveryRowIsCutIntoPartsThatFitInMemory() throws IOException {
        List<Grouping.Stand> stands = new ArrayList<>();
        long rows = 0;
        for (int other = 0; other < 2; other++) {
            stands.clear();
            Grouping.Target target = (group, stand) -> stands.add(stand);
            Grouping grouping = new Grouping(JournalLines.TABLE, JournalLines.REFERENCE, target);
            boolean again = true;
            while (again) {
                stands.clear();
                List<SourceRecord> lines = new ArrayList<>();
                for (int row = 0; row < 2 * Grouping.MOST_LINES + 10; row++) {
                    // The second time every line stands apart from the next of its document.
                    lines.add(line("f", other == 0 ? "A" : row % 2 == 0 ? "A" : "B", row));
                    rows++;
                }
                batches(lines).forEach(grouping::accept);
                grouping.finish();
                grouping.close();
                again = grouping.mustStartOver();
                grouping = grouping.nextPass(target);
            }
            assertThat(stands).hasSize(other == 0 ? 3 : 4).containsOnly(Grouping.Stand.TOO_MANY);
        }
        assertThat(rows).isEqualTo(3L * (2 * Grouping.MOST_LINES + 10));
    }

    @Test
    public void aRecordWithoutReferenceStandsAlone() throws IOException {
        List<SourceRecord> records = List.of(line("f", "A", 2), line("f", null, 3), line("f", "A", 4));
        assertThat(group(records)).hasSize(2);
    }

    @Test
    public void aFileInAnyOrderLosesNothingAndKeepsEveryValue() throws IOException {
        List<SourceRecord> records = new ArrayList<>();
        for (int row = 1; row <= 60_000; row++) {
            records.add(line("f", "R" + row % 20_000, row));
        }
        Collections.shuffle(records, new Random(3));
        Set<Long> rows = new LinkedHashSet<>();
        for (List<SourceRecord> group : group(records)) {
            assertThat(group).hasSize(3);
            for (SourceRecord record : group) {
                assertThat(record.text(JournalLines.REFERENCE))
                        .isEqualTo(group.get(0).text(JournalLines.REFERENCE));
                assertThat(record.number(JournalLines.AMOUNT)).isEqualTo(record.row() * 100);
                assertThat(record.text(JournalLines.NARRATIVE)).isEqualTo("été \u2013 " + record.row());
                assertThat(record.isValid()).isEqualTo(record.row() % 7 != 0);
                rows.add(record.row());
            }
        }
        assertThat(rows).hasSize(60_000);
    }

    @Test
    public void groupsTakenManyAtATimeAreThoseTakenOneByOne() throws IOException {
        Random random = new Random(6);
        List<SourceRecord> records = new ArrayList<>();
        for (int row = 1; row <= 5_000; row++) {
            // Runs of one to four lines, some of them blank, some of a reference that stood before.
            int run = row / (1 + row % 4);
            String reference = row % 50 == 0 ? null : "R" + (random.nextInt(40) == 0 ? run / 2 : run);
            records.add(line(row < 2_500 ? "f" : "g", reference, row));
        }
        String oneByOne = shape(group(records));
        groups.clear();
        int[] calls = new int[2];
        Grouping.Target target = new Grouping.Target() {
            @Override
            public void group(RecordRange group, Grouping.Stand stand) {
                calls[0]++;
                groups.add(List.copyOf(group));
            }

            @Override
            public void groups(RecordBlock batch, int[] bounds, int count) {
                calls[1]++;
                for (int i = 0; i < count; i++) {
                    assertThat(bounds[i]).isLessThan(bounds[i + 1]);
                    groups.add(List.copyOf(batch.range(bounds[i], bounds[i + 1])));
                }
            }
        };
        Grouping grouping = new Grouping(JournalLines.TABLE, JournalLines.REFERENCE, target);
        boolean again = true;
        while (again) {
            groups.clear();
            batches(records).forEach(grouping::accept);
            grouping.finish();
            grouping.close();
            again = grouping.mustStartOver();
            grouping = grouping.nextPass(target);
        }
        assertThat(shape(groups)).isEqualTo(oneByOne);
        assertThat(groups.stream().mapToInt(List::size).sum()).isEqualTo(5_000);
        assertThat(calls[0]).isPositive();
        assertThat(calls[1]).isPositive();
    }
}
