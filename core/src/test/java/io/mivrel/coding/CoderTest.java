package io.mivrel.coding;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.SourceRecord;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The first entry whose words, direction and amount all fit decides. */
public class CoderTest {
    private static final CodingTable TABLE = new CodingTable(
            "test",
            List.of(
                    CodingEntry.words("refund", Direction.IN, "1", "anvil tool store"),
                    CodingEntry.words("tin", Direction.OUT, "2", "tin ingot", "smelter"),
                    CodingEntry.words("cast", Direction.EITHER, "3", "cast*"),
                    CodingEntry.words("ware", Direction.EITHER, "4", "*ware"),
                    new CodingEntry(
                            "small",
                            Direction.OUT,
                            List.of("cheque"),
                            SourceRecord.ABSENT,
                            400_00,
                            "5",
                            null,
                            null,
                            null),
                    new CodingEntry(
                            "large out",
                            Direction.OUT,
                            List.of(),
                            10_000_00,
                            SourceRecord.ABSENT,
                            "6",
                            null,
                            null,
                            null)));

    private static SourceRecord line(String narrative, long amount) {
        return SourceRecord.builder(BankLines.TABLE, "bank.csv", "", 1)
                .put(BankLines.NARRATIVE, narrative)
                .put(BankLines.AMOUNT, amount)
                .build(true);
    }

    private static BankTransaction.Coding decide(Coder coder, SourceRecord line) {
        return coder.decide(line.batch(), line.index());
    }

    @DataProvider
    public Object[][] lines() {
        return new Object[][] {
            {"ANVIL TOOL STORE 12", 5_00, "refund"},
            {"ANVIL TOOL STORE 12", -5_00, null},
            {"Stannary  Tin\u00a0Ingot 44", -5_00, "tin"},
            {"SMELTER, COLD", -5_00, "tin"},
            {"PAINTIN INGOT", -5_00, null},
            {"TIN INGOTS", -5_00, null},
            {"CASTING SAND", 1_00, "cast"},
            {"OUTCAST", 1_00, null},
            {"IRONWARE CO", 1_00, "ware"},
            {"CHEQUE 100871", -400_00, "small"},
            {"CHEQUE 100871", -400_01, null},
            {"ANYTHING", -10_000_00, "large out"},
            {null, -10_000_00, "large out"},
            {null, 1_00, null},
        };
    }

    @Test(dataProvider = "lines")
    public void decides(String narrative, long amount, String entry) {
        BankTransaction.Coding decided = decide(new Coder(TABLE), line(narrative, amount));
        assertThat(decided == null ? null : decided.entry()).isEqualTo(entry);
    }

    @Test
    public void entriesThatNeverDecideAreKnown() {
        Coder coder = new Coder(TABLE);
        decide(coder, line("smelter", -1));
        assertThat(coder.unused())
                .extracting(CodingEntry::name)
                .doesNotContain("tin")
                .contains("refund", "small");
    }

    @Test
    public void theAutomatonFindsTheSameAsASlowSearch() {
        Random random = new Random(7);
        for (int round = 0; round < 300; round++) {
            List<Phrase> phrases = new ArrayList<>();
            for (int i = 0; i < 6; i++) {
                phrases.add(Phrase.of("*" + word(random, 1 + random.nextInt(4)) + "*", i));
            }
            String text = word(random, 30);
            int expected = 6;
            for (int i = 5; i >= 0; i--) {
                expected = text.contains(phrases.get(i).text()) ? i : expected;
            }
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            assertThat(PhraseAutomaton.of(phrases).first(bytes, 0, bytes.length, 6, i -> true))
                    .as(text)
                    .isEqualTo(expected);
        }
    }

    @Test
    public void wordByWordFindsTheSameAsCharacterByCharacter() {
        Random random = new Random(11);
        String[] words = {
            "tin",
            "Tin",
            "copper",
            "ab",
            "abcdefgh",
            "ABCDEFGHI",
            "loamworksfoundry",
            "loamworksfoundryco",
            "7",
            "o",
            "x".repeat(70)
        };
        String[] gaps = {" ", " ", " ", "  ", "-", "\t", ", ", "' "};
        int found = 0;
        for (int round = 0; round < 10_000; round++) {
            List<CodingEntry> entries = new ArrayList<>();
            List<Phrase> phrases = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                String words1 = text(random, words, gaps, 1 + random.nextInt(3)) + (random.nextInt(5) == 0 ? "*" : "");
                phrases.add(Phrase.of(words1, i));
                long from = random.nextInt(4) == 0 ? 500 : SourceRecord.ABSENT;
                long to = random.nextInt(4) == 0 ? 900 : SourceRecord.ABSENT;
                entries.add(new CodingEntry(
                        "" + i,
                        Direction.values()[random.nextInt(3)],
                        List.of(words1),
                        from,
                        to,
                        "1",
                        null,
                        null,
                        null));
            }
            Limits limits = new Limits(entries);
            long amount = random.nextInt(2000) - 1000;
            String text = text(random, words, gaps, random.nextInt(14)) + (random.nextInt(10) == 0 ? " \u00e4" : "");
            byte[] bytes = ("q" + text + "q".repeat(random.nextInt(20))).getBytes(StandardCharsets.UTF_8);
            int end = 1 + text.getBytes(StandardCharsets.UTF_8).length;
            int expected = PhraseAutomaton.of(phrases).first(bytes, 1, end, 12, i -> limits.fit(i, amount));
            found += expected < 12 ? 1 : 0;
            assertThat(new PhraseFinder(phrases, limits).first(bytes, 1, end, 12, amount))
                    .as(text + " " + amount + " in " + entries)
                    .isEqualTo(expected);
        }
        assertThat(found).isBetween(2000, 9500);
    }

    private static String text(Random random, String[] words, String[] gaps, int count) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < count; i++) {
            text.append(i == 0 ? "" : gaps[random.nextInt(gaps.length)]).append(words[random.nextInt(words.length)]);
        }
        return text.toString();
    }

    private static String word(Random random, int length) {
        StringBuilder word = new StringBuilder();
        for (int i = 0; i < length; i++) {
            word.append((char) ('a' + random.nextInt(3)));
        }
        return word.toString();
    }
}
