package io.mivrel.cli;

import static io.mivrel.cli.CommandOutput.mivrel;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A newcomer with raw files and a chart: a correct import file, and no settings written by hand. */
public class StartTest {
    private static final int MOST_ANSWERS = 6;

    private static Path raw(String name) {
        try {
            return Path.of(StartTest.class.getResource("/newcomer/" + name).toURI());
        } catch (URISyntaxException e) {
            throw new IllegalStateException(e);
        }
    }

    // What the machine works for it, whatever else it has to do.
    private static Duration cpu() {
        return ProcessHandle.current().info().totalCpuDuration().orElseThrow();
    }

    private static Path folder() throws IOException {
        return Files.createTempDirectory("mivrel new comer").resolve("foundry");
    }

    private static CommandOutput start(Path folder, List<Path> files, String... answers) {
        List<Object> words = new ArrayList<>(List.of("start"));
        words.addAll(files);
        words.addAll(List.of("--in", folder));
        for (String answer : answers) {
            words.addAll(List.of("--answer", answer));
        }
        return mivrel(words.toArray());
    }

    private static String delivered(Path folder) throws IOException {
        try (Stream<Path> out = Files.list(folder.resolve("out"))) {
            return out.sorted()
                    .map(file -> {
                        try {
                            return Files.readString(file);
                        } catch (IOException e) {
                            throw new IllegalStateException(e);
                        }
                    })
                    .collect(Collectors.joining());
        }
    }

    @DataProvider
    public Object[][] newcomers() {
        return new Object[][] {
            {
                "konto-helmikuu-2027-02.csv",
                "chart-en.csv",
                "konto.yaml",
                List.of(
                        "company=Kellovalimo",
                        "currency=EUR",
                        "account=1800",
                        "uncoded=2900",
                        "deliver=journals-two-sides"),
                List.of(",26/02/2027,2900,Palvelumaksu,12.50,", ",05/02/2027,1800,Vuokra,,1730.00")
            },
            {
                "auszug-2027-02.sta",
                "chart-en.csv",
                "auszug.yaml",
                List.of(
                        "company=Glockenhof",
                        "account=1800",
                        "uncoded=2900",
                        "deliver=bank-one-amount,journals-one-amount"),
                List.of("2027-02-05,MIETE HALLE,", ",-1730.00", ",2027-02-19,2900,RECHNUNG 3021,-1240.00")
            },
            {
                "ecritures-2027-02.txt",
                "plan-comptable.csv",
                "ecritures.yaml",
                List.of("company=Fonderie", "currency=EUR", "deliver=journals-decimal-comma"),
                List.of("AC-101;03.02.2027;606;Achat d'étain;820,00;", "VE-055;14.02.2027;706;Vente cloche;;2460,50")
            },
            {
                "sales-feb-2027.csv",
                "chart-en.csv",
                "sales.yaml",
                List.of(
                        "company=Larkmoor",
                        "currency=GBP",
                        "kind=Inv: invoice, Cr: credit note",
                        "tax account=2300",
                        "deliver=journals-one-amount"),
                List.of("5501,2027-02-04,1600,", ",358.20", "5503,2027-02-18,1600,", ",-168.00")
            },
            {
                "card-feb.ofx",
                "chart-en.csv",
                "card.yaml",
                List.of("company=Larkmoor", "account=2200", "uncoded=2900", "deliver=journals-two-sides"),
                List.of(",03/02/2027,2900,HILLTOP HARDWARE,48.20,", ",20/02/2027,2200,PAYMENT RECEIVED,300.00,")
            },
        };
    }

    @Test(dataProvider = "newcomers")
    public void aFewAnswersMakeAFolderThatDelivers(
            String file, String chart, String sheet, List<String> answers, List<String> lines) throws IOException {
        Path folder = folder();
        Duration began = cpu();
        CommandOutput made = start(folder, List.of(raw(file), raw(chart)), answers.toArray(String[]::new));
        assertThat(made.err()).isEmpty();
        assertThat(made.status()).isZero();
        assertThat(made.out()).contains("next: mivrel run").contains("proved: ");
        CommandOutput run = mivrel("run", folder.resolve(sheet));
        assertThat(run.status()).isZero();
        assertThat(run.out()).contains("read back: matches").contains(" 0 held ");
        assertThat(delivered(folder)).contains(lines);
        assertThat(answers.size()).isLessThanOrEqualTo(MOST_ANSWERS);
        assertThat(cpu().minus(began)).isLessThan(Duration.ofSeconds(10));
    }

    @Test
    public void theNextMonthWithOtherTitlesIsOneQuestion() throws IOException {
        Path folder = folder();
        start(
                folder,
                List.of(raw("konto-helmikuu-2027-02.csv"), raw("chart-en.csv")),
                "company=Kellovalimo",
                "currency=EUR",
                "account=1800",
                "uncoded=2900",
                "deliver=journals-two-sides");
        assertThat(mivrel("run", folder.resolve("konto.yaml")).status()).isZero();
        Path march = folder.resolveSibling("konto-maaliskuu-2027-03.csv");
        Files.writeString(march, """
                Kirjauspäivä;Arvopäivä;Summa;Tili;Saldo;Saaja/Maksaja;Viesti
                30.03.2027;30.03.2027;-12,50;77;2 444,80;Koivulan Pankki;Palvelumaksu
                05.03.2027;05.03.2027;-1 730,00;77;2 457,30;Mäntylän Kiinteistöt;Vuokra
                """);
        CommandOutput asked = start(folder, List.of(march));
        assertThat(asked.status()).isEqualTo(2);
        assertThat(asked.err())
                .contains("renamed: 'Määrä' is probably 'Summa' now")
                .contains("--answer same=");
        Path layout = folder.resolve("layouts/konto.yaml");
        String before = Files.readString(layout);
        CommandOutput taken = start(folder, List.of(march), "same=yes");
        assertThat(taken.status()).isZero();
        assertThat(taken.out()).contains("konto.yaml' --for 2027-03");
        assertThat(Files.readString(folder.resolve("layouts/earlier/konto.yaml")))
                .isEqualTo(before);
        assertThat(mivrel("run", folder.resolve("konto.yaml")).err()).contains("say which month: --for 2027-03");
        CommandOutput run = mivrel("run", folder.resolve("konto.yaml"), "--for", "2027-03");
        assertThat(run.status()).isZero();
        assertThat(run.out()).contains("closing; the balance proves all 1 step").contains("Konto 2027-03");
        assertThat(delivered(folder)).containsOnlyOnce("05/03/2027,1800,Vuokra").contains("05/02/2027,1800,Vuokra");
    }

    @Test
    public void whatIsMissingOrWrongIsSaidAndNothingIsWritten() throws IOException {
        Path folder = folder();
        List<Path> files = List.of(raw("auszug-2027-02.sta"), raw("chart-en.csv"));
        assertThat(start(folder, files).err())
                .contains("an answer is missing; nothing was written", "--answer company=");
        assertThat(start(folder, files, "company=K", "account=1805", "deliver=bank-one-amount")
                        .err())
                .contains("'1805' is not among", "'1800'?");
        assertThat(start(folder, files, "company=K", "currency=Euro").err())
                .contains("not a currency code of ISO 4217");
        assertThat(start(folder, files, "company=K", "account=1800", "deliver=bank-two")
                        .err())
                .contains("'bank-two' is not among");
        assertThat(folder).doesNotExist();
        CommandOutput twice = start(folder, files, "company=K", "account=1800", "colour=red");
        assertThat(twice.err()).contains("not asked for, so not used: colour");
        CommandOutput again = start(folder, files, "account=1800", "same=no");
        assertThat(again.out()).contains("a chart, not read: the books have one already");
        assertThat(again.err()).contains("nothing is overwritten");
    }

    @Test
    public void whatIsNoRunSheetIsToldApart() throws IOException {
        Path folder = folder();
        start(folder, List.of(raw("auszug-2027-02.sta"), raw("chart-en.csv")), "company=K", "account=1800");
        assertThat(mivrel("run", folder.resolve("layouts/auszug.yaml")).err())
                .contains("is a layout; a run sheet names it");
        assertThat(mivrel("run", folder.resolve("deliveries/bank-one-amount.yaml"))
                        .err())
                .contains("is a delivery");
        assertThat(mivrel("check", folder.resolve("books/books.yaml")).err())
                .contains("a run sheet names their folder");
        CommandOutput raw = mivrel("check", raw("auszug-2027-02.sta"));
        assertThat(raw.err()).contains("to make one from a raw file: mivrel start ");
        assertThat(raw.status()).isEqualTo(2);
        assertThat(mivrel("run", folder.resolve("auszug.yaml"), "--for", "March")
                        .err())
                .contains("a month such as 2027-04");
    }

    @Test
    public void aChartInOtherWordsIsAskedFor() throws IOException {
        Path folder = folder();
        Path words = Files.writeString(
                folder.resolveSibling("plan.csv"),
                "Printed today\n\nNo;Description;Group;Inactive\n10;Bench;Sundry things;No\n20;Bank;Bank;No\n30;Old rent;Overheads;Yes\n"
                        + "40;Rent;Overheads;No\n;Total;;\n");
        CommandOutput asked = start(folder, List.of(raw("auszug-2027-02.sta"), words), "company=K");
        assertThat(asked.err()).contains("What is each of these in the chart: Sundry things?", "--answer types=");
        assertThat(start(folder, List.of(raw("auszug-2027-02.sta"), words), "company=K", "types=Sundry things: stuff")
                        .err())
                .contains("one of asset, liability, equity, income, expense");
        start(
                folder,
                List.of(raw("auszug-2027-02.sta"), words),
                "company=K",
                "types=Sundry things: asset",
                "account=20");
        assertThat(Files.readAllLines(folder.resolve("books/chart.csv")))
                .contains(
                        "10,Bench,asset,,,,,",
                        "20,Bank,asset,bank,,,39990000/0012345678,",
                        "30,Old rent,expense,,closed,,,",
                        "40,Rent,expense,,,,,");
    }

    @Test
    public void aChartWithoutTypesIsAskedForItsRanges() throws IOException {
        Path folder = folder();
        Path plain = Files.writeString(
                folder.resolveSibling("codes.csv"), "Code,Name\n1000,Bank\n1001,Rent\n4000,Rent\n4001,Sales\n");
        List<Path> files = List.of(raw("auszug-2027-02.sta"), plain);
        assertThat(start(folder, files, "company=K", "types=1000-1999: asset").err())
                .contains("no range has the code 4000");
        start(folder, files, "company=K", "types=1000-1999: asset, 40: expense", "account=1000");
        assertThat(Files.readAllLines(folder.resolve("books/chart.csv")))
                .contains("1001,Rent (1001),asset,,,,,", "4000,Rent (4000),expense,,,,,");
        Path twice = Files.writeString(plain.resolveSibling("twice.csv"), "Code,Name\n1000,Bank\n1000,Cash\n");
        assertThat(start(folder(), List.of(twice), "company=K").err()).contains("stand twice in the chart: 1000");
    }

    @Test
    public void ratesThatTheFiguresDoNotTellAreAskedFor() throws IOException {
        Path folder = folder();
        Path bills = Files.writeString(
                folder.resolveSibling("bills-2027-02.csv"),
                Files.readString(raw("sales-feb-2027.csv")).replace("S,56.00", "S,54.00"));
        CommandOutput asked = start(
                folder,
                List.of(bills, raw("chart-en.csv")),
                "company=K",
                "currency=GBP",
                "kind=Inv: invoice, Cr: credit note");
        assertThat(asked.err()).contains("how many per cent is each of these tax codes: S?");
        CommandOutput told = start(
                folder,
                List.of(bills, raw("chart-en.csv")),
                "company=K",
                "currency=GBP",
                "kind=Inv: invoice, Cr: credit note",
                "rates=S: 20",
                "tax account=2300");
        assertThat(told.out()).contains("1 tax-differs");
        assertThat(Files.readAllLines(folder.resolve("books/tax-codes.csv"))).contains("S,S,20,2300", "Z,Z,0,");
    }

    @Test
    public void theShelfAndTheManualShowThemselves() {
        CommandOutput shelf = mivrel("help", "shelf");
        assertThat(shelf.status()).isZero();
        assertThat(shelf.out())
                .contains("bank-in-and-out   Bank lines", "02/03/2027,TIN INGOT CALDER VALE,100871,,310.25")
                .contains("invoices-two-files", "2041,2,Carriage,18.50,STD,3.70,4100");
        assertThat(mivrel("shelf", "journals-two-sides").out()).contains("takes: journals");
        assertThat(shelf.out()).contains("chart-common", "CUS-001,Parish of Torrow,customer");
        assertThat(mivrel("shelf", "parties-blank").out()).isEqualTo("code,name,kind\n");
        assertThat(mivrel("shelf", "journals").err()).contains("is not on the shelf");
        assertThat(mivrel("man").out())
                .startsWith(".TH MIVREL 1")
                .contains(".SS mivrel start", ".SS mivrel watch", "MIVREL_REGISTER_URL");
        assertThat(mivrel("man", "--completion").out()).contains("complete -F _complete_mivrel", "watch");
    }

    @Test
    public void anAccountInAnotherCurrencyIsKeptInIt() throws IOException {
        Path folder = folder();
        CommandOutput asked = start(folder, List.of(raw("card-feb.ofx")), "company=K", "currency=EUR", "account=2200");
        assertThat(asked.status()).isZero();
        assertThat(asked.out()).contains("the account 2200 is kept in USD, says the file");
        assertThat(Files.readString(folder.resolve("books/chart.csv")))
                .contains("2200,Credit card,liability,card,,,4000111122223333,USD");
        assertThat(mivrel("run", folder.resolve("card.yaml")).status()).isZero();
        assertThat(delivered(folder)).contains("2027-02-03,HILLTOP HARDWARE,");
        String[] journals = {"company=K", "currency=EUR", "account=2200", "deliver=journals-two-sides"};
        assertThat(start(folder(), List.of(raw("card-feb.ofx")), journals).err())
                .contains("'journals-two-sides' is not among bank-one-amount");
    }

    @Test
    public void theCurrencyOfAFileIsWrittenIntoBooksThatExist() throws IOException {
        Path folder = folder();
        Path home = Files.writeString(
                folder.resolveSibling("home.csv"),
                "Date,Text,Paid in,Paid out\n13/03/2027,tin,,10.00\n14/03/2027,bell,500.00,\n");
        start(folder, List.of(home), "company=K", "currency=GBP", "account=1200");
        String before = Files.readString(folder.resolve("books/chart.csv"));
        CommandOutput added = start(folder, List.of(raw("card-feb.ofx")), "account=2200");
        assertThat(added.out()).contains("the account 2200 is kept in USD, says the file");
        assertThat(Files.readString(folder.resolve("books/chart.csv")))
                .isEqualTo(before.replaceFirst("(?m)^(2200,.*),$", "$1,USD"))
                .isNotEqualTo(before);
        assertThat(folder.resolve("books/earlier/chart.csv")).hasContent(before.strip());
        assertThat(mivrel("run", folder.resolve("card.yaml")).status()).isZero();
    }

    @Test
    public void aChartThatWouldNotComeOutAsItWasIsLeftAloneAndTold() throws IOException {
        Path folder = folder();
        Path home = Files.writeString(
                folder.resolveSibling("home.csv"),
                "Date,Text,Paid in,Paid out\n13/03/2027,tin,,10.00\n14/03/2027,bell,500.00,\n");
        start(folder, List.of(home), "company=K", "currency=GBP", "account=1200");
        Path chart = folder.resolve("books/chart.csv");
        Files.writeString(chart, Files.readString(chart) + "9990,\"Sundry\nitems\",expense,,,,,\n");
        String before = Files.readString(chart);
        CommandOutput added = start(folder, List.of(raw("card-feb.ofx")), "account=2200");
        assertThat(added.out())
                .contains("the account 2200 is kept in USD", "write that under 'currency' in books/chart.csv");
        assertThat(chart).hasContent(before.strip());
        assertThat(folder.resolve("books/earlier")).doesNotExist();
    }
}
