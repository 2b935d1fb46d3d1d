package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.run.RunReport;
import java.util.Locale;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Lines that stand in the file as they are delivered are written by column, many at a time; others, and those of a delivery
 * that is divided into parts, cell after cell. Both ways write the same bytes.
 */
public class DeliveredByColumnTest {
    private static final String[] TEXTS = {
        "shop",
        "tin bought of the \"old\" works",
        "shop, north",
        "tin ä",
        "tin €5 and some more words",
        "shop\u00a0x",
        "copper"
    };

    private static String text(Random random) {
        int one = random.nextInt(2 * TEXTS.length);
        return one < TEXTS.length ? TEXTS[one].replace("\"", "\"\"") : "tin " + "x".repeat(random.nextInt(60));
    }

    @DataProvider
    public Object[][] deliveries() {
        return new Object[][] {
            {"encoding: UTF-8", "at most: 60", "account"},
            {"encoding: UTF-8, line ends: LF, separator: semicolon", "at most: 12", "account"},
            {"encoding: windows-1252", "at most: 20", "account"},
            {"encoding: UTF-16LE", "at most: 60", "account"},
            {"encoding: UTF-8, quotes: always", "at most: 20", "account"},
            {"encoding: UTF-8, separator: pipe", "at most: 60, refuse: \"<,\"", "account"},
            {"encoding: UTF-8, separator: tab, titles: no", "at most: 25", "source row"},
        };
    }

    private static Workshop bothWays(String kind, String takes, String file, String columns) {
        Workshop workshop = new Workshop();
        for (String way : new String[] {"whole", "parts"}) {
            String parts = way.equals("parts") ? ", rows at most: 1000000" : "";
            workshop.put(
                    way + ".yaml",
                    "delivery: " + way + "\ntakes: " + takes + "\nfile: {name: \"" + way + "-{part}.csv\", " + file
                            + parts + "}\ncolumns:\n" + columns);
        }
        return workshop.replace(
                kind + ".yaml",
                "deliver: [{as: journals.yaml, to: out}]",
                "deliver: [{as: whole.yaml, to: out}, {as: parts.yaml, to: out}]");
    }

    private static void assertSame(Workshop workshop, String kind, int least) throws Exception {
        RunReport report = workshop.run(kind).report();
        assertThat(report.clear().documents()).isGreaterThan(least);
        assertThat(workshop.names("out")).containsExactly("parts-1.csv", "whole-1.csv");
        assertThat(workshop.bytes("out/whole-1.csv")).isEqualTo(workshop.bytes("out/parts-1.csv"));
    }

    @Test(dataProvider = "deliveries")
    public void bankLines(String file, String text, String last) throws Exception {
        Workshop workshop = bothWays("bank", "bank transactions", file, """
                  Mark:  {constant: "A,1"}
                  Date:  {field: date, pattern: dd.MM.uuuu}
                  Text:  {field: narrative, %s}
                  Sum:   {field: amount, sign: turned}
                  In:    {field: money in}
                  Out:   {field: money out, blank zero: yes}
                  Last:  {field: %s}
                """.formatted(text, last));
        workshop.put("coding.csv", """
                entry,direction,words,from,to,account,tax code,party,narrative
                shop,in,shop,,,4000,,,
                copper,either,copper,,,5020,,,the copper of the year
                tin,either,tin,,,5010,,,
                """);
        Random random = new Random(5);
        StringBuilder rows = new StringBuilder();
        for (int i = 0; i < 3000; i++) {
            String amount = String.format(Locale.ROOT, "%d.%02d", random.nextInt(1 << random.nextInt(24)), 1 + i % 99);
            rows.append(i < 1500 ? "Mon 01/03/2027,\"" : "Tue 02/03/2027,\"")
                    .append(text(random))
                    .append(random.nextInt(2) == 0 ? "\"," + amount + ",," : "\",," + amount + ",")
                    .append('\n');
        }
        workshop.bank(rows.toString()).replace("bank-layout.yaml", "  balance:   {column: Balance}\n", "");
        assertSame(workshop, "bank", 1000);
    }

    @Test(dataProvider = "deliveries")
    public void journals(String file, String text, String last) throws Exception {
        Workshop workshop = bothWays("journal", "journals", file, """
                  Number: {field: reference, at most: 20}
                  Date:   {field: date, pattern: uuuuMMdd}
                  Text:   {field: narrative, %s}
                  Debit:  {field: debit}
                  Credit: {field: credit, blank zero: yes}
                  Last:   {field: %s}
                """.formatted(text, last));
        Random random = new Random(6);
        StringBuilder rows = new StringBuilder();
        for (int i = 0; i < 1500; i++) {
            int lines = 1 + random.nextInt(4);
            long sum = 0;
            String first = "V" + (1000 + i) + ",0" + (1 + i % 9) + "/03/2027,";
            for (int line = 0; line < lines; line++) {
                long amount = 1 + random.nextInt(1 << random.nextInt(24));
                sum += amount;
                rows.append(first).append("5010,\"");
                rows.append(text(random));
                rows.append(String.format(Locale.ROOT, "\",%d.%02d,,,%n", amount / 100, amount % 100));
            }
            // One in fifty does not balance.
            sum += random.nextInt(50) == 0 ? 1 : 0;
            rows.append(first).append(String.format(Locale.ROOT, "4000,,,%d.%02d,,%n", sum / 100, sum % 100));
        }
        assertSame(workshop.journal(rows.toString()), "journal", 800);
    }
}
