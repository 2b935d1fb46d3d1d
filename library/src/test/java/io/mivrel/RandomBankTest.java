package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.intake.BalanceProof;
import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Bank files made at random, in many forms: the same statement must give the same figures and the same proof. */
public class RandomBankTest {
    private record Movement(LocalDate date, String text, long amount, long balance) {}

    private static List<Movement> statement(long seed, long opening) {
        Random random = new Random(seed);
        List<Movement> movements = new ArrayList<>();
        long balance = opening;
        for (int i = 0; i < 60; i++) {
            long amount = random.nextInt(500_000) - 250_000;
            amount = amount == 0 ? 1 : amount;
            balance += amount;
            String text =
                    (amount > 0 ? "shop" : "tin") + (random.nextInt(3) == 0 ? " Müller; \"Söhne\", 7\tx" : " " + i);
            movements.add(new Movement(LocalDate.of(2027, 3, 1).plusDays(i / 2), text, amount, balance));
        }
        return movements;
    }

    private static String quoted(String text, char separator) {
        return text.indexOf(separator) >= 0 || text.indexOf('"') >= 0 ? '"' + text.replace("\"", "\"\"") + '"' : text;
    }

    private static String amount(long minor, char decimal, char thousands) {
        String english = String.format(Locale.ROOT, "%,d.%02d", Math.abs(minor) / 100, Math.abs(minor) % 100);
        String marked = english.replace('.', '\0').replace(",", thousands == 0 ? "" : String.valueOf(thousands));
        return (minor < 0 ? "-" : "") + marked.replace('\0', decimal);
    }

    @DataProvider
    public Object[][] forms() {
        List<Object[]> forms = new ArrayList<>();
        String[][] separators = {{"comma", ","}, {"semicolon", ";"}, {"tab", "\t"}, {"pipe", "|"}};
        for (String[] separator : separators) {
            for (String encoding : List.of("UTF-8", "windows-1252", "UTF-16LE", "IBM850")) {
                for (boolean english : new boolean[] {true, false}) {
                    for (boolean newestFirst : new boolean[] {true, false}) {
                        forms.add(new Object[] {separator[0], separator[1].charAt(0), encoding, english, newestFirst});
                    }
                }
            }
        }
        return forms.toArray(Object[][]::new);
    }

    @Test(dataProvider = "forms")
    public void everyFormGivesTheSame(
            String name, char separator, String encoding, boolean english, boolean newestFirst) throws Exception {
        List<Movement> statement = statement(7, 1_000_00);
        List<Movement> order = new ArrayList<>(statement);
        if (newestFirst) {
            Collections.reverse(order);
        }
        char decimal = english ? '.' : ',';
        char thousands = english ? ',' : '.';
        StringBuilder file = new StringBuilder("Any Bank\n\nDate")
                .append(separator)
                .append("Text")
                .append(separator);
        file.append("Amount").append(separator).append("Balance\n");
        for (Movement m : order) {
            file.append(m.date)
                    .append(separator)
                    .append(quoted(m.text, separator))
                    .append(separator);
            file.append(quoted(amount(m.amount, decimal, thousands), separator)).append(separator);
            file.append(quoted(amount(m.balance, decimal, thousands), separator))
                    .append('\n');
        }
        Workshop workshop = new Workshop().put("bank.csv", file.toString(), Charset.forName(encoding));
        workshop.put("bank-layout.yaml", """
                layout: Any form
                gives: bank lines
                account: 1200
                file: {separator: %s, encoding: %s, titles: row 3, order: %s}
                numbers: {decimal: "%s", thousands: "%s"}
                fields:
                  date:      {column: Date, pattern: uuuu-MM-dd}
                  narrative: {column: Text}
                  amount:    {column: Amount}
                  balance:   {column: Balance}
                """.formatted(
                        name, encoding, newestFirst ? "newest first" : "oldest first", decimal, thousands));
        RunReport report = workshop.run("bank").report();

        long in = statement.stream()
                .mapToLong(Movement::amount)
                .filter(a -> a > 0)
                .sum();
        long out = -statement.stream()
                .mapToLong(Movement::amount)
                .filter(a -> a < 0)
                .sum();
        assertThat(report.clear().documents()).isEqualTo(60);
        assertThat(report.clear().totals().debit()).isEqualTo(in);
        assertThat(report.clear().totals().credit()).isEqualTo(out);
        BalanceProof proof = report.files().get(0).proof().orElseThrow();
        long closing = statement.get(59).balance;
        assertThat(proof).isEqualTo(new BalanceProof(59, 0, 1_000_00, in - out, closing, false));
    }

    @Test
    public void oneWrongAmountAnywhereIsFoundAtItsRow() throws Exception {
        List<Movement> statement = statement(3, 0);
        for (int wrong = 1; wrong < 60; wrong += 7) {
            StringBuilder file = new StringBuilder(Workshop.BANK_TITLES);
            for (int i = 0; i < 60; i++) {
                Movement m = statement.get(i);
                long amount = i == wrong ? m.amount + 100 : m.amount;
                String day = m.date.getDayOfWeek().getDisplayName(java.time.format.TextStyle.SHORT, Locale.ENGLISH);
                String date = String.format(
                        Locale.ROOT, "%s %02d/%02d/2027", day, m.date.getDayOfMonth(), m.date.getMonthValue());
                String size = '"' + amount(Math.abs(amount), '.', ',') + '"';
                file.append(date)
                        .append(",tin shop,")
                        .append(amount >= 0 ? size + "," : "," + size)
                        .append(",\"");
                file.append(amount(m.balance, '.', ',')).append("\"\n");
            }
            RunReport report =
                    new Workshop().put("bank.csv", file.toString()).run("bank").report();
            assertThat(report.findings().counts()).containsEntry(Rule.BALANCE_BROKEN, 1L);
            assertThat(report.findings().worstFirst().get(0).origin().row()).isEqualTo(wrong + 2);
            assertThat(report.held().documents()).isEqualTo(1);
            assertThat(report.files().get(0).proof().orElseThrow().holds()).isFalse();
        }
    }

    @Test
    public void twoFilesOfOneMonthAreProvedEachForItself() throws Exception {
        Workshop workshop = new Workshop();
        workshop.put("in/a.csv", Workshop.BANK_TITLES + "Mon 01/03/2027,shop,1.00,,1.00\n", StandardCharsets.UTF_8);
        workshop.put("in/b.csv", Workshop.BANK_TITLES + "Mon 01/03/2027,shop,2.00,,3.00\n", StandardCharsets.UTF_8);
        workshop.replace("bank.yaml", "files: bank.csv", "files: \"in/*.csv\"");
        RunReport report = workshop.run("bank").report();
        assertThat(report.files()).hasSize(2);
        assertThat(report.clear().documents()).isEqualTo(2);
        assertThat(workshop.read("out/journals-bank-2027-04-02-1.csv")).contains("1200-270301-2,", "1200-270301-2.2,");
    }

    // Lines of every sort: clear, uncoded, with a closed account, a tax code, a text to look at, an unreadable day, a
    // shut month.
    private static Workshop mixed(int lines) {
        Workshop workshop = new Workshop();
        Random random = new Random(12);
        StringBuilder file = new StringBuilder("Date,Text,Amount\n");
        String[] texts = {"shop 1", "tin 2", "copper", "exchange", "=tin", "tin \u00e4", "shop tin", "other"};
        for (int i = 0; i < lines; i++) {
            String day = random.nextInt(40) == 0
                    ? "2027-02-30"
                    : random.nextInt(60) == 0 ? "2026-12-05" : "2027-03-0" + (1 + i % 9);
            file.append(day)
                    .append(',')
                    .append(texts[random.nextInt(texts.length)])
                    .append(',');
            file.append(random.nextInt(2) == 0 ? "" : "-")
                    .append(1 + random.nextInt(50))
                    .append(".25\n");
        }
        workshop.takes("bank", "lines.csv", """
                layout: Lines
                gives: bank lines
                account: 1200
                file: {encoding: UTF-8}
                fields:
                  date:      {column: Date, pattern: uuuu-MM-dd}
                  narrative: {column: Text}
                  amount:    {column: Amount}
                """);
        workshop.put("lines.csv", file.toString());
        workshop.put("coding.csv", """
                entry,direction,words,from,to,account,tax code,party,narrative
                shop,in,shop,,,4000,,,
                tin,out,tin,,20.00,5010,,,
                copper,either,copper,,,5020,STD,,
                exchange,either,exchange,,,6215,,,
                """);
        return workshop.put("bank.yaml", workshop.read("bank.yaml") + "\ncoding: {table: coding.csv, uncoded: hold}\n");
    }

    @Test
    public void linesByTheBlockComeToTheSameAsOneByOne() throws Exception {
        Workshop blocks = mixed(5000);
        Workshop single = mixed(5000);
        RunReport quick = blocks.run("bank").report();
        // To keep its documents, a run makes an object of every line.
        RunReport slow = single.open("bank").keepDocuments(1_000_000).run().report();
        assertThat(quick.clear().documents()).isBetween(1000L, 4000L);
        for (boolean first : new boolean[] {true, false}) {
            assertThat(quick.clear().documents()).isEqualTo(slow.clear().documents());
            assertThat(quick.clear().totals().toString())
                    .isEqualTo(slow.clear().totals().toString());
            assertThat(quick.held().documents()).isEqualTo(slow.held().documents());
            assertThat(quick.held().totals().toString())
                    .isEqualTo(slow.held().totals().toString());
            assertThat(quick.before().documents()).isEqualTo(slow.before().documents());
            assertThat(quick.before().totals().toString())
                    .isEqualTo(slow.before().totals().toString());
            assertThat(quick.clear().firstDate()).isEqualTo(slow.clear().firstDate());
            assertThat(quick.findings().worstFirst()).isEqualTo(slow.findings().worstFirst());
            if (first) {
                String name = blocks.names("out").get(0);
                assertThat(blocks.read("out/" + name)).isEqualTo(single.read("out/" + name));
                // The other way round each knows what the first run delivered.
                quick = blocks.open("bank").keepDocuments(1_000_000).run().report();
                slow = single.run("bank").report();
                assertThat(slow.before().documents()).isBetween(1000L, 4000L);
            }
        }
    }
}
