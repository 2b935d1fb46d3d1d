package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import java.nio.charset.Charset;
import org.testng.annotations.Test;

/** Print files whose disorder is of a kind of its own: surveyed, and read by the layout that is proposed. */
public class PrintShapesTest {
    private static Reading read(String kind, String text, String encoding, io.mivrel.model.Field... wanted)
            throws Exception {
        Workshop workshop = new Workshop().put("a.txt", text, Charset.forName(encoding));
        String layout = FileSurvey.of(workshop.folder.resolve("a.txt")).layout();
        assertThat(layout).contains("kind: fixed width");
        workshop.takes(kind, "a.txt", layout.replaceFirst("account: \"[^\"]*\"", "account: 1200"));
        return Reading.of(workshop, kind, wanted);
    }

    private static Reading bank(String text) throws Exception {
        return read("bank", text, "UTF-8", BankLines.DATE, BankLines.AMOUNT, BankLines.NARRATIVE);
    }

    @Test
    public void theFootOfAPageIsNoPartOfAText() throws Exception {
        StringBuilder text = new StringBuilder();
        for (int page = 1; page <= 3; page++) {
            text.append("NORTH QUAY BANK        Page ").append(page).append("\n\n");
            text.append("Booked     Details                 Amount      Balance\n");
            for (int i = 0; i < 4; i++) {
                long balance = 100 + 4L * (page - 1) + i + 1;
                text.append(
                        String.format("%02d.03.2027 payment of day         1.00%12d.00%n", page * 4 + i + 9, balance)
                                .replace("\r", ""));
                text.append("           to the yard\n");
            }
            text.append("           Continued overleaf\n\n");
        }
        Reading read = bank(text.toString());
        assertThat(read.records()).hasSize(12).allMatch(r -> r.endsWith("| 100 | payment of day to the yard"));
        assertThat(read.findings()).isEmpty();
    }

    @Test
    public void aTextThatReachesBeyondItsColumnIsHeldAndNotLost() throws Exception {
        String head = "Date       Details            Amount      Balance\n";
        StringBuilder text = new StringBuilder(head);
        for (int i = 0; i < 8; i++) {
            text.append(String.format("%02d.03.2027 tin and copper       1.00%12d.00%n", 10 + i, 101 + i)
                    .replace("\r", ""));
        }
        String beyond = text + "           this text goes on over both figures\n"
                + "18.03.2027 tin and copper       1.00         109.00\n";
        Workshop workshop = new Workshop().put("a.txt", text.toString());
        String layout = FileSurvey.of(workshop.folder.resolve("a.txt")).layout();
        workshop.takes("bank", "a.txt", layout.replaceFirst("account: \"[^\"]*\"", "account: 1200"))
                .put("a.txt", beyond);
        Reading held = Reading.of(workshop, "bank");
        assertThat(held.rules()).isNotEmpty();
    }

    @Test
    public void aMillionBlankLinesBehindARowDoNotFillTheMemory() throws Exception {
        String pages = "layout: P\ngives: bank lines\naccount: 1200\n"
                + "file: {kind: fixed width, columns: {Day: 1-10, Text: 12-20, Amount: 22-30}}\n"
                + "wrapped: {begins: Day, joins: Text}\nunused: line\nfields:\n"
                + "  date: {column: Day, pattern: uuuu-MM-dd}\n  narrative: {column: Text}\n"
                + "  amount: {column: Amount}\n";
        Workshop workshop = new Workshop()
                .takes("bank", "a.txt", pages)
                .put("a.txt", "2027-03-01 tin           1.00\n" + "\n".repeat(1_000_000) + "           lost\n");
        Reading read = Reading.of(workshop, "bank", BankLines.AMOUNT, BankLines.NARRATIVE);
        assertThat(read.records()).startsWith("100 | tin");
        assertThat(read.rules()).contains("line-continues-nothing");
        assertThat(read.tally().rows()).isEqualTo(1_000_002);
    }

    @Test
    public void daysOfOneDigitStandOnePlaceFurtherRight() throws Exception {
        StringBuilder text = new StringBuilder("Date         Particulars            Money      Running\n");
        long balance = 500;
        for (int i = 6; i < 16; i++) {
            balance -= 2;
            text.append(String.format("%2d Mar 2027  tin                    2.00-%10d.00%n", i, balance)
                    .replace("\r", ""));
        }
        Reading read = bank(text.toString());
        assertThat(read.records()).hasSize(10).startsWith("2027-03-06 | -200 | tin");
    }

    @Test
    public void aPrintOfSeveralPeriodsGivesEachDateItsYear() throws Exception {
        StringBuilder text = new StringBuilder();
        long balance = 1000;
        for (int month : new int[] {12, 1}) {
            int year = month == 12 ? 2026 : 2027;
            text.append("SEASIDE BANK\n")
                    .append(String.format("Period 01/%02d/%d to 28/%02d/%d%n%n", month, year, month, year)
                            .replace("\r", ""));
            text.append("Date   Details            Debit     Credit      Balance\n");
            for (int i = 1; i < 7; i++) {
                balance -= 3;
                text.append(
                        String.format("%02d/%02d  payment            3.00           %10d.00%n", i * 4, month, balance)
                                .replace("\r", ""));
            }
            text.append('\n');
        }
        Reading read = bank(text.toString());
        assertThat(read.records())
                .hasSize(12)
                .startsWith("2026-12-04 | -300 | payment")
                .endsWith("2027-01-24 | -300 | payment");
    }

    @Test
    public void aLedgerWithABalanceForEachAccountGivesJournalLines() throws Exception {
        StringBuilder text = new StringBuilder();
        for (String account : new String[] {"4000", "5010", "5020"}) {
            text.append("Glockenwerk GmbH          Seite 1\nKonto ")
                    .append(account)
                    .append(" Erlöse\n\n");
            text.append("Datum      Beleg   Text                    Soll        Haben      Saldo\n");
            for (int i = 0; i < 5; i++) {
                String sides = i % 2 == 0 ? "10,00             " : "             10,00";
                text.append(String.format(
                                "%02d.03.2027 B%d000%d  Buchung Nummer      %s%10d,00%n",
                                10 + i, i, i, sides, i % 2 == 0 ? 10 : 0)
                        .replace("\r", ""));
                text.append("                   zweite Zeile\n");
            }
            text.append('\f');
        }
        Reading read = read(
                "journal",
                text.toString(),
                "IBM850",
                JournalLines.ACCOUNT,
                JournalLines.AMOUNT,
                JournalLines.NARRATIVE);
        assertThat(read.records()).hasSize(15).startsWith("4000 | 1000 | Buchung Nummer zweite Zeile");
    }

    @Test
    public void amountsOfAPrintInACurrencyWithoutDecimalsAreWhole() throws Exception {
        StringBuilder text = new StringBuilder("TOKAI DEMO BANK    Currency JPY\n\n"
                + "Date        Text               Out          In      Balance\n");
        long balance = 900_000;
        for (int i = 10; i < 20; i++) {
            balance -= 1_250;
            text.append(String.format(
                            java.util.Locale.ROOT,
                            "2027/03/%02d  tin              1,250            %,13d%n",
                            i,
                            balance)
                    .replace("\r", ""));
        }
        FileSurvey survey = FileSurvey.of(
                new Workshop().put("a.txt", text.toString()).folder.resolve("a.txt"));
        assertThat(survey.text()).contains("the balances prove 9 of 9 steps");
        assertThat(survey.survey().question("numbers")).isNull();
        assertThat(survey.survey().facts().currency().getCurrencyCode()).isEqualTo("JPY");
    }
}
