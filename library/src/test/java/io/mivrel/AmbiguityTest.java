package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.survey.Survey.Question;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a file leaves open is asked; the same file with the one thing that decides it is not asked about. */
public class AmbiguityTest {
    private static final String ROWS = """
            %s;Card payment Hollins;-12.40;%s
            %s;Refund Hollins;4.10;%s
            %s;Card payment Hollins;-7.25;%s
            %s;Direct debit energy;-30.00;%s
            """;

    private static String rows(String... days) {
        return String.format(ROWS, days[0], "87.60", days[1], "91.70", days[2], "84.45", days[3], "54.45");
    }

    @DataProvider
    public Object[][] doubts() {
        String titles = "Date;Details;Amount;Balance\n";
        String shops = "Date;Text;Amount\n01.03.2027;Hollins Bakery;%s\n02.03.2027;Fenwater;%s\n13.03.2027;Market;%s\n";
        String thousand = "Date;Text;Amount\n13.03.2027;Card payment A;-1%s250\n14.03.2027;Card payment B;-3%s725\n"
                + "15.03.2027;Salary;12%s100\n";
        String danish =
                "Dag;Navn;Total\n13.03.2027;Kort k\u00f8b;-1,00\n14.03.2027;Kort S\u00f8n;-2,00\n15.03.2027;Kort;-2,00\n";
        return new Object[][] {
            // Day and month: every number is 12 or less, and both readings are in order.
            {"date", titles + rows("01/03/2027", "02/03/2027", "04/03/2027", "05/03/2027"), true},
            {"date", titles + rows("01/03/2027", "02/03/2027", "04/03/2027", "15/03/2027"), false},
            {
                "date",
                "Period: 01/03/2027 to 31/03/2027\n" + titles
                        + rows("01/03/2027", "02/03/2027", "04/03/2027", "05/03/2027"),
                false
            },
            // Thousands or three decimals, with no currency to tell.
            {"numbers", String.format(thousand, ",", ",", ","), true},
            {"numbers", "Currency;JPY\n" + String.format(thousand, ",", ",", ","), false},
            {"numbers", "Currency;KWD\n" + String.format(thousand, ".", ".", "."), false},
            {"numbers", String.format(thousand, ",", ",", ",").replace("12,100", "12,100.50"), false},
            // Nothing says whether a positive amount is money in.
            {"signs", String.format(shops, "12.40", "30.00", "7.25"), true},
            // Texts choose no more than the default.
            {
                "signs",
                String.format(shops, "12.40", "30.00", "7.25")
                        .replace(";H", ";Card payment H")
                        .replace(";F", ";Direct debit F")
                        .replace(";M", ";Purchase M"),
                true
            },
            {
                "signs",
                "Opening balance;100.00\nClosing balance;149.65\n" + String.format(shops, "12.40", "30.00", "7.25"),
                false
            },
            // What the rows are.
            {"gives", "Aa;Bb;Cc\nx;y;1\nx;z;2\nq;z;3\n", true},
        };
    }

    @Test(dataProvider = "doubts")
    public void isAskedOnlyWhenItIsOpen(String about, String file, boolean open) throws Exception {
        Path path = new Workshop().put("doubt.csv", file).folder.resolve("doubt.csv");
        List<String> asked = new ArrayList<>(FileSurvey.of(path).survey().questions().stream()
                .map(Question::about)
                .toList());
        assertThat(asked.contains(about)).as(asked + " of\n" + file).isEqualTo(open);
    }

    @Test
    public void anEncodingIsAskedWhenTwoReadTheFileDifferentlyAndBothMakeWords() throws Exception {
        byte[] file = "Day;Name;Sum\n13.03.2027;S\u00f8n;1.00\n".getBytes(Charset.forName("windows-1252"));
        Path path = new Workshop().put("a.csv", file).folder.resolve("a.csv");
        FileSurvey survey = FileSurvey.of(path);
        Question encoding = survey.survey().question("encoding");
        assertThat(encoding).isNotNull();
        assertThat(encoding.words()).contains("windows-1252", "by the first", "by the second");
        byte[] plain = "Day;Name;Sum\n13.03.2027;M\u00fcller;1.00\n".getBytes(StandardCharsets.ISO_8859_1);
        Path other = new Workshop().put("b.csv", plain).folder.resolve("b.csv");
        assertThat(FileSurvey.of(other).survey().question("encoding")).isNull();
    }

    @Test
    public void theSignOfAFirstRowThatNothingTellsIsHeldAndNamed() throws Exception {
        String rows =
                "Date;Shop;Amount;Balance\n01.03.2027;a;5.00;95.00\n13.03.2027;b;20.00;75.00\n14.03.2027;c;10.00;85.00\n"
                        + "15.03.2027;d;1.00;84.00\n16.03.2027;e;4.00;88.00\n";
        for (boolean stated : List.of(false, true)) {
            Workshop workshop = new Workshop();
            String file = (stated ? "Opening balance;100.00\n" : "") + rows;
            Path path = workshop.put("first.csv", file).folder.resolve("first.csv");
            String layout = FileSurvey.of(path).layout();
            assertThat(layout).contains("signs: by balance");
            workshop.takes("bank", "first.csv", layout.replaceFirst("account: \"[^\"]*\"", "account: 1200"));
            Outcome outcome = workshop.run("bank");
            assertThat(outcome.report().held().documents()).isEqualTo(stated ? 0 : 1);
            assertThat(outcome.report().clear().totals().debit()).isEqualTo(1400);
            assertThat(outcome.report().clear().totals().credit()).isEqualTo(stated ? 2600 : 2100);
        }
    }

    @Test
    public void inAFileWithTheLatestRowFirstTheRowToBlameIsHeld() throws Exception {
        String rows =
                "Date;Text;Amount;Balance\n16.03.2027;e;4.00;88.00\n15.03.2027;d;-1.00;84.00\n14.03.2027;c;10.00;85.00\n"
                        + "13.03.2027;b;-20.00;75.00\n01.03.2027;a;-5.00;95.00\n";
        Workshop workshop = new Workshop();
        Path path = workshop.put("desc.csv", rows).folder.resolve("desc.csv");
        String layout = FileSurvey.of(path).layout().replaceFirst("account: \"[^\"]*\"", "account: 1200");
        assertThat(layout).contains("order: newest first");
        workshop.takes("bank", "desc.csv", layout.replaceFirst("signs: \"[^\"]*\"", "signs: as written"))
                .put("desc.csv", rows.replace("10.00;85", "19.00;85"));
        Outcome outcome = workshop.run("bank");
        assertThat(outcome.report().held().documents()).isEqualTo(1);
        assertThat(Workshop.told(outcome).get(0).origin().row()).isEqualTo(4);
        // A wrong balance breaks two steps, and is to blame itself.
        Workshop other = new Workshop()
                .takes("bank", "desc.csv", layout.replaceFirst("signs: \"[^\"]*\"", "signs: as written"))
                .put("desc.csv", rows.replace("-20.00;75.00", "-20.00;76.00"));
        Outcome balance = other.run("bank");
        assertThat(balance.report().held().documents()).isEqualTo(1);
        assertThat(Workshop.told(balance).get(0).origin().row()).isEqualTo(5);
    }
}
