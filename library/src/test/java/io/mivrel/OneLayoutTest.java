package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.run.Progress;
import io.mivrel.survey.Answers;
import io.mivrel.text.DatePattern;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.testng.annotations.Test;

/** One layout for many months: other titles, other days, and what a layout lets pass. */
public class OneLayoutTest {
    private static Reading bank(String more, String fields, String text) throws Exception {
        Workshop workshop = new Workshop()
                .takes(
                        "bank",
                        "a.csv",
                        "layout: L\ngives: bank lines\naccount: 1200\n" + more
                                + "fields:\n  date: {column: Day, pattern: uuuu-MM-dd}\n" + fields)
                .put("a.csv", text);
        return Reading.of(workshop, "bank", BankLines.AMOUNT, BankLines.NARRATIVE);
    }

    @Test
    public void aColumnMayHaveSeveralTitlesOfWhichAFileHasOne() throws Exception {
        String fields = "  narrative: {column: [Details, Description]}\n  amount: {column: [Amount, Value]}\n";
        assertThat(bank("", fields, "Day,Details,Amount\n2027-03-01,tin,1.50\n").records())
                .containsExactly("150 | tin");
        assertThat(bank("", fields, "Day,Value,Description\n2027-03-01,1.50,tin\n")
                        .records())
                .containsExactly("150 | tin");
        Reading both = bank("", fields, "Day,Details,Description,Amount\n2027-03-01,tin,copper,1.50\n");
        assertThat(both.rules()).contains("column-twice");
        assertThat(bank("", fields, "Day,Text,Amount\n2027-03-01,tin,1.50\n").rules())
                .contains("column-missing");
    }

    @Test
    public void bothSidesAndBlanksAreTakenOnTrustOnlyWhenALayoutSaysSo() throws Exception {
        String sides = "  narrative: {column: Text}\n  money in: {column: In}\n  money out: {column: Out}\n";
        String text = "Day,Text,In,Out\n2027-03-01,both,5.00,1.50\n2027-03-02,none,,\n2027-03-03,in,2.00,\n";
        assertThat(bank("", sides, text).rules()).contains("amount-on-both-sides", "amount-missing");
        assertThat(bank("allow: [both sides netted, blank is nil]\n", sides, text)
                        .records())
                .containsExactly("350 | both", "0 | none", "200 | in");
        assertThat(bank("allow: blank is nil\n", sides, text).rules())
                .contains("amount-on-both-sides")
                .doesNotContain("amount-missing");
    }

    @Test
    public void amountsInMinorUnitsAreReadByDeclaration() throws Exception {
        String fields = "  narrative: {column: Text}\n  amount: {column: Amount}\n";
        String numbers = "numbers: {decimal: implied}\n";
        Reading read = bank(numbers, fields, "Day,Text,Amount\n2027-03-01,a,001250\n2027-03-01,b,-7\n");
        assertThat(read.records()).containsExactly("1250 | a", "-7 | b");
        assertThat(bank(numbers, fields, "Day,Text,Amount\n2027-03-01,a,12.50\n")
                        .rules())
                .contains("amount-unreadable");
    }

    @Test
    public void codesKeepNothingOfWhatASpreadsheetPutsBeforeThem() throws Exception {
        Workshop workshop = new Workshop()
                .takes(
                        "journal",
                        "a.csv",
                        "layout: L\ngives: journal lines\nfields:\n  reference: {column: r}\n"
                                + "  date: {constant: 2027-03-01}\n  account: {column: a}\n  amount: {column: n}\n")
                .put("a.csv", "r,a,n\n\"=\"\"007\"\"\",'5010,1.00\n'007,5020,-1.00\n");
        assertThat(Reading.of(workshop, "journal", JournalLines.REFERENCE, JournalLines.ACCOUNT)
                        .records())
                .containsExactly("007 | 5010", "007 | 5020");
    }

    private static FileSurvey survey(Workshop workshop, String name, String text) throws Exception {
        return FileSurvey.of(workshop.put(name, text).folder.resolve(name));
    }

    @Test
    public void aRenamedColumnIsFoundByWhatItHoldsAndTheLayoutMended() throws Exception {
        Workshop workshop = new Workshop();
        String rows = "2027-03-01,R0001,paid the tin man,-12.50\n2027-03-02,R0002,from St Aldhelm,40.00\n"
                + "2027-03-05,R0003,rent of the yard,-9.99\n";
        String layout = survey(workshop, "march.csv", "Date,Code,Description,Amount\n" + rows)
                .layout();
        workshop.put(
                "bank-layout.yaml",
                layout.replaceAll("\"\\? [^\"]*account[^\"]*\"", "1200")
                        .replaceAll("signs: \"[^\"]*\"", "signs: as written"));
        Path old = workshop.folder.resolve("bank-layout.yaml");
        // The title nearest to 'Description' is that of another column.
        FileSurvey april = survey(
                workshop, "april.csv", "Date,Description code,Wording,Amount,Fee\n" + rows.replace("\n", ",0.10\n"));
        FileSurvey.LayoutMatch likeness = april.like(old, 0);
        assertThat(likeness.isLike()).isFalse();
        assertThat(likeness.text()).contains("'Description' is probably 'Wording' now");
        assertThat(likeness.mended())
                .contains("column: [\"Description\", \"Wording\"]")
                .contains("Fee");
        workshop.put("bank-layout.yaml", likeness.mended());
        assertThat(april.like(old, 0).isLike()).isTrue();
        assertThat(survey(workshop, "march.csv", "Date,Code,Description,Amount\n" + rows)
                        .like(old, 0)
                        .isLike())
                .isTrue();
    }

    @Test
    public void yearsOfTwoDigitsLieAroundTheOthersOfTheFile() throws Exception {
        FileSurvey old = survey(
                new Workshop(),
                "old.csv",
                "Printed,31/12/1968\nDate,Text,Amount\n13/05/61,tin,1.00\n14/06/62,tin,2.00\n15/07/63,tin,3.00\n");
        DatePattern pattern = old.survey().pattern();
        assertThat(pattern).isNotNull();
        assertThat(DatePattern.of(pattern.pattern(), pattern.centuryFrom()).parse("13/05/61"))
                .isEqualTo(java.time.LocalDate.of(1961, 5, 13).toEpochDay());
    }

    @Test
    public void aBalanceOfWhatIsOwedTurnsAloneAndOnlyWhereTheFileSaysSo() throws Exception {
        String rows = """
                01/03/2027,Card payment Hollins Bakery,-12.40,112.40
                02/03/2027,Card payment Fenwater,-30.00,142.40
                05/03/2027,Card payment Hollins Bakery,-8.10,150.50
                13/03/2027,Card payment Hollins Bakery,-2.50,153.00
                15/03/2027,Direct debit Fenwater Energy,-47.00,200.00
                20/03/2027,Payment received thank you,200.00,0.00
                25/03/2027,Card payment Hollins Bakery,-5.00,5.00
                """;
        Workshop workshop = new Workshop();
        String layout = survey(workshop, "card.csv", "Date,Description,Amount,Balance owed\n" + rows)
                .layout();
        workshop.takes("bank", "card.csv", layout.replaceFirst("account: \"[^\"]*\"", "account: 1200"));
        assertThat(layout).contains("signs: balance reversed");
        assertThat(Reading.of(workshop, "bank", BankLines.AMOUNT, BankLines.BALANCE)
                        .records())
                .startsWith("-1240 | -11240", "-3000 | -14240");
        // Without the word, the amounts or the balance may be the ones that are turned: the texts choose no more than a
        // default.
        assertThat(survey(new Workshop(), "card.csv", "Date,Description,Amount,Balance\n" + rows)
                        .layout())
                .contains(
                        "signs: \"? balance reversed ('-12.40 Card payment Hollins Bakery' went out) or reversed ('-12.40");
        // Amounts that their balance proves are as written, whatever the texts say, and the account is asked about.
        String bare = survey(
                        new Workshop(),
                        "card.csv",
                        "Date,Description,Amount,Balance\n"
                                + rows.replace("200.00,0.00", "=200.00,0.00")
                                        .replace(",-", ",")
                                        .replace("=", "-"))
                .layout();
        assertThat(bare)
                .doesNotContain("\nsigns:")
                .contains("Of a card or loan whose balance here is what is owed, add 'signs: all reversed'");
    }

    @Test
    public void oneDepositAmongManyPaymentsKeepsItsSide() throws Exception {
        StringBuilder rows = new StringBuilder("Date;Text;Amount;+/-;Balance\n");
        List<String> wanted = new ArrayList<>();
        long balance = 900_000;
        for (int i = 0; i < 24; i++) {
            boolean in = i == 15;
            long minor = 1_000 + 37L * i;
            balance += in ? minor : -minor;
            wanted.add(Long.toString(in ? minor : -minor));
            rows.append(String.format(
                    Locale.ROOT,
                    "%02d.03.2027;%s %d;%.2f;%s;%.2f%n",
                    1 + i,
                    in ? "from St Aldhelm" : "tin",
                    i,
                    minor / 100.0,
                    in ? "+" : "-",
                    balance / 100.0));
        }
        for (boolean newestFirst : new boolean[] {false, true}) {
            List<String> lines = new ArrayList<>(rows.toString().lines().toList());
            List<String> expected = new ArrayList<>(wanted);
            if (newestFirst) {
                Collections.reverse(lines.subList(1, lines.size()));
                Collections.reverse(expected);
            }
            Workshop workshop = new Workshop();
            String layout =
                    survey(workshop, "a.csv", String.join("\n", lines) + "\n").layout();
            workshop.takes("bank", "a.csv", layout.replaceFirst("account: \"[^\"]*\"", "account: 1200"));
            assertThat(Reading.of(workshop, "bank", BankLines.AMOUNT).records())
                    .as(layout)
                    .isEqualTo(expected);
            assertThat(workshop.run("bank").report().held().rows()).isZero();
        }
    }

    @Test
    public void thatAFileIsOfAKindMayBeSaidAndTheSurveyGoesOn() throws Exception {
        Workshop workshop = new Workshop();
        String text = "a,b,c,d\nV1,2027-03-01,1.00,tin for the foundry\nV1,2027-03-01,-1.00,tin for the foundry\n";
        Path file = workshop.put("odd.csv", text).folder.resolve("odd.csv");
        FileSurvey survey =
                FileSurvey.of(file, "odd.csv", new Answers(Map.of("gives", JournalLines.KIND.name())), Progress.NONE);
        assertThat(survey.layout()).contains("gives: journal lines", "amount: {column: \"c\"}", "date: {column: \"b\"");
        assertThat(survey.json()).contains("\"gives\" : \"journal lines\"", "\"format\" : \"mivrel-survey\"");
        FileSurvey unknown = survey(workshop, "words.csv", "a,b\nx y,z w\nu v,t s\n");
        assertThat(unknown.layout()).contains("gives: \"? bank lines").doesNotContain("fields:\n\n");
    }

    @Test
    public void aColumnOfChargesIsProvedByTheBalanceOrAskedAbout() throws Exception {
        StringBuilder with = new StringBuilder("Date,Text,Amount,Fee,Balance\n");
        StringBuilder without = new StringBuilder("Date,Text,Amount,Fee\n");
        long balance = 10_000;
        for (int i = 1; i < 20; i++) {
            long amount = (i % 3 == 0 ? 5 : -7) * (100 + i);
            long fee = i % 2 * 50;
            balance += amount - fee;
            String row = String.format(
                    java.util.Locale.ROOT, "2027-03-%02d,tin %d,%.2f,%.2f", i, i, amount / 100.0, fee / 100.0);
            with.append(row).append(String.format(java.util.Locale.ROOT, ",%.2f\n", balance / 100.0));
            without.append(row).append('\n');
        }
        Workshop workshop = new Workshop();
        FileSurvey proved = survey(workshop, "a.csv", with.toString());
        assertThat(proved.text()).contains("the balances prove 18 of 18 steps");
        assertThat(proved.layout()).contains("less: \"Fee\"", "allow: [both sides netted]");
        assertThat(proved.survey().questions()).extracting(q -> q.about()).containsExactly("account");
        FileSurvey asked = survey(workshop, "b.csv", without.toString());
        assertThat(asked.survey().questions()).extracting(q -> q.about()).contains("charges");
        assertThat(asked.layout()).contains("less: \"? are the charges in 'Fee'");
    }

    @Test
    public void moreWordsCanBeTaught() throws Exception {
        Workshop workshop = new Workshop();
        String text = "Zzdag,Zzwoord,Zzsom,Zzother\n2027-03-01,tin man,1.00,7.00\n2027-03-02,inn,2.00,7.00\n";
        workshop.put("words.txt", "# ours\namount: zzsom | zzsum\ntext: zzwoord\n");
        FileSurvey.learnWords(workshop.folder.resolve("words.txt"));
        assertThat(survey(workshop, "a.csv", text).layout()).contains("amount: {column: \"Zzsom\"");
        Path wrong = workshop.put("wrong.txt", "amount: x\nsumme: y\n").folder.resolve("wrong.txt");
        assertThatThrownBy(() -> FileSurvey.learnWords(wrong))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("wrong.txt:2");
    }

    @Test
    public void filesOfOneFormAreKnownByIt() throws Exception {
        Workshop workshop = new Workshop();
        String one = survey(workshop, "a.csv", "Date,Text,Amount\n2027-03-01,x y,1.00\n")
                .form();
        assertThat(survey(workshop, "b.csv", "Date,Text,Amount\n2027-04-01,z,-7.00\n")
                        .form())
                .isEqualTo(one);
        assertThat(survey(workshop, "c.csv", "Date;Text;Amount\n2027-04-01;z;-7.00\n")
                        .form())
                .isNotEqualTo(one);
        assertThat(List.of(survey(workshop, "d.csv", "Date,Amount\n2027-04-01,-7.00\n")
                        .form()))
                .doesNotContain(one);
        Files.delete(workshop.folder.resolve("a.csv"));
    }
}
