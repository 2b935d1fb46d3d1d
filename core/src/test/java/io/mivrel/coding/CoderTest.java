package io.mivrel.coding;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Sources;
import io.mivrel.kinds.BankLines;
import io.mivrel.model.Coding;
import io.mivrel.model.Posting;
import io.mivrel.model.SourceRecord;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.regex.Pattern;
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
                            null,
                            List.of(Posting.whole("5", null, null))),
                    new CodingEntry(
                            "large out",
                            Direction.OUT,
                            List.of(),
                            10_000_00,
                            SourceRecord.ABSENT,
                            null,
                            List.of(Posting.whole("6", null, null)))));

    private static SourceRecord line(String narrative, long amount) {
        return SourceRecord.builder(BankLines.TABLE, Sources.file("bank.csv"), 1)
                .put(BankLines.NARRATIVE, narrative)
                .put(BankLines.AMOUNT, amount)
                .build(true);
    }

    private static Coding decide(Coder coder, SourceRecord line) {
        return coder.decide(line.block(), line.index());
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
        Coding decided = decide(new Coder(TABLE, BankLines.KIND), line(narrative, amount));
        assertThat(decided == null ? null : decided.entry()).isEqualTo(entry);
    }

    @Test
    public void entriesThatNeverDecideAreKnown() {
        Coder coder = new Coder(TABLE, BankLines.KIND);
        decide(coder, line("smelter", -1));
        assertThat(coder.unused())
                .extracting(CodingEntry::name)
                .doesNotContain("tin")
                .contains("refund", "small");
    }

    @DataProvider
    public Object[][] searches() {
        return new Object[][] {{true, "abc"}, {false, "abc -"}, {false, "aB\u00e4 "}, {true, "aB\u00e4 "}};
    }

    @Test(dataProvider = "searches")
    public void theAutomatonFindsTheSameAsASlowSearch(boolean anywhere, String alphabet) {
        Random random = new Random(7);
        for (int round = 0; round < 1000; round++) {
            List<CodingEntry> entries = new ArrayList<>();
            List<Phrase> phrases = new ArrayList<>();
            for (int i = 0; i < 6; i++) {
                String phrase = text(random, alphabet, 1 + random.nextInt(4)).strip();
                if (!phrase.isEmpty()) {
                    phrases.add(Phrase.of(anywhere ? "*" + phrase + "*" : phrase, i));
                }
                entries.add(CodingEntry.words("" + i, Direction.EITHER, "1"));
            }
            String text = text(random, alphabet, 30);
            int expected = phrases.stream()
                    .filter(p -> slowSearch(p.text(), anywhere).matcher(text).find())
                    .mapToInt(Phrase::owner)
                    .min()
                    .orElse(6);
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            Limits limits = new Limits(entries);
            PhraseAutomaton automaton =
                    anywhere ? PhraseAutomaton.anywhere(phrases, limits) : PhraseAutomaton.atWords(phrases, limits);
            assertThat(automaton.first(bytes, 0, bytes.length, 6, limits, 1))
                    .as("%s in '%s'", phrases, text)
                    .isEqualTo(expected);
        }
    }

    private static Pattern slowSearch(String phrase, boolean anywhere) {
        String words = Pattern.quote(phrase).replace(" ", "\\E +\\Q");
        return Pattern.compile(
                anywhere ? words : "(?<![\\p{L}\\d])" + words + "(?![\\p{L}\\d])",
                Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
    }

    private static String text(Random random, String alphabet, int length) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < length; i++) {
            text.append(alphabet.charAt(random.nextInt(alphabet.length())));
        }
        return text.toString();
    }
}
