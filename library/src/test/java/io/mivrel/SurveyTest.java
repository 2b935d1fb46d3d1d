package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.kinds.BankLines;
import io.mivrel.layout.Layout;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.RowSource;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.files.SurveyFile;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.testng.annotations.Test;

/** A survey reads unknown files rightly, or asks; it never guesses wrongly in silence. Real files. */
public class SurveyTest {
    private static final String[] DATES = {"dd/MM/uuuu", "MM/dd/uuuu", "uuuu-MM-dd", "dd.MM.uu", "d MMM uuuu"};
    private static final String[] SIDES = {"apart", "signed", "reversed", "brackets", "behind", "no balance"};

    /** How one generated file is written. */
    private record Style(char separator, String encoding, String date, String sides, boolean titles, boolean comma) {}

    private static Path folder() throws IOException {
        return Workshop.newFolder();
    }

    private static void remove(Path file) throws IOException {
        Files.delete(file);
        Files.delete(file.getParent());
    }

    @Test
    public void generatedFilesAreReadRightlyOrAsked() throws IOException {
        Random random = new Random(11);
        int files = 0;
        int right = 0;
        int asked = 0;
        int open = 0;
        for (char separator : new char[] {',', ';', '\t', '|'}) {
            for (String encoding : List.of("UTF-8", "windows-1252", "UTF-16LE")) {
                for (String date : DATES) {
                    for (String sides : SIDES) {
                        Style style = new Style(
                                separator,
                                encoding,
                                date,
                                sides,
                                random.nextInt(4) > 0 || sides.equals("apart"),
                                random.nextBoolean() && separator != ',');
                        Path file = folder().resolve("unknown.dat");
                        List<String> truth = generate(file, style, random);
                        FileSurvey survey = FileSurvey.of(file);
                        List<String> questions = survey.survey().questions().stream()
                                .map(Survey.Question::about)
                                .filter(about -> !about.equals("account"))
                                .toList();
                        boolean same = survey.survey().gives() == BankLines.KIND
                                && read(file, survey).equals(truth);
                        assertThat(same || !questions.isEmpty())
                                .as("wrong in silence: %s%n%s%n%s", style, survey.text(), survey.preview(5))
                                .isTrue();
                        files++;
                        right += same ? 1 : 0;
                        asked += questions.isEmpty() ? 0 : 1;
                        // Without a balance nothing proves whose plus it is.
                        open += sides.equals("no balance") ? 1 : 0;
                        remove(file);
                    }
                }
            }
        }
        System.out.printf(
                Locale.ROOT,
                "survey: %d of %d generated files read rightly, %d with a question%n",
                right,
                files,
                asked);
        assertThat(right * 100).isGreaterThanOrEqualTo(95 * files);
        // Only a file without a balance, or with days up to the twelfth, may leave something to ask.
        assertThat(asked).isLessThan(open + files / 6);
    }

    private static List<String> read(Path file, FileSurvey survey) throws IOException {
        List<String> records = new ArrayList<>();
        try (RowSource rows = new SurveyFile(file, io.mivrel.survey.Answers.NONE)
                .open(survey.survey().facts())) {
            Layout layout = Proposal.layout(survey.survey());
            Intake intake = new Intake(layout, SourceFile.of("unknown", Currency.getInstance("GBP")), rows);
            boolean more = true;
            while (more) {
                IntakeBlock batch = intake.newBlock();
                more = intake.fill(batch);
                for (int i = 0; i < batch.records().size(); i++) {
                    SourceRecord record = batch.records().get(i);
                    records.add(record.date(BankLines.DATE) + " " + record.number(BankLines.AMOUNT));
                }
            }
        }
        return records;
    }

    // Writes a statement and answers its true dates and amounts, in the order of the file.
    private static List<String> generate(Path file, Style style, Random random) throws IOException {
        boolean newestFirst = !style.sides.equals("no balance") && random.nextInt(3) == 0;
        boolean balances = !style.sides.equals("no balance");
        DateTimeFormatter dates = DateTimeFormatter.ofPattern(style.date, Locale.ENGLISH);
        List<String> rows = new ArrayList<>();
        List<String> truth = new ArrayList<>();
        LocalDate day = LocalDate.of(2027, 3, 1);
        long balance = 1_000_00;
        for (int i = 0; i < 40; i++) {
            day = day.plusDays(random.nextInt(3));
            long amount =
                    (1 + random.nextInt(random.nextBoolean() ? 900_000 : 9_000)) * (random.nextBoolean() ? 1 : -1);
            balance += amount;
            List<String> cells = new ArrayList<>(List.of(dates.format(day), "Glockengießerei Zahlung Nr " + i));
            if (style.sides.equals("apart")) {
                cells.add(amount > 0 ? shown(amount, style) : "");
                cells.add(amount < 0 ? shown(-amount, style) : "");
            } else {
                cells.add(signed(style.sides.equals("reversed") ? -amount : amount, style));
            }
            if (balances) {
                cells.add(signed(balance, style));
            }
            rows.add(line(cells, style));
            truth.add(day + " " + amount);
        }
        if (newestFirst) {
            Collections.reverse(rows);
            Collections.reverse(truth);
        }
        StringBuilder text = new StringBuilder();
        text.append(style.encoding.startsWith("UTF-16") ? "\uFEFF" : "");
        for (int above = random.nextInt(3); above > 0; above--) {
            text.append("Account statement\r\n");
        }
        if (style.titles) {
            List<String> titles = new ArrayList<>(List.of("Date", "Description"));
            titles.addAll(style.sides.equals("apart") ? List.of("Paid in", "Paid out") : List.of("Amount"));
            titles.addAll(balances ? List.of("Balance") : List.of());
            text.append(line(titles, style)).append("\r\n");
        }
        text.append(String.join("\r\n", rows)).append("\r\n");
        if (random.nextBoolean()) {
            text.append("\r\nEnd of statement\r\n");
        }
        Files.write(file, text.toString().getBytes(Charset.forName(style.encoding)));
        return truth;
    }

    private static String line(List<String> cells, Style style) {
        return String.join(
                String.valueOf(style.separator),
                cells.stream()
                        .map(c -> c.indexOf(style.separator) >= 0 ? '"' + c + '"' : c)
                        .toList());
    }

    private static String signed(long amount, Style style) {
        String size = shown(Math.abs(amount), style);
        return amount >= 0
                ? size
                : switch (style.sides) {
                    case "brackets" -> "(" + size + ")";
                    case "behind" -> size + "-";
                    default -> "-" + size;
                };
    }

    private static String shown(long amount, Style style) {
        String english = Money.show(amount, Currency.getInstance("GBP"));
        return style.comma ? english.replace(',', '#').replace('.', ',').replace('#', '.') : english;
    }

    @Test
    public void datesThatFitBothOrdersAreAskedAndNotRun() throws Exception {
        Path file = folder().resolve("both.csv");
        Files.writeString(
                file,
                "Date,Details,Amount,Balance\n01/02/2027,tin,1.00,1.00\n03/04/2027,copper,-0.25,0.75\n"
                        + "05/04/2027,rope,2.00,2.75\n06/04/2027,rope,2.00,4.75\n07/04/2027,rope,-1.00,3.75\n");
        FileSurvey survey = FileSurvey.of(file);
        assertThat(survey.isSettled()).isFalse();
        assertThat(survey.survey().question("date").words())
                .contains("dd/MM/uuuu or MM/dd/uuuu")
                .contains("fits both");
        assertThat(survey.survey().question("signs")).isNull();
        assertThat(survey.text()).contains("undecided").contains("the balances prove 4 of 4 steps");
        Workshop workshop = new Workshop();
        workshop.put("bank-layout.yaml", survey.layout());
        assertThatThrownBy(() -> workshop.run("bank"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining("question that is not answered: dd/MM/uuuu or MM/dd/uuuu?")
                .hasMessageContaining("which account of the books");
        remove(file);
    }

    @Test
    public void brokenStepsAndOddCellsAreNamedWithTheirRows() throws Exception {
        Path file = folder().resolve("odd.csv");
        StringBuilder text = new StringBuilder("Date;Text;Amount;Balance\n");
        for (int i = 1; i <= 28; i++) {
            String amount = i == 20 ? "1O,00" : "10,00";
            text.append(String.format("%02d.02.2027;rope;%s;%d,%s%n", i, amount, i * 10, i == 9 ? "50" : "00"));
        }
        Files.writeString(file, text);
        FileSurvey survey = FileSurvey.of(file);
        assertThat(survey.text())
                .contains("odd: 1O,00 in row 21")
                .contains("they break at row 10")
                .contains("1 of 28 rows would be held: row 21, '1O,00' is not an amount");
        assertThat(survey.isSettled()).isFalse();
        remove(file);
    }

    @Test
    public void titlesOfAnyKindMakeALayoutThatReads() throws Exception {
        Path file = folder().resolve("odd \"titles\".csv");
        StringBuilder text = new StringBuilder("#,Date,\"Amount\",\"Bal\u001bance: \"\"x\"\"\nend\",\"Details\"\n");
        for (int i = 13; i < 29; i++) {
            text.append(String.format("%d,%d/02/2027,-1.50,%s,rope%n", i, i, i));
        }
        Files.writeString(file, text);
        FileSurvey survey = FileSurvey.of(file);
        assertThat(survey.text() + survey.preview(2)).doesNotContain("\u001b");
        String layout = survey.layout()
                .replaceAll("account: \"\\?[^\"]*\"", "account: 1200")
                .replaceAll("signs: \"\\?[^\"]*\"", "signs: as written");
        Workshop workshop = new Workshop();
        workshop.put("bank-layout.yaml", layout);
        workshop.put("bank.csv", text.toString());
        Outcome outcome = workshop.run("bank");
        assertThat(outcome.report().rowsRead()).isEqualTo(17);
        assertThat(outcome.report().readTotals().main().credit()).as(layout).isEqualTo(16 * 150);
        remove(file);
    }

    @Test
    public void aFileCutAnywhereOrWithAnyByteChangedIsSurveyedOrRefusedInWords() throws Exception {
        Path file = folder().resolve("cut.csv");
        byte[] whole = ("Account 7\r\nDate;Details;Amount;Balance\r\n13/02/2027;\"tin; copper\";1.234,50;1.234,50\r\n"
                        + "14/02/2027;rope;-34,50;1.200,00\r\n15/02/2027;été;100,00;1.300,00\r\nTotal;;;1.300,00\r\n")
                .getBytes(Charset.forName("windows-1252"));
        Random random = new Random(4);
        for (int round = 0; round < 3 * whole.length; round++) {
            byte[] bytes = round < whole.length ? Arrays.copyOf(whole, round) : whole.clone();
            if (round >= whole.length) {
                bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
            }
            Files.write(file, bytes);
            try {
                FileSurvey survey = FileSurvey.of(file);
                assertThat(survey.text()).contains("cut.csv").contains("question");
                assertThat(survey.layout()).contains("? ");
                survey.preview(3);
            } catch (IOException refused) {
                assertThat(refused).hasMessageContaining("is neither text");
            }
        }
        remove(file);
    }

    @Test
    public void aLedgerWithOneSignedAmountIsAskedForItsSide() throws Exception {
        Path file = folder().resolve("ledger.csv");
        StringBuilder text = new StringBuilder("Voucher\tPosted\tAccount\tText\tAmount\n");
        for (int i = 1; i < 20; i++) {
            text.append(String.format("%d\t%d.03.27\t5010\ttin\t10.00%n%d\t%d.03.27\t2100\ttin\t-10.00%n", i, i, i, i));
        }
        Files.writeString(file, text);
        FileSurvey survey = FileSurvey.of(file);
        assertThat(survey.survey().question("signs").words()).contains("debit is positive");
        assertThat(survey.text()).contains("19 of 19 journals sum to nil");
        assertThat(survey.layout()).contains("separator: tab").contains("century from: 19");
        remove(file);
    }

    @Test
    public void amountsOfTwoFashionsAndADateThatIsMissingAreAsked() throws Exception {
        Path file = folder().resolve("mixed.csv");
        StringBuilder mixed = new StringBuilder("Date;Details;Amount;Balance\n");
        StringBuilder dateless = new StringBuilder("Number;Party;Net;Due\n");
        for (int i = 13; i < 29; i++) {
            mixed.append(String.format("%d/02/2027;tin;1.%d0,50;1,%d0.50%n", i, i, i));
            dateless.append(String.format("%d;CUS-001;10.00;%d/02/2027%n", i, i));
        }
        Files.writeString(file, mixed);
        FileSurvey survey = FileSurvey.of(file);
        assertThat(survey.survey().question("numbers").words()).contains("No single way");
        assertThat(survey.layout()).contains("decimal: \"? ");
        Files.writeString(file, dateless);
        survey = FileSurvey.of(file);
        assertThat(survey.survey().question("date").words()).contains("which column holds the date");
        assertThat(survey.layout()).contains("pattern: \"? which column");
        assertThat(survey.isSettled()).isFalse();
        remove(file);
    }

    @Test
    public void filesThatAreNoStatementAreSaidToBeUnknown() throws Exception {
        Path file = folder().resolve("poem.txt");
        for (String text : List.of("", "\n\n", "roses\nare\nred\n", "a,b\n1,2\n3,4\n", "\"open\n")) {
            Files.writeString(file, text);
            FileSurvey survey = FileSurvey.of(file);
            assertThat(survey.survey().question("gives")).as(text).isNotNull();
            assertThat(survey.preview(3)).contains("no preview");
            assertThat(survey.layout()).contains("gives: \"? bank lines");
        }
        Files.write(file, new byte[] {0, 1, 2, 3, 4, 5, 6, 7});
        assertThatThrownBy(() -> FileSurvey.of(file)).hasMessageContaining("poem.txt: is neither text");
        String wide = "cell,".repeat(16_000);
        Files.writeString(file, wide + "\n" + wide + "\n");
        assertThat(FileSurvey.of(file).text()).contains("of 16001 columns only the first 400 were looked at");
        Files.writeString(file, "Date,Details,Amount\n" + "\"open,1,2\n".repeat(1000));
        assertThat(FileSurvey.of(file).text()).contains("1000 rows cannot be divided into cells: row 2");
        remove(file);
    }
}
