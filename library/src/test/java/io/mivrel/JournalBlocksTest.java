package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Plain journals are sorted by the block, all others one by one. A run that keeps its documents makes an object of each: both
 * ways must come to the same, whatever stands in the file.
 */
public class JournalBlocksTest {
    private static final String[] TEXTS = {"tin", "tin, \"best\"", "=tin", "été", "", "a text that is too long to keep"
    };

    /** The lines of some vouchers with every fault, among many good ones. */
    private static List<String> lines(long seed, int vouchers) {
        Random random = new Random(seed);
        List<String> lines = new ArrayList<>();
        for (int v = 1; v <= vouchers; v++) {
            voucher(v, random, lines);
        }
        return lines;
    }

    private static void voucher(int number, Random random, List<String> lines) {
        int fault = random.nextInt(60);
        String reference = fault == 1 ? "" : "V" + number;
        String day = fault == 2 ? "31/12/2026" : fault == 3 ? "31/02/2027" : "0" + (1 + number % 9) + "/03/2027";
        int size = number % 500 == 0 ? 1500 : 2 + random.nextInt(4);
        long sum = 0;
        for (int i = 1; i < size; i++) {
            long amount = 1 + random.nextInt(1 << random.nextInt(20));
            sum += amount;
            String account = fault == 4 ? "5011" : fault == 5 ? "6215" : "5010";
            String tax = fault == 6 ? "STDD" : random.nextInt(3) == 0 ? "STD" : "";
            String party = fault == 7 ? "SUP-01" : random.nextInt(3) == 0 ? "SUP-001" : "";
            lines.add(reference + "," + day + "," + account + "," + text(random) + "," + shown(amount) + ",," + tax
                    + "," + party);
        }
        String last = fault == 8 ? "09/04/2027" : day;
        lines.add(reference + "," + last + ",4000,," + "," + shown(fault == 9 ? sum + 100 : sum) + ",,");
    }

    private static String text(Random random) {
        String text = TEXTS[random.nextInt(4) == 0 ? random.nextInt(TEXTS.length) : 0];
        return text.contains(",") ? '"' + text.replace("\"", "\"\"") + '"' : text;
    }

    private static String shown(long amount) {
        return String.format(Locale.ROOT, "%d.%02d", amount / 100, amount % 100);
    }

    private static Workshop workshop(List<String> lines, String encoding) {
        Workshop workshop = new Workshop();
        workshop.put("journals.yaml", """
                delivery: Journals
                takes: journals
                file: {name: "journals-{run}-{date}-{part}.csv", encoding: %s, line ends: LF}
                columns:
                  Reference: {field: reference}
                  Date:      {field: date, pattern: uuuu-MM-dd}
                  Account:   {field: account}
                  Text:      {field: narrative, at most: 20}
                  Party:     {field: party}
                  Amount:    {field: amount}
                """.formatted(encoding));
        return file(workshop, lines);
    }

    private static Workshop file(Workshop workshop, List<String> lines) {
        return workshop.journal(String.join("\n", lines) + "\n");
    }

    private static RunReport oneByOne(Workshop workshop) throws Exception {
        return workshop.open("journal").keepDocuments(1_000_000).run().report();
    }

    private static void assertSame(RunReport blocks, RunReport single) {
        assertThat(figures(blocks)).isEqualTo(figures(single));
        assertThat(blocks.findings().worstFirst()).isEqualTo(single.findings().worstFirst());
        assertThat(blocks.findings().counts()).isEqualTo(single.findings().counts());
        assertThat(blocks.heldRows().get("journal.csv").rows())
                .isEqualTo(single.heldRows().get("journal.csv").rows());
    }

    private static String figures(RunReport report) {
        return "rows " + report.rowsRead() + ", clear " + report.clear().documents() + " "
                + report.clear().totals() + " " + report.clear().firstDate() + " "
                + report.clear().lastDate() + ", held "
                + report.held().documents() + " " + report.held().totals() + ", before "
                + report.before().documents() + " " + report.before().totals();
    }

    private static void assertSameFiles(Workshop blocks, Workshop single, int files) throws Exception {
        assertThat(blocks.names("out")).hasSize(files).isEqualTo(single.names("out"));
        for (String name : blocks.names("out")) {
            assertThat(blocks.bytes("out/" + name)).isEqualTo(single.bytes("out/" + name));
        }
    }

    @DataProvider
    public Object[][] ledgers() {
        return new Object[][] {{1L, "UTF-8"}, {2L, "UTF-8"}, {3L, "windows-1252"}, {4L, "UTF-16LE"}};
    }

    @Test(dataProvider = "ledgers")
    public void bothWaysComeToTheSame(long seed, String encoding) throws Exception {
        List<String> lines = lines(seed, 1600);
        Workshop blocks = workshop(lines, encoding);
        Workshop single = workshop(lines, encoding);
        RunReport byBlock = blocks.run("journal").report();
        assertSame(byBlock, oneByOne(single));
        assertSameFiles(blocks, single, 1);
        assertThat(byBlock.clear().documents()).isBetween(1200L, 1500L);
        assertThat(byBlock.findings().counts())
                .containsKeys(
                        Rule.VALUE_MISSING,
                        Rule.PERIOD_CLOSED,
                        Rule.DATE_UNREADABLE,
                        Rule.ACCOUNT_UNKNOWN,
                        Rule.ACCOUNT_CLOSED,
                        Rule.TAX_CODE_UNKNOWN,
                        Rule.PARTY_UNKNOWN,
                        Rule.HEADING_DIFFERS,
                        Rule.JOURNAL_UNBALANCED,
                        Rule.TEXT_CUT,
                        Rule.TEXT_FORMULA);
    }

    @Test
    public void linesThatStandApartComeToTheSameToo() throws Exception {
        List<String> lines = lines(5, 1600);
        // Some lines of the file go elsewhere, most stay where they are.
        for (int i = 0; i < 40; i++) {
            Collections.swap(lines, 100 + 53 * i, 200 + 53 * i);
        }
        Workshop blocks = workshop(lines, "UTF-8");
        Workshop single = workshop(lines, "UTF-8");
        RunReport byBlock = blocks.run("journal").report();
        assertSame(byBlock, oneByOne(single));
        assertSameFiles(blocks, single, 1);
        assertThat(byBlock.findings().counts().get(Rule.REFERENCE_RETURNS)).isBetween(20L, 80L);
    }

    @Test
    public void aSecondRunKnowsWhatWasDeliveredAndWhatHasChanged() throws Exception {
        List<String> lines = lines(6, 800);
        Workshop blocks = workshop(lines, "UTF-8");
        Workshop single = workshop(lines, "UTF-8");
        long delivered = blocks.run("journal").report().clear().documents();
        oneByOne(single);
        List<String> corrected = new ArrayList<>(lines);
        // Twenty vouchers come with other figures, and a hundred new ones stand behind the old.
        for (int i = 0; i < 20; i++) {
            int line = firstOf("V" + (30 * i + 7), corrected);
            corrected.set(line, corrected.get(line).replaceFirst(",(\\d+)\\.(\\d\\d),,", ",1$1.$2,,"));
        }
        Random random = new Random(9);
        for (int v = 9001; v <= 9100; v++) {
            voucher(v, random, corrected);
        }
        RunReport byBlock = file(blocks, corrected).run("journal").report();
        assertSame(byBlock, oneByOne(file(single, corrected)));
        assertSameFiles(blocks, single, 2);
        assertThat(byBlock.before().documents()).isBetween(delivered - 20, delivered - 10);
        assertThat(byBlock.findings().counts().get(Rule.CHANGED_SINCE_DELIVERED))
                .isBetween(10L, 20L);
        assertThat(byBlock.clear().documents()).isBetween(70L, 100L);
    }

    private static int firstOf(String voucher, List<String> lines) {
        for (int i = 0; i < lines.size(); i++) {
            if (lines.get(i).startsWith(voucher + ",")) {
                return i;
            }
        }
        // A voucher without a reference: any line will do.
        return 0;
    }

    @Test
    public void aPilotTakesTheFirstJournalsAndNoMore() throws Exception {
        List<String> lines = lines(7, 300);
        Workshop whole = workshop(lines, "UTF-8");
        Workshop pilot = workshop(lines, "UTF-8");
        RunReport all = whole.run("journal").report();
        RunReport first = pilot.open("journal").first(3).run().report();
        assertThat(first.clear().documents()).isEqualTo(3);
        assertThat(first.clear().documents() + first.beyondPilot().documents())
                .isEqualTo(all.clear().documents());
        assertThat(first.findings().worstFirst()).isEqualTo(all.findings().worstFirst());
        String name = pilot.names("out").get(0);
        assertThat(whole.read("out/" + name)).startsWith(pilot.read("out/" + name));
        // What the pilot delivered is not delivered again.
        RunReport rest = pilot.run("journal").report();
        assertThat(rest.before().documents()).isEqualTo(3);
        assertThat(rest.clear().documents()).isEqualTo(all.clear().documents() - 3);
    }
}
